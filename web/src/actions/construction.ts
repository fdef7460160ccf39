import type { Edit } from "../api/client";
import { footOn } from "./arc";
import { Following } from "./following";
import { gridName } from "./site";
import {
  type ActionKey,
  EMPTY,
  newId,
  type Outcome,
  type Place,
  type Snaps,
  type Storey,
  type Turn,
  toPlan,
} from "./types";

interface Ray {
  u: number;
  w: number;
  du: number;
  dw: number;
}

/**
 * Draws construction lines: from a wall, a parallel at a distance; from a point, a line towards another point or at a
 * typed angle. It stays chosen, so that one can draw several.
 */
export class DrawConstruction extends Following {
  private base: Ray | null = null;
  private through: Place | null = null;
  protected pointer: Place = { u: 0, w: 0, label: "" };
  private readonly named: string[] = [];

  constructor(
    private readonly turn: Turn,
    private readonly storey: Storey,
    private readonly snaps: Snaps,
    /** The names of grid lines, when such are drawn. */
    private readonly grid: string[] | null = null,
  ) {
    super();
  }

  get from(): Place | null {
    return this.through;
  }

  click(place: Place): Outcome {
    this.pointer = place;
    if (this.base) return this.parallel(this.distance());
    if (this.through) {
      const du = place.u - this.through.u;
      const dw = place.w - this.through.w;
      const length = Math.hypot(du, dw);
      if (length < 1) return { ...this.shown(), wrong: "Point at a second place, or type the angle." };
      return this.made({ ...this.through, du: du / length, dw: dw / length });
    }
    const wall = this.snaps.lines.find((line) => line.wall === place.wall && !line.bulge);
    const guide = this.snaps.guides.find((line) => line.id === place.guide);
    if (wall && !place.joint) this.base = footOn(wall, place.u, place.w);
    else if (guide) this.base = guide;
    else this.through = place;
    return this.shown();
  }

  /** The distance of the parallel, or the angle of the line in degrees. */
  length(value: number): Outcome {
    if (this.base) return this.parallel(Math.sign(this.distance()) * value || value);
    if (!this.through) return { ...this.shown(), wrong: "Click a wall or a point first." };
    const angle = (value * Math.PI) / 180;
    return this.made({ ...this.through, du: Math.cos(angle), dw: Math.sin(angle) });
  }

  key(key: ActionKey): Outcome | null {
    if (key !== "Escape" || !(this.base || this.through)) return null;
    this.base = null;
    this.through = null;
    return this.shown();
  }

  /** Of the pointer from the line, to its left. */
  private distance(): number {
    const { u, w, du, dw } = this.base as Ray;
    return (this.pointer.w - w) * du - (this.pointer.u - u) * dw;
  }

  private parallel(left: number): Outcome {
    const { u, w, du, dw } = this.base as Ray;
    return this.made({ u: u - dw * left, w: w + du * left, du, dw });
  }

  private made(ray: Ray): Outcome {
    const point = toPlan(this.turn, ray.u, ray.w);
    const along = toPlan(this.turn, ray.du * FAR, ray.dw * FAR);
    const angle = Math.round((Math.atan2(along.y, along.x) * 180 * 1e9) / Math.PI) / 1e9;
    this.base = null;
    this.through = null;
    return { ...this.shown(), edits: [this.edit(point, angle)] };
  }

  private edit(point: { x: number; y: number }, angle: number): Edit {
    if (!this.grid) {
      const line = { id: newId("line"), ...point, angle, level: this.storey.level };
      return { kind: "put_construction", line };
    }
    const name = gridName(angle, [...this.grid, ...this.named]);
    this.named.push(name);
    return { kind: "put_grid", line: { id: newId("grid"), name, ...point, angle } };
  }

  protected shown(): Outcome {
    if (this.base) {
      const left = this.distance();
      const { u, w, du, dw } = this.base;
      const ray = { u: u - dw * left, w: w + du * left, du, dw };
      return {
        overlay: { lines: [endless(ray)], dots: [], label: { ...this.pointer, length: Math.abs(left) } },
        hint: "Click where the parallel lies, or type its distance. Escape begins again.",
        asks: "distance of the construction line",
      };
    }
    if (this.through) {
      const length = Math.hypot(this.pointer.u - this.through.u, this.pointer.w - this.through.w);
      const du = length < 1 ? 1 : (this.pointer.u - this.through.u) / length;
      const dw = length < 1 ? 0 : (this.pointer.w - this.through.w) / length;
      return {
        overlay: { lines: [endless({ ...this.through, du, dw })], dots: [this.through] },
        hint: "Click a second place, or type the angle from the right of the sheet. Escape begins again.",
        asks: "angle of the construction line, degrees",
        degrees: true,
      };
    }
    return { overlay: EMPTY, hint: "Click a wall for a parallel of it, or a point for a line through it." };
  }
}

const FAR = 1e5;

function endless(ray: Ray) {
  return {
    u1: ray.u - ray.du * FAR,
    w1: ray.w - ray.dw * FAR,
    u2: ray.u + ray.du * FAR,
    w2: ray.w + ray.dw * FAR,
    dashed: true,
  };
}
