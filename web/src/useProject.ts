import { createContext, useContext } from "react";
import type { Storey } from "./actions/types";
import type { Bench, Edit, State, ViewWanted } from "./api/client";
import type { Change } from "./api/queries";

/** What the parts of the workspace share: the saved state, what is drawn, and how to change it. */
export interface Held {
  id: string;
  state: State;
  bench: Bench;
  views: ViewWanted[];
  viewName: string;
  /** The storey whose plan is shown. */
  storey: Storey;
  saving: boolean;
  /** The views that are wanted have not come yet; those of before are shown. */
  busy: boolean;
  change: (change: Change, then?: { done?: () => void; failed?: (error: Error) => void }) => void;
  commit: (edits: Edit[], then?: { done?: () => void; failed?: (error: Error) => void }) => void;
}

export const HeldContext = createContext<Held | null>(null);

export function useHeld(): Held {
  const held = useContext(HeldContext);
  if (!held) throw new Error("outside of a project");
  return held;
}
