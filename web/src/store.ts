import { create } from "zustand";
import { useShallow } from "zustand/react/shallow";
import type { BaySize } from "./actions/bay";
import type { AreaShape } from "./actions/corners";
import type { OnRoof, RoofForm } from "./actions/roof";
import type { StairForm } from "./actions/stair";
import type { Motion } from "./actions/transform";

export type Step = "Plan" | "Heights" | "Roof" | "Elevations" | "Sections" | "Details" | "Sheets";
export type Side = "south" | "east" | "north" | "west";
export type Tool =
  | "select"
  | "outer-wall"
  | "inner-wall"
  | "window"
  | "door"
  | "niche"
  | "bay"
  | "construction"
  | "grid"
  | "ground-spot"
  | "ground-step"
  | "foundation-step"
  | "floor"
  | "deck"
  | "move"
  | "copy"
  | "mirror"
  | "turn"
  | "align"
  | "measure"
  | "post"
  | "beam"
  | "rail"
  | "stair"
  | "hole"
  | "setDown"
  | "hatch"
  | "slab"
  | "room"
  | "roof"
  | "on-roof"
  | "section"
  | "wall-section"
  | "note";
export type RoofBase = "walls" | "rectangle" | "dormer";
export type WallShape = "chain" | "rectangle" | "outline";

/** What was done last, in such a way that it can be done again to what is selected then. */
export type Last =
  | { kind: "entry"; field: string; label: string; text: string }
  | { kind: "motion"; label: string; motion: Motion; copies: number }
  | { kind: "tool"; label: string; tool: Tool };

/** A text that is being typed, to be shown in the views before it is taken. */
export interface Trial {
  element: string;
  others: string[];
  field: string;
  text: string;
}
export type Fill = "both" | "plan" | "view";
export type PanelName = "history" | "make-ups" | "plan" | "backgrounds";

export const LOOK: Record<Side, number> = { south: 90, east: 180, north: 270, west: 0 };

/** Share of the bench that the plan takes at each step. */
export const SPLIT: Record<Step, number> = {
  Plan: 0.64,
  Heights: 0.4,
  Roof: 0.6,
  Elevations: 0.47,
  Sections: 0.44,
  Details: 0.4,
  Sheets: 0.47,
};

/** What is shown where: k px per real mm; the other three are px offsets of the view's origin. */
export interface Viewport {
  k: number;
  u: number;
  w: number;
  v: number;
}

export interface Client {
  step: Step;
  side: Side;
  /** The level of the storey whose plan is shown; the lowest one when none. */
  storey: string | null;
  section: string | null;
  /** The detail that is looked at. */
  detail: string | null;
  /** An elevation along a direction of its own, instead of that of the side. */
  elevation: string | null;
  /** A view that stands beside the one that is shown, to compare their heights. */
  beside: string | null;
  /** The height that is pointed at beside the drawings: its sum, by id. */
  pointed: string | null;
  /** The corner whose projection line is walked along the plan, by its number; whether all are shown. */
  walked: number | null;
  allLines: boolean;
  sheet: string | null;
  tool: Tool;
  selection: string | null;
  /** Lettering that is selected: its view, and its key. */
  lettering: { view: string; key: string } | null;
  /** What is selected with it: elements alike, which change together. */
  also: string[];
  /** The note that is being tied to something else, by the tool for notes. */
  tying: string | null;
  fill: Fill;
  split: number;
  /** The usual scale at which the bench is drawn: the nearest to its zoom. */
  scale: number;
  makeUps: { outer: string | null; inner: string | null };
  /** Kinds of new openings: an id, "" for one of its own; the first of the project when null. */
  kinds: { window: string | null; door: string | null; niche: string | null };
  /** How walls are drawn: one after the other, or four at once. */
  shape: WallShape;
  /** How decks and slabs are drawn. */
  outline: AreaShape;
  bay: BaySize | null;
  /** What new roofs look like, and what they are drawn over. */
  roof: { form: RoofForm; over: RoofBase };
  /** What is put on roofs. */
  onRoof: OnRoof;
  /** How new stairs go up. */
  stair: StairForm;
  /** How many copies are made; whether a mirrored or turned thing stays where it was too. */
  copies: number;
  keep: boolean;
  last: Last | null;
  trial: Trial | null;
  /** Whether the set-out lines of walls are drawn over the plan. */
  setOut: boolean;
  /** Whether the house is shown as a solid, roofs without the floor plan, the framing of the floor instead of its plan. */
  solid: boolean;
  roofAlone: boolean;
  framing: "" | "framing" | "structure" | "sheets";
  /** The deck whose framing is shown; that of the floor where there is none. */
  framed: string | null;
  /** What is lit up on the drawings beside the selection: what carries it. */
  lit: string[];
  message: { text: string; tone: "wrong" | "note" } | null;
  /** The file that a plan is read from. */
  planFile: File | null;
  /** The view whose backgrounds are looked at, and a file that is brought to be laid under it. */
  under: string | null;
  underFile: File | null;
  panel: PanelName | null;
  hint: string;
  snapped: string;
  position: string;
  /** Where the pointer is on the bench (px). */
  at: { x: number; y: number };
  set: (part: Partial<Client>) => void;
}

/** Selection, action and place of the screen; never a copy of what the server holds. */
export const useClient = create<Client>((set) => ({
  step: "Elevations",
  side: "south",
  storey: null,
  section: null,
  detail: null,
  elevation: null,
  beside: null,
  pointed: null,
  walked: null,
  allLines: false,
  sheet: null,
  tool: "select",
  selection: null,
  lettering: null,
  also: [],
  tying: null,
  fill: "both",
  split: 0.47,
  scale: 96,
  makeUps: { outer: null, inner: null },
  kinds: { window: null, door: null, niche: null },
  shape: "chain",
  outline: "rectangle",
  bay: null,
  roof: { form: "hip", over: "walls" },
  onRoof: "chimney",
  stair: "straight",
  copies: 1,
  keep: false,
  last: null,
  trial: null,
  setOut: false,
  solid: false,
  roofAlone: false,
  framing: "",
  framed: null,
  lit: [],
  message: null,
  panel: null,
  planFile: null,
  under: null,
  underFile: null,
  hint: "",
  snapped: "",
  position: "",
  at: { x: 300, y: 200 },
  // Another selection stands alone, unless it says with what.
  set: (part) =>
    set("selection" in part ? { ...("also" in part ? {} : { also: [] }), lettering: null, lit: [], ...part } : part),
}));

/** Some of what the screen holds: what reads it is drawn anew when one of these changes, and for nothing else. */
export function usePick<K extends keyof Client>(...keys: K[]): Pick<Client, K> {
  return useClient(useShallow((held) => Object.fromEntries(keys.map((key) => [key, held[key]])) as Pick<Client, K>));
}
