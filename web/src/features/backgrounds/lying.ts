import { type Turn, toPlan } from "../../actions/types";
import type { Edit } from "../../api/client";

export type Way = "scale" | "lay" | "straighten" | "crop";
export type Point = readonly [number, number];

/** What is pointed at, one after the other, and what each is called. */
export const ASKS: Record<Way, string[]> = {
  scale: ["one end of a length that you know", "its other end"],
  lay: [
    "a point of the background",
    "where that point belongs",
    "a second point of the background",
    "where that one belongs",
  ],
  straighten: ["one end of a line that is to be level or upright", "its other end"],
  crop: ["one corner of what is to be shown", "the opposite corner"],
};

/** Whether the next point is one of the background, rather than of the house. */
export const ofBackground = (way: Way, place: number) => way !== "lay" || place % 2 === 0;

/** A point of the view as backgrounds count: in a plan east and north. */
function spot(turn: Turn | null, [u, v]: Point): { x: number; y: number } {
  return turn ? toPlan(turn, u, v) : { x: u, y: v };
}

/** What the points make of a background, when there are enough of them; `turn` is that of a plan. */
export function lyingEdit(
  way: Way,
  background: string,
  points: readonly Point[],
  turn: Turn | null,
  also: { length?: number; early?: boolean; kept?: boolean } = {},
): Edit | null {
  const spots = points.map((point) => spot(turn, point));
  const [a, b, c, d] = spots;
  if (way === "lay") {
    if (spots.length === 2 && also.early)
      return { kind: "lay_background", background, points: [a], onto: [b], kept: true };
    if (spots.length < 4) return null;
    return { kind: "lay_background", background, points: [a, c], onto: [b, d], kept: also.kept ?? false };
  }
  if (spots.length < 2) return null;
  if (way === "scale")
    return also.length ? { kind: "scale_background", background, points: [a, b], length: also.length } : null;
  if (way === "straighten") return { kind: "straighten_background", background, points: [a, b] };
  return { kind: "crop_background", background, corners: [a, b] };
}
