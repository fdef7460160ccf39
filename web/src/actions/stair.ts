import type { Edit } from "../api/client";
import {
  EMPTY,
  newId,
  type Outcome,
  type Overlay,
  type Place,
  type PlanAction,
  type Storey,
  type Turn,
  toPlan,
} from "./types";

export type StairForm = "straight" | "landing" | "half landing" | "winders";

/** How a new stair goes up, in words. */
export const STAIR_FORMS: [StairForm, string][] = [
  ["straight", "straight"],
  ["landing", "a quarter turn on a landing"],
  ["winders", "a quarter turn on winders"],
  ["half landing", "back on a half landing"],
];

const APART = 50;

/** A stair by its foot and its way up; where it turns, by a third point. Its length follows from its rule. */
export class DrawStair implements PlanAction {
  private readonly id = newId("stair");
  private points: Place[] = [];
  private at: Place | null = null;

  constructor(
    private readonly turn: Turn,
    private readonly storey: Storey,
    private readonly form: StairForm,
  ) {}

  get from(): Place | null {
    return this.points.at(-1) ?? null;
  }

  start(): Outcome {
    return this.shown();
  }

  move(place: Place): Outcome {
    this.at = place;
    return this.shown();
  }

  click(place: Place): Outcome {
    const last = this.points.at(-1);
    if (last && Math.hypot(last.u - place.u, last.w - place.w) < APART) {
      return { ...this.shown(), wrong: "The way up needs a point that lies apart from the last one." };
    }
    const points = [...this.points, place];
    if (points.length < this.needed) {
      this.points = points;
      this.at = null;
      return this.shown();
    }
    return { ...this.shown(), preview: undefined, edits: [this.edit(points)], done: { select: this.id } };
  }

  length(mm: number): Outcome {
    const last = this.points.at(-1);
    if (!last || !this.at) return { ...this.shown(), wrong: "Click the foot of the stair, then type a length." };
    const [du, dw] = [this.at.u - last.u, this.at.w - last.w];
    const length = Math.hypot(du, dw) || 1;
    return this.click({ u: last.u + (du / length) * mm, w: last.w + (dw / length) * mm, label: "typed" });
  }

  key(key: string): Outcome | null {
    if (key !== "Escape" || !this.points.length) return null;
    this.points = this.points.slice(0, -1);
    return this.shown();
  }

  private get needed(): number {
    return this.form === "straight" ? 2 : 3;
  }

  private shown(): Outcome {
    const points = this.at ? [...this.points, this.at] : this.points;
    const last = this.points.at(-1);
    const whole = points.length === this.needed;
    const apart = whole && last && this.at && Math.hypot(last.u - this.at.u, last.w - this.at.w) >= APART;
    return {
      overlay: this.overlay(points),
      hint: this.hint(),
      preview: apart ? [this.edit(points)] : undefined,
      asks: this.points.length === 1 && this.needed === 3 ? "length to the middle of the turn" : undefined,
    };
  }

  private hint(): string {
    if (!this.points.length) return "Click the middle of the first riser of the stair.";
    if (this.needed === 2) return "Click a point on its way up; its length follows from its rule. Escape begins again.";
    if (this.points.length === 1) return "Click the middle of its turn, or type how far away that is.";
    return "Click the side to which it turns.";
  }

  private overlay(points: Place[]): Overlay {
    if (!points.length) return EMPTY;
    const lines = points.slice(1).map((b, k) => ({ u1: points[k].u, w1: points[k].w, u2: b.u, w2: b.w }));
    return { lines, dots: [points[0]] };
  }

  private edit(points: Place[]): Edit {
    const [a, b, c] = points.map((place) => toPlan(this.turn, place.u, place.w));
    return {
      kind: "draw_stair",
      id: this.id,
      level: this.storey.level,
      x1: a.x,
      y1: a.y,
      x2: b.x,
      y2: b.y,
      x3: c?.x ?? null,
      y3: c?.y ?? null,
      turning: this.form === "straight" ? "landing" : this.form,
    };
  }
}
