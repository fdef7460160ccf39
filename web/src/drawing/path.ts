import type { Drawing } from "../api/client";

export type Vertex = [number, number, number];

/** SVG path data of vertices (x, y, bulge) in real mm; y is flipped by the group around it. */
export function pathData(vertices: readonly (readonly number[])[], closed: boolean): string {
  if (vertices.length === 0) return "";
  const [first] = vertices;
  let d = `M${round(first[0])} ${round(first[1])}`;
  const count = closed ? vertices.length : vertices.length - 1;
  for (let i = 0; i < count; i++) {
    const [x0, y0, bulge] = vertices[i];
    const [x1, y1] = vertices[(i + 1) % vertices.length];
    if (bulge) {
      const radius = (Math.hypot(x1 - x0, y1 - y0) * (1 + bulge * bulge)) / (4 * Math.abs(bulge));
      d += `A${round(radius)} ${round(radius)} 0 ${Math.abs(bulge) > 1 ? 1 : 0} ${bulge > 0 ? 1 : 0} ${round(x1)} ${round(y1)}`;
    } else d += `L${round(x1)} ${round(y1)}`;
  }
  return closed ? `${d}Z` : d;
}

/** Points along vertices: their own, and some on each arc, so that a box around them holds the arcs. */
export function pointsAlong(vertices: readonly (readonly number[])[]): [number, number][] {
  return vertices.flatMap(([x0, y0, bulge], i) => {
    const next = vertices[(i + 1) % vertices.length];
    return bulge ? [[x0, y0] as [number, number], ...onArc([x0, y0], [next[0], next[1]], bulge, 3)] : [[x0, y0]];
  });
}

/** The middle of an arc, and the middles of its halves: an arc lies to the right of its chord when it turns left. */
function onArc(a: [number, number], b: [number, number], bulge: number, depth: number): [number, number][] {
  const middle: [number, number] = [
    (a[0] + b[0]) / 2 + ((b[1] - a[1]) / 2) * bulge,
    (a[1] + b[1]) / 2 - ((b[0] - a[0]) / 2) * bulge,
  ];
  if (depth === 0) return [middle];
  const half = Math.tan(Math.atan(bulge) / 2);
  return [...onArc(a, middle, half, depth - 1), middle, ...onArc(middle, b, half, depth - 1)];
}

function round(value: number): number {
  return Math.round(value * 1000) / 1000;
}

type Family = Drawing["hatches"] extends readonly (infer H)[] | undefined
  ? H extends { families: readonly (infer F)[] }
    ? F
    : never
  : never;

export interface Tile {
  width: number;
  height: number;
  d: string;
  transform: string;
}

const MOST_ROWS = 12;

/** The tile that repeats one family of hatch lines: rows shift along until the shift is a whole period.
 * Lines closer than `least` (real mm) are thinned out; dashes that short are left out: null. */
export function hatchTile(family: Family, least = 0): Tile | null {
  const [along, signed] = family.offset as [number, number];
  const dashed = family.dashes.length > 0;
  if (dashed && Math.max(...family.dashes.map(Math.abs)) < least) return null;
  let across = Math.abs(signed);
  if (across <= 0) return null;
  while (!dashed && across < least) across *= 2;
  const shift = signed > 0 ? along : -along;
  const dashes = family.dashes as number[];
  const transform = `translate(${family.base[0]} ${family.base[1]}) rotate(${family.angle}) translate(0 ${-across / 2})`;
  if (dashes.length === 0) {
    const width = across * 8;
    return { width, height: across, d: `M0 ${across / 2}H${width}`, transform };
  }
  const period = dashes.reduce((sum, dash) => sum + Math.abs(dash), 0);
  let rows = 1;
  while (rows < MOST_ROWS && off(rows * shift, period) > 0.02 * period) rows++;
  let d = "";
  for (let row = 0; row < rows; row++) {
    let at = mod(row * shift, period);
    const y = (row + 0.5) * across;
    for (const dash of dashes) {
      if (dash > 0) d += `M${at} ${y}h${dash}M${at - period} ${y}h${dash}`;
      at += Math.abs(dash);
    }
  }
  return { width: period, height: rows * across, d, transform };
}

function mod(value: number, period: number): number {
  return ((value % period) + period) % period;
}

function off(value: number, period: number): number {
  const rest = mod(value, period);
  return Math.min(rest, period - rest);
}
