import type { Edit } from "../api/client";
import { bulgeThrough } from "./arc";
import { Following } from "./following";
import {
  type ActionKey,
  EMPTY,
  newId,
  type Outcome,
  type Overlay,
  type Place,
  type Storey,
  type Turn,
  toPlan,
} from "./types";

type DrawEdit = Extract<Edit, { kind: "draw_walls" }>;
type Joint = NonNullable<DrawEdit["joints"]>[number];

interface Corner extends Place {
  id: string;
  made: Joint | null;
  /** Bulge of the wall that ends here; 0 is straight. */
  bulge: number;
}

export interface WallOptions {
  status: "outer" | "inner";
  makeUp: string;
  /** A saved wall that the new ones become like. */
  saved?: string;
}

const ARROWS: Partial<Record<ActionKey, [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/** What both ways of drawing walls share: corners with their joints, and the edit that they become. */
abstract class Walls extends Following {
  protected corners: Corner[] = [];
  protected pointer: Place = { u: 0, w: 0, label: "" };
  protected flipped = false;

  constructor(
    private readonly turn: Turn,
    private readonly storey: Storey,
    protected readonly options: WallOptions,
  ) {
    super();
  }

  /** The last corner, from which right angles are measured. */
  get from(): Place | null {
    return this.corners.at(-1) ?? null;
  }

  protected corner(place: Place, bulge = 0): Corner {
    if (place.joint) return { ...place, id: place.joint, made: null, bulge };
    const id = newId("joint");
    if (place.wall !== undefined && place.along !== undefined)
      return {
        ...place,
        id,
        bulge,
        made: { kind: "tee", id, wall: place.wall, end: "start", distance: place.along, join: "joined" },
      };
    return { ...place, id, bulge, made: { kind: "free", id, ...toPlan(this.turn, place.u, place.w), join: "joined" } };
  }

  protected edit(corners: Corner[], closing: number | null): DrawEdit {
    const chain = corners.map((corner) => corner.id);
    const bulges = corners.slice(1).map((corner) => corner.bulge);
    if (closing !== null) {
      chain.push(chain[0]);
      bulges.push(closing);
    }
    return {
      kind: "draw_walls",
      joints: corners.flatMap((corner) => (corner.made ? [corner.made] : [])),
      chain,
      walls: chain.slice(1).map(() => newId("wall")),
      bulges: bulges.some((bulge) => bulge !== 0) ? bulges : [],
      flipped: this.flipped,
      make_up: this.options.makeUp,
      status: this.options.status,
      base: this.storey.level,
      top: this.storey.plate ?? "",
    };
  }

  protected finish(closing: number | null): Outcome {
    const edit = this.edit(this.corners, closing);
    this.corners = [];
    return { ...this.shown(), preview: undefined, edits: [edit, ...likeSaved(this.options, edit.walls)] };
  }
}

/** The edit that makes new walls like a saved one, where one was chosen. */
export function likeSaved({ saved }: WallOptions, walls: string[]): Edit[] {
  return saved ? [{ kind: "use_saved_wall", saved, walls }] : [];
}

/** A typed angle in degrees: from the right of the sheet, counter-clockwise, or from the last wall. */
export interface Angle {
  degrees: number;
  relative: boolean;
}

/**
 * Draws a chain of walls: click or type each corner; it ends at its first corner, at Enter, or on a wall.
 * With A the next wall is an arc: its end, then a point that it passes or a typed rise.
 */
export class DrawWalls extends Walls {
  private direction: [number, number] | null = null;
  private arc = false;
  /** The end of an arc whose bow is still to be shown. */
  private bowTo: Place | null = null;

  /** The first corner, which closes the chain. */
  get own(): Place[] {
    const enough = this.corners.length > 2 || (this.arc && this.corners.length > 1);
    return enough && !this.bowTo ? [{ ...this.corners[0], label: "first corner, closes the walls" }] : [];
  }

  move(place: Place): Outcome {
    this.direction = null;
    return super.move(place);
  }

  click(place: Place): Outcome {
    this.pointer = place;
    const first = this.corners[0];
    const last = this.corners.at(-1);
    if (this.bowTo && last) {
      const bulge = bulgeThrough(last, place, this.bowTo);
      if (bulge === 0) return { ...this.shown(), wrong: NO_RISE };
      return this.bowed(bulge);
    }
    if (last && apart(place, last) < 1)
      return { ...this.shown(), wrong: "A wall needs a length. Point somewhere else, or type one." };
    const closes = first && this.own.length > 0 && apart(place, first) < 1;
    if (last && this.arc) {
      this.bowTo = closes ? { ...first } : place;
      return this.shown();
    }
    if (closes) return this.finish(0);
    return this.add(this.corner(place));
  }

  length(mm: number, angle?: Angle): Outcome {
    const last = this.corners.at(-1);
    if (!last) return { ...this.shown(), wrong: "Click the first corner, then type a length." };
    if (this.bowTo) {
      if (Math.abs(mm) < 0.1) return { ...this.shown(), wrong: NO_RISE };
      const chord = apart(last, this.bowTo);
      const side = Math.sign(bulgeThrough(last, this.pointer, this.bowTo)) || 1;
      return this.bowed((side * 2 * mm) / chord);
    }
    if (mm <= 0) return { ...this.shown(), wrong: "A wall needs a length of more than nothing." };
    const [du, dw] = angle
      ? this.turned(angle)
      : (this.direction ?? unit(this.pointer.u - last.u, this.pointer.w - last.w));
    return this.click({ u: last.u + du * mm, w: last.w + dw * mm, label: "typed" });
  }

  key(key: ActionKey): Outcome | null {
    if (key === "Escape") {
      if (this.bowTo) this.bowTo = null;
      else if (this.corners.length === 0) return null;
      else this.corners.pop();
      return this.shown();
    }
    if (key === "Enter") {
      if (this.corners.length === 0) return this.click({ ...this.pointer, label: "here" });
      if (this.bowTo) return this.click(this.pointer);
      if (this.remains) return this.finish(0);
      if (this.corners.length > 1) return this.finish(null);
      return this.shown();
    }
    if (key === "a") {
      this.arc = !this.arc;
      this.bowTo = null;
      return this.shown();
    }
    if (key === "f") {
      this.flipped = !this.flipped;
      return this.shown();
    }
    this.direction = ARROWS[key] ?? this.direction;
    return this.shown();
  }

  protected finish(closing: number | null): Outcome {
    this.direction = null;
    this.bowTo = null;
    return super.finish(closing);
  }

  /** Whether one straight side, square to the last one, closes outer walls, however they are turned. */
  private get remains(): boolean {
    const [before, last] = this.corners.slice(-2);
    const first = this.corners[0];
    if (this.options.status !== "outer" || this.corners.length < 4) return false;
    const [du, dw] = [first.u - last.u, first.w - last.w];
    const length = apart(before, last);
    const off = Math.abs(du * (last.u - before.u) + dw * (last.w - before.w)) / Math.max(length, 1);
    return Math.hypot(du, dw) >= 1 && off < 1;
  }

  /** The direction of a typed angle, as a unit vector. */
  private turned({ degrees, relative }: Angle): [number, number] {
    const [before, last] = this.corners.slice(-2);
    const from = relative && last ? Math.atan2(last.w - before.w, last.u - before.u) : 0;
    const angle = from + (degrees * Math.PI) / 180;
    return unit(Math.cos(angle), Math.sin(angle));
  }

  private bowed(bulge: number): Outcome {
    const end = this.bowTo as Place;
    this.bowTo = null;
    if (Math.abs(bulge) > 2.5)
      return { ...this.shown(), wrong: "An arc this deep comes round to itself. Draw it as two walls." };
    const first = this.corners[0];
    if (this.corners.length > 1 && apart(end, first) < 1) return this.finish(bulge);
    return this.add(this.corner(end, bulge));
  }

  private add(corner: Corner): Outcome {
    this.corners.push(corner);
    const landed = corner.joint !== undefined || corner.wall !== undefined;
    if (this.options.status === "inner" && landed && this.corners.length > 1) return this.finish(null);
    return this.shown();
  }

  protected shown(): Outcome {
    const last = this.corners.at(-1);
    if (!last)
      return {
        overlay: EMPTY,
        hint: `Click the first corner of the ${this.options.status} walls, or press Enter to begin at the pointer.`,
      };
    const target = this.target(last);
    const bulge = this.bowTo ? bulgeThrough(last, this.pointer, this.bowTo) : 0;
    const points = [...this.corners, { ...target, bulge }];
    const lines = points.slice(1).map((point, i) => ({
      u1: points[i].u,
      w1: points[i].w,
      u2: point.u,
      w2: point.w,
      bulge: point.bulge,
      dashed: i === points.length - 2,
    }));
    const length = apart(target, last);
    const moved = length >= 1 && !this.direction;
    const middle = { u: (target.u + last.u) / 2, w: (target.w + last.w) / 2 };
    const rise = (Math.abs(bulge) * length) / 2;
    const first = this.corners[0];
    const closing = this.corners.length > 1 && moved ? { du: first.u - target.u, dw: first.w - target.w } : undefined;
    const label = this.bowTo ? { ...middle, length: rise, word: "rise" } : moved ? { ...middle, length } : undefined;
    return {
      overlay: { lines, dots: this.corners, label, closing: this.bowTo ? undefined : closing },
      hint: this.hint(),
      preview: this.corners.length > 1 ? [this.edit(this.corners, null)] : undefined,
      asks: this.bowTo ? "rise of the arc above its chord" : "length of this wall",
      angles: !this.bowTo,
    };
  }

  private target(last: Corner): { u: number; w: number } {
    if (this.bowTo) return this.bowTo;
    if (this.direction) return { u: last.u + this.direction[0] * 1000, w: last.w + this.direction[1] * 1000 };
    return this.pointer;
  }

  private hint(): string {
    if (this.bowTo) return "Click a point that the arc passes, or type its rise. Escape takes its end back.";
    const next = this.arc ? "End of the arc" : "Next corner";
    const side = this.flipped ? "outside flipped" : "F flips the outside";
    const shape = this.arc ? "A: straight again" : "A: an arc";
    const ends = this.remains ? "Enter closes the walls" : "Enter ends here";
    if (this.corners.length > 2)
      return `${next}: click, or type a length. The first corner closes; ${ends}; Escape takes one back; ${shape}; ${side}.`;
    return `${next}: click, or type a length (arrow keys choose the direction). Escape takes one back; ${shape}; ${side}.`;
  }
}

/** Draws four walls at once: two opposite corners, or a typed width and then a typed depth. */
export class DrawRectangle extends Walls {
  private width: number | null = null;

  get from(): Place | null {
    return null;
  }

  click(place: Place): Outcome {
    this.pointer = place;
    const first = this.corners[0];
    if (!first) {
      this.corners = [this.corner(place)];
      return this.shown();
    }
    const { u, w } = this.opposite(first);
    if (Math.min(Math.abs(u - first.u), Math.abs(w - first.w)) < 1)
      return { ...this.shown(), wrong: "A rectangle needs a width and a depth. Point at the opposite corner." };
    const plain = (at: { u: number; w: number }) => this.corner({ ...at, label: "" });
    const second = plain({ u, w: first.w });
    const far = this.width === null && apart(place, { u, w }) < 1 ? this.corner(place) : plain({ u, w });
    this.corners = [first, second, far, plain({ u: first.u, w })];
    this.width = null;
    return this.finish(0);
  }

  length(mm: number, _angle?: Angle, second?: number): Outcome {
    const first = this.corners[0];
    if (!first) return { ...this.shown(), wrong: "Click the first corner, then type the width." };
    if (mm <= 0 || (second !== undefined && second <= 0))
      return { ...this.shown(), wrong: "A wall needs a length of more than nothing." };
    if (second !== undefined) {
      this.width = (Math.sign(this.pointer.u - first.u) || 1) * mm;
      return this.length(second);
    }
    if (this.width === null) {
      this.width = (Math.sign(this.pointer.u - first.u) || 1) * mm;
      return this.shown();
    }
    const deep = (Math.sign(this.pointer.w - first.w) || 1) * mm;
    return this.click({ u: first.u + this.width, w: first.w + deep, label: "typed" });
  }

  key(key: ActionKey): Outcome | null {
    if (key === "f") this.flipped = !this.flipped;
    else if (key === "Enter" && this.corners.length === 0) return this.click({ ...this.pointer, label: "here" });
    else if (key === "Escape" && this.corners.length > 0) {
      if (this.width !== null) this.width = null;
      else this.corners = [];
    } else return null;
    return this.shown();
  }

  private opposite(first: Place): { u: number; w: number } {
    return { u: this.width === null ? this.pointer.u : first.u + this.width, w: this.pointer.w };
  }

  protected shown(): Outcome {
    const first = this.corners[0];
    if (!first)
      return {
        overlay: EMPTY,
        hint: `Click one corner of the rectangle of ${this.options.status} walls, or press Enter to begin at the pointer.`,
      };
    const { u, w } = this.opposite(first);
    const side = (u1: number, w1: number, u2: number, w2: number) => ({ u1, w1, u2, w2, dashed: true });
    const overlay: Overlay = {
      lines: [side(first.u, first.w, u, first.w), side(u, first.w, u, w), side(u, w, first.u, w)].concat([
        side(first.u, w, first.u, first.w),
      ]),
      dots: this.corners,
      closing: { du: u - first.u, dw: w - first.w, words: ["across", "deep"] },
    };
    return {
      overlay,
      hint: "Click the opposite corner, or type the width, Tab, and the depth. Escape begins again; F flips the outside.",
      asks: this.width === null ? "width of the rectangle" : "depth of the rectangle",
      second: this.width === null ? "depth of the rectangle" : undefined,
    };
  }
}

const NO_RISE = "An arc of no rise is a straight wall. Point beside its chord, or press A to draw it straight.";

function apart(a: { u: number; w: number }, b: { u: number; w: number }): number {
  return Math.hypot(a.u - b.u, a.w - b.w);
}

function unit(u: number, w: number): [number, number] {
  const length = Math.hypot(u, w);
  if (length < 1e-9) return [1, 0];
  const snap = (value: number) =>
    Math.abs(value) < 1e-9 ? 0 : Math.abs(Math.abs(value) - 1) < 1e-9 ? Math.sign(value) : value;
  return [snap(u / length), snap(w / length)];
}
