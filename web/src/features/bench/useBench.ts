import { createContext, useContext } from "react";
import type { Bench, Drawing } from "../../api/client";
import type { Viewport } from "../../store";
import type { Panes, Size } from "./viewport";

/** What everything on the bench is drawn from: what is shown (saved, or as it would be), and where. */
export interface OnBench {
  bench: Bench;
  plan: Drawing | undefined;
  view: Drawing | undefined;
  viewport: Viewport;
  panes: Panes;
  size: Size;
  /** Says which height is pointed at, beside the drawings. */
  point: (sum: string | null) => void;
}

export const BenchContext = createContext<OnBench | null>(null);

export function useBench(): OnBench {
  const held = useContext(BenchContext);
  if (!held) throw new Error("outside of the bench");
  return held;
}
