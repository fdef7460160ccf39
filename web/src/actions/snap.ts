import { footOn, lengthOf } from "./arc";
import type { Place, Snaps } from "./types";
import type { UnderLines } from "./underLines";

interface Options {
  /** Real mm per px: snapping reaches so many px. */
  mmPerPx: number;
  /** Step of free positions, mm. */
  grid: number;
  /** Draw at right angles from here unless something nearer is snapped to. */
  from?: { u: number; w: number } | null;
  /** Points of the action itself, such as the first corner of a chain. */
  own?: Place[];
  /** Lines of what lies under the plan. */
  under?: UnderLines | null;
  /** Only right angles from `from` count, whatever lies near. */
  square?: boolean;
}

const POINT_PX = 11;
const LINE_PX = 9;
const RIGHT_ANGLE_DEG = 7;

/** The place that a pointer means: an end, then a middle, then a line, then right angles, then the grid. */
export function snapPlace(u: number, w: number, snaps: Snaps, options: Options): Place {
  const { mmPerPx, grid, from } = options;
  if (options.square && from) return atRightAngle(u, w, from, grid, 45) ?? { ...from, label: "" };
  const near = (a: number, b: number, reach: number) => Math.hypot(a - u, b - w) < reach * mmPerPx;
  for (const place of options.own ?? []) if (near(place.u, place.w, POINT_PX)) return place;
  for (const kind of ["joint", "middle"] as const) {
    const point = snaps.points
      .filter((point) => point.kind === kind && near(point.u, point.w, POINT_PX))
      .sort((a, b) => Math.hypot(a.u - u, a.w - w) - Math.hypot(b.u - u, b.w - w))[0];
    if (point)
      return kind === "joint"
        ? { u: point.u, w: point.w, label: point.label, joint: point.joint ?? undefined }
        : { ...onLine(point.u, point.w, point.wall ?? "", snaps), label: point.label };
  }
  const below = options.under?.end(u, w, POINT_PX * mmPerPx);
  if (below) return { u: below[0], w: below[1], label: "end of a line below" };
  const guides = snaps.guides;
  const crossed = crossingGuide(u, w, guides, POINT_PX * mmPerPx);
  if (crossed) return crossed;
  const straight = from ? atRightAngle(u, w, from, grid) : null;
  const line = nearestLine(u, w, snaps, LINE_PX * mmPerPx);
  if (line && straight) return crossing(line, straight, from) ?? line;
  if (line) return line;
  const guide = nearestGuide(u, w, guides, LINE_PX * mmPerPx);
  if (guide && straight && from) return guideAtRightAngle(guide, straight, from, guides) ?? guide;
  if (guide) return guide;
  const lying = straight ? null : options.under?.foot(u, w, LINE_PX * mmPerPx);
  if (lying) return { u: lying[0], w: lying[1], label: "on a line below" };
  return straight ?? { u: step(u, grid), w: step(w, grid), label: "free" };
}

type Guides = Snaps["guides"];

function nearestGuide(u: number, w: number, guides: Guides, reach: number): Place | null {
  let best: { place: Place; distance: number } | null = null;
  for (const guide of guides) {
    const along = (u - guide.u) * guide.du + (w - guide.w) * guide.dw;
    const place = { u: guide.u + guide.du * along, w: guide.w + guide.dw * along };
    const distance = Math.hypot(place.u - u, place.w - w);
    if (distance < reach && (!best || distance < best.distance))
      best = { place: { ...place, label: `on ${guide.label}`, guide: guide.id }, distance };
  }
  return best?.place ?? null;
}

type Ray = Pick<Guides[number], "u" | "w" | "du" | "dw">;

function meet(a: Ray, b: Ray): { u: number; w: number } | null {
  const cross = a.du * b.dw - a.dw * b.du;
  if (Math.abs(cross) < 1e-9) return null;
  const along = ((b.u - a.u) * b.dw - (b.w - a.w) * b.du) / cross;
  return { u: a.u + a.du * along, w: a.w + a.dw * along };
}

/** Where two construction lines cross near a point. */
function crossingGuide(u: number, w: number, guides: Guides, reach: number): Place | null {
  const near = guides.filter((guide) => Math.abs((w - guide.w) * guide.du - (u - guide.u) * guide.dw) < reach);
  for (const [k, a] of near.entries())
    for (const b of near.slice(k + 1)) {
      const at = meet(a, b);
      if (at && Math.hypot(at.u - u, at.w - w) < reach) return { ...at, label: crossed(a.label, b.label) };
    }
  return null;
}

function crossed(a: string, b: string): string {
  return a === b ? "where construction lines cross" : `where ${a} and ${b} cross`;
}

/** Where a right-angled line from `from` meets the construction line that the pointer is on. */
function guideAtRightAngle(on: Place, straight: Place, from: { u: number; w: number }, guides: Guides): Place | null {
  const guide = guides.find((held) => held.id === on.guide);
  const level = straight.w === from.w;
  const at = guide && meet(guide, { ...from, du: level ? 1 : 0, dw: level ? 0 : 1 });
  return at ? { ...at, label: `on ${guide.label}, at right angles`, guide: on.guide } : null;
}

function step(value: number, grid: number): number {
  return Math.round(value / grid) * grid;
}

function atRightAngle(
  u: number,
  w: number,
  from: { u: number; w: number },
  grid: number,
  reach = RIGHT_ANGLE_DEG,
): Place | null {
  const angle = (Math.atan2(w - from.w, u - from.u) * 180) / Math.PI;
  const off = Math.abs(angle - Math.round(angle / 90) * 90);
  if (off > reach) return null;
  const level = Math.abs(u - from.u) > Math.abs(w - from.w);
  return level
    ? { u: from.u + step(u - from.u, grid), w: from.w, label: "at right angles" }
    : { u: from.u, w: from.w + step(w - from.w, grid), label: "at right angles" };
}

/** The nearest point on a set-out line, as a place on its wall. */
export function nearestLine(u: number, w: number, { lines }: { lines: Snaps["lines"] }, reach: number): Place | null {
  let best: { place: Place; distance: number } | null = null;
  for (const line of lines) {
    const foot = footOn(line, u, w);
    if (foot.along < 0 || foot.along > lengthOf(line)) continue;
    const distance = Math.hypot(foot.u - u, foot.w - w);
    if (distance < reach && (!best || distance < best.distance))
      best = {
        place: { u: foot.u, w: foot.w, label: "on the wall", wall: line.wall, along: foot.along },
        distance,
      };
  }
  return best?.place ?? null;
}

function onLine(u: number, w: number, wall: string, snaps: Snaps): Place {
  const line = snaps.lines.find((line) => line.wall === wall);
  return { u, w, label: "", wall, along: line ? footOn(line, u, w).along : undefined };
}

/** Where a right-angled line from `from` meets the wall that the pointer is on. */
function crossing(line: Place, straight: Place, from: { u: number; w: number } | null | undefined): Place | null {
  if (!from || line.along === undefined) return null;
  const level = straight.w === from.w;
  const moved = level ? Math.abs(line.w - from.w) : Math.abs(line.u - from.u);
  return moved < 1 ? { ...line, label: "on the wall, at right angles" } : null;
}
