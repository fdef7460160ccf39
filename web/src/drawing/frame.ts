/** What is shown of a plan: the place in its middle, and px per mm. */
export interface Frame {
  x: number;
  y: number;
  k: number;
}

export interface Size {
  width: number;
  height: number;
}

type Point = readonly [number, number];

/** A frame that shows all of some points, with a margin. */
export function around(points: readonly Point[], size: Size): Frame {
  if (points.length === 0) return { x: 0, y: 0, k: 0.05 };
  const xs = points.map(([x]) => x);
  const ys = points.map(([, y]) => y);
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const k = 0.86 * Math.min(size.width / Math.max(x1 - x0, 500), size.height / Math.max(y1 - y0, 500));
  return { x: (x0 + x1) / 2, y: (y0 + y1) / 2, k };
}

/** The place of a pixel of the pane. */
export const placeOf = (frame: Frame, size: Size, px: number, py: number): [number, number] => [
  frame.x + (px - size.width / 2) / frame.k,
  frame.y - (py - size.height / 2) / frame.k,
];

/** Nearer or farther, with one pixel staying where it is. */
export function zoomed(frame: Frame, size: Size, px: number, py: number, by: number): Frame {
  const [x, y] = placeOf(frame, size, px, py);
  const k = Math.min(Math.max(frame.k * by, 0.0005), 4);
  return { x: x - (px - size.width / 2) / k, y: y + (py - size.height / 2) / k, k };
}

/** The drawn end that is nearest to a place, no farther than a reach; the place itself where there is none. */
export function snapped(ends: readonly Point[], place: Point, reach: number): Point {
  let best = reach;
  let found = place;
  for (const end of ends) {
    const away = Math.hypot(end[0] - place[0], end[1] - place[1]);
    if (away < best) [best, found] = [away, end];
  }
  return found;
}
