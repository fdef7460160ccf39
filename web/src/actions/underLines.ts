type Point = readonly [number, number];
type Segment = readonly [Point, Point];
type Box = readonly [number, number, number, number];

/** Lines longer than so many cells are looked at for every place. */
const LONG = 64;
/** The longer side of what is drawn is divided into so many cells. */
const CELLS = 160;
/** A line is level or upright when it rises by no more than this share of its length. */
const SLANTED = 0.005;
/** Where a reach holds more cells than this, all lines are looked at. */
const MANY = 900;

/** The lines of somebody else's drawing under a view: which end, or which line, is nearest to a place. */
export class UnderLines {
  private readonly cells = new Map<string, Segment[]>();
  private readonly long: Segment[] = [];
  private readonly size: number;

  constructor(private readonly segments: readonly Segment[]) {
    const xs = segments.flatMap(([a, b]) => [a[0], b[0]]);
    const ys = segments.flatMap(([a, b]) => [a[1], b[1]]);
    const reach = (held: number[]) =>
      held.reduce((most, value) => Math.max(most, value), Number.NEGATIVE_INFINITY) -
      held.reduce((least, value) => Math.min(least, value), Number.POSITIVE_INFINITY);
    this.size = segments.length ? Math.max(reach(xs), reach(ys), 1) / CELLS : 1;
    for (const segment of segments) {
      const [i0, i1] = this.range(segment[0][0], segment[1][0]);
      const [j0, j1] = this.range(segment[0][1], segment[1][1]);
      if ((i1 - i0 + 1) * (j1 - j0 + 1) > LONG) this.long.push(segment);
      else
        for (let i = i0; i <= i1; i++)
          for (let j = j0; j <= j1; j++) {
            const held = this.cells.get(`${i},${j}`);
            if (held) held.push(segment);
            else this.cells.set(`${i},${j}`, [segment]);
          }
    }
  }

  /** The end of a line that is nearest to a place, within a reach. */
  end(u: number, w: number, reach: number): Point | null {
    return nearest(this.near(u, w, reach).flat(), u, w, reach);
  }

  /** The nearest point on a line, within a reach. */
  foot(u: number, w: number, reach: number): Point | null {
    return nearest(
      this.near(u, w, reach).map(([a, b]) => footOn(a, b, u, w)),
      u,
      w,
      reach,
    );
  }

  /** How far across a box has to go for one of its sides to lie on an upright line beside it, within a reach. */
  upright(box: Box, reach: number): number | null {
    return this.beside(box, reach, 0);
  }

  /** How far up a box has to go for its bottom or its top to lie on a level line beside it, within a reach. */
  level(box: Box, reach: number): number | null {
    return this.beside(box, reach, 1);
  }

  private beside(box: Box, reach: number, way: 0 | 1): number | null {
    const other = way === 0 ? 1 : 0;
    const sides = [box[way], box[way + 2]] as number[];
    let best: number | null = null;
    for (const [a, b] of this.segments) {
      if (Math.abs(a[way] - b[way]) > SLANTED * Math.abs(a[other] - b[other])) continue;
      const [low, high] = [Math.min(a[other], b[other]), Math.max(a[other], b[other])];
      if (low > box[other + 2] + reach || high < box[other] - reach) continue;
      const at = (a[way] + b[way]) / 2;
      for (const side of sides) if (Math.abs(at - side) < Math.abs(best ?? reach)) best = at - side;
    }
    return best;
  }

  private range(a: number, b: number): [number, number] {
    return [Math.floor(Math.min(a, b) / this.size), Math.floor(Math.max(a, b) / this.size)];
  }

  private near(u: number, w: number, reach: number): readonly Segment[] {
    const [i0, i1] = this.range(u - reach, u + reach);
    const [j0, j1] = this.range(w - reach, w + reach);
    // Seen from far away a reach holds many cells.
    if ((i1 - i0 + 1) * (j1 - j0 + 1) > MANY) return this.segments;
    const found: Segment[] = [...this.long];
    for (let i = i0; i <= i1; i++) for (let j = j0; j <= j1; j++) found.push(...(this.cells.get(`${i},${j}`) ?? []));
    return found;
  }
}

function nearest(points: readonly Point[], u: number, w: number, reach: number): Point | null {
  let best = reach;
  let found: Point | null = null;
  for (const point of points) {
    const away = Math.hypot(point[0] - u, point[1] - w);
    if (away < best) [best, found] = [away, point];
  }
  return found;
}

function footOn(a: Point, b: Point, u: number, w: number): Point {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const long = dx * dx + dy * dy;
  const t = long ? Math.min(1, Math.max(0, ((u - a[0]) * dx + (w - a[1]) * dy) / long)) : 0;
  return [a[0] + dx * t, a[1] + dy * t];
}
