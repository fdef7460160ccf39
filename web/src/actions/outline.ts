import type { Edit } from "../api/client";
import { Following } from "./following";
import { type ActionKey, EMPTY, newId, type Outcome, type Place, type Storey, type Turn, toPlan } from "./types";
import type { WallOptions } from "./walls";

/** Draws a wall by the outline of its plan: corner by corner, closed at the first one or with Enter. */
export class DrawOutline extends Following {
  private corners: Place[] = [];
  private ids = this.fresh();

  constructor(
    private readonly turn: Turn,
    private readonly storey: Storey,
    private readonly options: WallOptions,
  ) {
    super();
  }

  get from(): Place | null {
    return this.corners.at(-1) ?? null;
  }

  get own(): Place[] {
    return this.corners.slice(0, 1).map((corner) => ({ ...corner, label: "first corner" }));
  }

  click(place: Place): Outcome {
    this.pointer = place;
    const first = this.corners[0];
    if (first && Math.hypot(place.u - first.u, place.w - first.w) < 1) return this.close();
    this.corners.push(place);
    return this.shown();
  }

  length(mm: number): Outcome {
    const [from, to] = [this.from, this.pointer];
    const length = from && to ? Math.hypot(to.u - from.u, to.w - from.w) : 0;
    if (!from || !to || length < 1) return { ...this.shown(), wrong: "Click a corner and point the way, then type." };
    const share = mm / length;
    return this.click({ u: from.u + (to.u - from.u) * share, w: from.w + (to.w - from.w) * share, label: "typed" });
  }

  key(key: ActionKey): Outcome | null {
    if (key === "Enter" && this.corners.length) return this.close();
    if (key !== "Escape" || !this.corners.length) return null;
    this.corners.pop();
    return this.shown();
  }

  private close(): Outcome {
    if (this.corners.length < 3) return { ...this.shown(), wrong: "An outline has at least three corners." };
    const edit = this.edit(this.corners);
    const select = this.ids.wall;
    this.corners = [];
    this.ids = this.fresh();
    return { ...this.shown(), preview: undefined, edits: [edit], done: { select } };
  }

  private fresh(): { wall: string; joints: [string, string] } {
    return { wall: newId("wall"), joints: [newId("joint"), newId("joint")] };
  }

  private edit(corners: Place[]): Edit {
    return {
      kind: "draw_outline",
      ...this.ids,
      points: corners.map((corner) => toPlan(this.turn, corner.u, corner.w)),
      make_up: this.options.makeUp,
      status: this.options.status,
      base: this.storey.level,
      top: this.storey.plate ?? "",
    };
  }

  protected shown(): Outcome {
    const all = this.pointer && this.corners.length ? [...this.corners, this.pointer] : this.corners;
    const last = all.at(-1);
    const before = all.at(-2);
    return {
      overlay: last
        ? {
            lines: all.slice(1).map((b, k) => ({ u1: all[k].u, w1: all[k].w, u2: b.u, w2: b.w })),
            dots: this.corners,
            label: before && { ...last, length: Math.hypot(last.u - before.u, last.w - before.w) },
          }
        : EMPTY,
      hint: this.corners.length
        ? "Click the next corner, or type its distance; click the first one or press Enter to close. Escape takes one back."
        : "Click the first corner of the wall's outline. A wall drawn so is of one layer.",
      preview: this.corners.length >= 2 && all.length >= 3 ? [this.edit(all)] : undefined,
      asks: this.corners.length ? "distance to the next corner" : undefined,
    };
  }
}
