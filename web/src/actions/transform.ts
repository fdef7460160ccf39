import type { Edit } from "../api/client";
import { Following } from "./following";
import { type ActionKey, EMPTY, newId, type Outcome, type Place, type Turn, toPlan } from "./types";

export type Motion = Extract<Edit, { kind: "transform" }>["motion"];

/** What is moved, and how many copies are made; none moves the things themselves. */
export interface Moved {
  elements: string[];
  copies: number;
}

const STILL = { dx: 0, dy: 0, x: 0, y: 0, turn: 0, mirror: null };

/** Points clicked one after the other, until they make a motion. */
abstract class Motions extends Following {
  protected points: Place[] = [];
  private readonly stem = newId("copy");

  constructor(
    protected readonly turn: Turn,
    protected readonly moved: Moved,
  ) {
    super();
  }

  get from(): Place | null {
    return this.points.at(-1) ?? null;
  }

  click(place: Place): Outcome {
    this.pointer = place;
    this.points.push(place);
    const motion = this.motion(this.points);
    return motion ? this.finish(motion) : this.shown();
  }

  key(key: ActionKey): Outcome | null {
    if (key !== "Escape" || this.points.length === 0) return null;
    this.points = [];
    return this.shown();
  }

  protected abstract readonly hints: string[];
  protected abstract readonly asks: string;
  protected readonly degrees: boolean = false;
  /** The motion that the points make; null when there are too few. */
  protected abstract motion(points: Place[]): Motion | null;
  /** The points from which a typed value can be taken. */
  protected readonly typedFrom: number = 1;

  protected edit(motion: Motion): Edit {
    return { kind: "transform", elements: this.moved.elements, motion, copies: this.moved.copies, stem: this.stem };
  }

  protected finish(motion: Motion): Outcome {
    this.points = [];
    const [select, ...also] = this.moved.elements;
    return { ...this.shown(), preview: undefined, edits: [this.edit(motion)], done: { select, also } };
  }

  protected shown(): Outcome {
    const all = this.pointer && this.points.length ? [...this.points, this.pointer] : this.points;
    const motion = this.pointer && this.points.length ? this.motion(all) : null;
    const [a, b] = all.slice(-2);
    return {
      overlay: a
        ? {
            lines: b ? [{ u1: a.u, w1: a.w, u2: b.u, w2: b.w, dashed: true }] : [],
            dots: this.points,
            label: b && !this.degrees ? { ...b, length: Math.hypot(b.u - a.u, b.w - a.w) } : undefined,
          }
        : EMPTY,
      hint: this.hints[Math.min(this.points.length, this.hints.length - 1)],
      preview: motion ? [this.edit(motion)] : undefined,
      asks: this.points.length >= this.typedFrom ? this.asks : undefined,
      degrees: this.degrees,
    };
  }
}

/** Moves what is selected from one point to another, or copies it: so far each copy from the last. */
export class Shift extends Motions {
  protected readonly hints = [
    `Click the point to ${this.moved.copies ? "copy" : "move"} from.`,
    "Click where it comes to lie, or type the distance in the direction of the pointer. Escape begins again.",
  ];
  protected readonly asks = "distance, in the direction of the pointer";

  length(mm: number): Outcome {
    const [a, b] = [this.points[0], this.pointer];
    if (!a || !b) return { ...this.shown(), wrong: "Click the point to move from first." };
    const length = Math.hypot(b.u - a.u, b.w - a.w);
    if (length < 1) return { ...this.shown(), wrong: "Point in the direction to move, then type the distance." };
    const at = { u: a.u + ((b.u - a.u) / length) * mm, w: a.w + ((b.w - a.w) / length) * mm, label: "typed" };
    return this.click(at);
  }

  protected motion([a, b]: Place[]): Motion | null {
    if (!b || Math.hypot(b.u - a.u, b.w - a.w) < 0.5) return null;
    const { x, y } = toPlan(this.turn, b.u - a.u, b.w - a.w);
    return { ...STILL, dx: x, dy: y };
  }
}

