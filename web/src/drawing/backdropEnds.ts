import type { Drawing, Schemas } from "../api/client";

export type Backdrop = NonNullable<Drawing["backdrops"]>[number];
type Point = [number, number];
export type Segment = [Point, Point];

/** Where a point of a page lies in the view (mm). */
export function onView({ place: [a, b, c, d, e, f] }: Pick<Backdrop, "place">, x: number, y: number): Point {
  return [a * x + c * y + e, b * x + d * y + f];
}

/** The straight lines of a page where they lie in the view; those of its crop, and arcs as their chords. */
export function segmentsOf(held: Pick<Backdrop, "place" | "box">, page: Schemas["PageOut"]): Segment[] {
  const [x0, y0, x1, y1] = held.box;
  const inside = ([x, y]: readonly number[]) => x >= x0 && x <= x1 && y >= y0 && y <= y1;
  return page.lines.flatMap((line) =>
    line
      .slice(1)
      .flatMap((to, k): Segment[] =>
        inside(line[k]) && inside(to) ? [[onView(held, line[k][0], line[k][1]), onView(held, to[0], to[1])]] : [],
      ),
  );
}
