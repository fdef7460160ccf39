import type { Edit, Schemas } from "../api/client";

export type Project = Schemas["Project"];
export type Snaps = Schemas["Snaps"];
export type Storey = Schemas["StoreyItem"];

/** A storey, or what lies under a floor or deck: there tops lie so much `lower` than its plate. */
export type Under = Storey & { lower?: number };

/** A place in the turned plan, with what it was snapped to. */
export interface Place {
  u: number;
  w: number;
  label: string;
  joint?: string;
  wall?: string;
  /** Distance along the wall from its start. */
  along?: number;
  /** The construction line that it lies on. */
  guide?: string;
  /** What is wrong with this place: what the pointer means stands on another storey. */
  elsewhere?: string;
}

export interface Overlay {
  lines: { u1: number; w1: number; u2: number; w2: number; bulge?: number; dashed?: boolean }[];
  dots: { u: number; w: number }[];
  label?: { u: number; w: number; length: number; word?: string };
  /** What remains from the pointer to the first corner, across and up the sheet. */
  closing?: { du: number; dw: number; words?: [string, string] };
}

/** What an action shows and asks for after an event. */
export interface Outcome {
  overlay: Overlay;
  hint: string;
  /** Edits to show and not keep. */
  preview?: Edit[];
  /** Edits to keep: one step of undo. */
  edits?: Edit[];
  /** The action is over; the element to select. */
  done?: { select: string | null; also?: string[] };
  /** What a typed length means now; without it no entry opens. */
  asks?: string;
  /** What is typed is an angle in degrees. */
  degrees?: boolean;
  /** A typed length may come with an angle. */
  angles?: boolean;
  /** What a second typed length means: Tab goes to it, and `30' x 20'` gives both. */
  second?: string;
  /** Something that cannot be done, in words. */
  wrong?: string;
}

export type ActionKey = "Enter" | "Escape" | "ArrowLeft" | "ArrowRight" | "ArrowUp" | "ArrowDown" | "a" | "f";

/** An action on the plan: events in, outcome out. Knows no React and no server. */
export interface PlanAction {
  start(): Outcome;
  move(place: Place): Outcome;
  click(place: Place): Outcome;
  length(mm: number, angle?: { degrees: number; relative: boolean }, second?: number): Outcome;
  key(key: ActionKey): Outcome | null;
}

export const EMPTY: Overlay = { lines: [], dots: [] };

let counter = 0;

/** An id for a new element: the kind and a random tail. */
export function newId(kind: string): string {
  counter += 1;
  const random = crypto.getRandomValues(new Uint32Array(1))[0].toString(36);
  return `${kind}-${random}${counter.toString(36)}`;
}

/** Directions of the turned plan: u to the right, w along the look direction. */
export interface Turn {
  dx: number;
  dy: number;
}

export function toPlan(turn: Turn, u: number, w: number): { x: number; y: number } {
  return { x: clean(u * turn.dy + w * turn.dx), y: clean(-u * turn.dx + w * turn.dy) };
}

/** Binary noise of a rotation, a millionth of a millimetre, is not a fact of the house. */
function clean(value: number): number {
  return Math.round(value * 1e6) / 1e6;
}