/** Mirrors what is selected in a line through two points, or makes a mirrored copy. */
export class Mirror extends Motions {
  protected readonly hints = [
    "Click a first point of the line to mirror in.",
    "Click a second point of it, or type its angle from the right of the sheet. Escape begins again.",
  ];
  protected readonly asks = "angle of the line to mirror in, degrees";
  protected readonly degrees = true;

  length(value: number): Outcome {
    const a = this.points[0];
    if (!a) return { ...this.shown(), wrong: "Click a point of the line to mirror in first." };
    const angle = (value * Math.PI) / 180;
    const motion = this.motion([a, { u: a.u + 1e4 * Math.cos(angle), w: a.w + 1e4 * Math.sin(angle), label: "typed" }]);
    return motion ? this.finish(motion) : this.shown();
  }

  protected motion([a, b]: Place[]): Motion | null {
    if (!b || Math.hypot(b.u - a.u, b.w - a.w) < 0.5) return null;
    return { ...STILL, ...toPlan(this.turn, a.u, a.w), mirror: planAngle(this.turn, b.u - a.u, b.w - a.w) };
  }
}

/** Turns what is selected about a point: by a typed angle, or from one point to another. */
export class TurnAbout extends Motions {
  protected readonly hints = [
    "Click the point to turn about.",
    "Type the angle, counter-clockwise in degrees; or click a point that turns. Escape begins again.",
    "Click where that point comes to lie, or type the angle.",
  ];
  protected readonly asks = "angle, counter-clockwise in degrees";
  protected readonly degrees = true;

  length(value: number): Outcome {
    const a = this.points[0];
    if (!a) return { ...this.shown(), wrong: "Click the point to turn about first." };
    if (!value || Math.abs(value) > 360) return { ...this.shown(), wrong: "Type an angle between -360 and 360." };
    return this.finish({ ...STILL, ...toPlan(this.turn, a.u, a.w), turn: value });
  }

  protected motion([centre, from, to]: Place[]): Motion | null {
    if (!to || Math.hypot(from.u - centre.u, from.w - centre.w) < 1) return null;
    const angle = (at: Place) => Math.atan2(at.w - centre.w, at.u - centre.u);
    const degrees = ((angle(to) - angle(from)) * 180) / Math.PI;
    const turn = Math.round((((degrees + 540) % 360) - 180) * 1e6) / 1e6;
    return turn ? { ...STILL, ...toPlan(this.turn, centre.u, centre.w), turn } : null;
  }
}

/** Puts the selected wall flush: a face of it, then the face that it comes to lie in. */
export class Align extends Following {
  private first: Place | null = null;

  constructor(
    private readonly turn: Turn,
    private readonly wall: string,
  ) {
    super();
  }

  click(place: Place): Outcome {
    if (!this.first) {
      this.first = place;
      return this.shown();
    }
    const edit = this.edit(this.first, place);
    this.first = null;
    return { ...this.shown(), preview: undefined, edits: [edit], done: { select: this.wall } };
  }

  length(): Outcome {
    return this.shown();
  }

  key(key: ActionKey): Outcome | null {
    if (key !== "Escape" || !this.first) return null;
    this.first = null;
    return this.shown();
  }

  private edit(a: Place, b: Place): Edit {
    const [own, to] = [toPlan(this.turn, a.u, a.w), toPlan(this.turn, b.u, b.w)];
    return { kind: "align_wall", wall: this.wall, x: own.x, y: own.y, to_x: to.x, to_y: to.y };
  }

  protected shown(): Outcome {
    return {
      overlay: { lines: [], dots: [this.first, this.pointer].filter((at) => at !== null) },
      hint: this.first
        ? "Click the face to be flush with, of a parallel wall or of a post. Escape begins again."
        : "Click the face of the selected wall that is to be flush.",
    };
  }
}

/** Degrees counter-clockwise from east of a direction in the turned plan. */
export function planAngle(turn: Turn, du: number, dw: number): number {
  const along = toPlan(turn, du * 1e3, dw * 1e3);
  return Math.round((Math.atan2(along.y, along.x) * 180 * 1e9) / Math.PI) / 1e9;
}
