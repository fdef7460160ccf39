import type { Edit } from "../api/client";
import { Following } from "./following";
import { type ActionKey, EMPTY, newId, type Outcome, type Place, type Storey, type Turn, toPlan } from "./types";
import type { WallOptions } from "./walls";

/** Something drawn corner by corner, closed at the first one or with Enter. */
export abstract class ByCorners extends Following {
  private corners: Place[] = [];

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
    const made = this.made(this.corners);
    if (typeof made === "string") return { ...this.shown(), wrong: made };
    this.corners = [];
    this.again();
    return { ...this.shown(), preview: undefined, edits: [made.edit], done: { select: made.id } };
  }

  /** What to click first. */
  protected abstract readonly first: string;

  /** The edit of an outline, or why it cannot be. */
  protected abstract made(corners: Place[]): { id: string; edit: Edit } | string;

  /** Ids for the next one. */
  protected abstract again(): void;

  protected shown(): Outcome {
    const all = this.pointer && this.corners.length ? [...this.corners, this.pointer] : this.corners;
    const last = all.at(-1);
    const before = all.at(-2);
    const made = this.corners.length >= 2 && all.length >= 3 ? this.made(all) : "";
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
        : this.first,
      preview: typeof made === "string" ? undefined : [made.edit],
      asks: this.corners.length ? "distance to the next corner" : undefined,
    };
  }
}

/** Draws a wall by the outline of its plan. */
export class DrawOutline extends ByCorners {
  private ids = this.fresh();
  protected readonly first = "Click the first corner of the wall's outline. A wall drawn so is of one layer.";

  constructor(
    private readonly turn: Turn,
    private readonly storey: Storey,
    private readonly options: WallOptions,
  ) {
    super();
  }

  private fresh(): { wall: string; joints: [string, string] } {
    return { wall: newId("wall"), joints: [newId("joint"), newId("joint")] };
  }

  protected again() {
    this.ids = this.fresh();
  }

  protected made(corners: Place[]) {
    const edit: Edit = {
      kind: "draw_outline",
      ...this.ids,
      points: corners.map((corner) => toPlan(this.turn, corner.u, corner.w)),
      make_up: this.options.makeUp,
      status: this.options.status,
      base: this.storey.level,
      top: this.storey.plate ?? "",
    };
    return { id: this.ids.wall, edit };
  }
}
