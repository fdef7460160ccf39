import type { Schemas } from "../api/client";

type Line = Schemas["SnapLine"];

/** An arc in the turned plan: its centre, the angle at which it starts, and how far it turns (rad, left is positive). */
export interface Arc {
  u: number;
  w: number;
  radius: number;
  from: number;
  turn: number;
}

interface Point {
  u: number;
  w: number;
}

/** The arc of a bulge, tan(turn / 4), between two points. */
export function arcBetween(a: Point, b: Point, bulge: number): Arc {
  const chord = Math.hypot(b.u - a.u, b.w - a.w);
  const off = ((chord / 2) * (1 - bulge * bulge)) / (2 * bulge);
  const u = (a.u + b.u) / 2 - (off * (b.w - a.w)) / chord;
  const w = (a.w + b.w) / 2 + (off * (b.u - a.u)) / chord;
  const turn = 4 * Math.atan(bulge);
  return {
    u,
    w,
    radius: chord / (2 * Math.sin(Math.abs(turn) / 2)),
    from: Math.atan2(a.w - w, a.u - u),
    turn,
  };
}

/** Length of a set-out line, straight or an arc. */
export function lengthOf(line: Line): number {
  if (!line.bulge) return Math.hypot(line.u2 - line.u1, line.w2 - line.w1);
  const arc = arcBetween({ u: line.u1, w: line.w1 }, { u: line.u2, w: line.w2 }, line.bulge);
  return arc.radius * Math.abs(arc.turn);
}

/** The place on a set-out line that is nearest to a point: its distance along, itself, and the unit vector forward. */
export function footOn(line: Line, u: number, w: number): Point & { along: number; du: number; dw: number } {
  const a = { u: line.u1, w: line.w1 };
  const b = { u: line.u2, w: line.w2 };
  if (!line.bulge) {
    const length = Math.hypot(b.u - a.u, b.w - a.w);
    const du = (b.u - a.u) / length;
    const dw = (b.w - a.w) / length;
    const along = (u - a.u) * du + (w - a.w) * dw;
    return { u: a.u + du * along, w: a.w + dw * along, along, du, dw };
  }
  const arc = arcBetween(a, b, line.bulge);
  const way = Math.sign(arc.turn);
  const half = Math.abs(arc.turn) / 2;
  const turned = (Math.atan2(w - arc.w, u - arc.u) - arc.from) * way - half;
  const angle = half + turned - 2 * Math.PI * Math.round(turned / (2 * Math.PI));
  return { ...onArc(arc, angle), along: angle * arc.radius };
}

/** The place at a distance along a set-out line. */
export function placeOn(line: Line, along: number): Point & { du: number; dw: number } {
  if (!line.bulge) {
    const foot = footOn(line, line.u1, line.w1);
    return { u: line.u1 + foot.du * along, w: line.w1 + foot.dw * along, du: foot.du, dw: foot.dw };
  }
  const arc = arcBetween({ u: line.u1, w: line.w1 }, { u: line.u2, w: line.w2 }, line.bulge);
  return onArc(arc, along / arc.radius);
}

function onArc(arc: Arc, angle: number): Point & { du: number; dw: number } {
  const way = Math.sign(arc.turn);
  const at = arc.from + way * angle;
  return {
    u: arc.u + arc.radius * Math.cos(at),
    w: arc.w + arc.radius * Math.sin(at),
    du: -Math.sin(at) * way,
    dw: Math.cos(at) * way,
  };
}

/** The bulge of an arc from a to b that passes a point; 0 when the three lie on a line. */
export function bulgeThrough(a: Point, point: Point, b: Point): number {
  const cross = (point.u - a.u) * (b.w - point.w) - (point.w - a.w) * (b.u - point.u);
  const dot = (point.u - a.u) * (b.u - point.u) + (point.w - a.w) * (b.w - point.w);
  const flat = Math.abs(cross) < 0.1 * Math.hypot(b.u - a.u, b.w - a.w);
  return flat ? 0 : Math.tan(Math.atan2(cross, dot) / 2);
}
