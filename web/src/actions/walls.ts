import type { Edit } from "../api/client";
import { EMPTY, newId, type Outcome, type Place, type PlanAction, type Storey, type Turn, toPlan } from "./types";

type Joint = {
  id: string;
  edit: Extract<Edit, { kind: "draw_walls" }>["joints"] extends (infer J)[] | undefined ? J : never;
};

interface Corner extends Place {
  id: string;
  made: Joint["edit"] | null;
}

const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/** Draws a chain of walls: click or type each corner; it ends at its first corner, at Enter, or on a wall. */
export class DrawWalls implements PlanAction {
  private corners: Corner[] = [];
  private pointer: Place = { u: 0, w: 0, label: "" };
  private direction: [number, number] | null = null;

  constructor(
    private readonly turn: Turn,
    private readonly storey: Storey,
    private readonly status: "outer" | "inner",
    private readonly makeUp: string,
  ) {}

  /** The last corner, from which right angles are measured. */
  get from(): Place | null {
    return this.corners.at(-1) ?? null;
  }

  /** The first corner, which closes the chain. */
  get own(): Place[] {
    return this.corners.length > 2 ? [{ ...this.corners[0], label: "first corner, closes the walls" }] : [];
  }

  start(): Outcome {
    return this.shown();
  }

  move(place: Place): Outcome {
    this.pointer = place;
    this.direction = null;
    return this.shown();
  }

  click(place: Place): Outcome {
    this.pointer = place;
    const first = this.corners[0];
    const last = this.corners.at(-1);
    if (last && Math.hypot(place.u - last.u, place.w - last.w) < 1)
      return { ...this.shown(), wrong: "A wall needs a length. Point somewhere else, or type one." };
    if (first && this.corners.length > 2 && Math.hypot(place.u - first.u, place.w - first.w) < 1)
      return this.finish(true);
    this.corners.push(this.corner(place));
    const landed = place.joint !== undefined || place.wall !== undefined;
    if (this.status === "inner" && landed && this.corners.length > 1) return this.finish(false);
    return this.shown();
  }

  length(mm: number): Outcome {
    const last = this.corners.at(-1);
    if (!last) return { ...this.shown(), wrong: "Click the first corner, then type a length." };
    if (mm <= 0) return { ...this.shown(), wrong: "A wall needs a length of more than nothing." };
    const [du, dw] = this.direction ?? unit(this.pointer.u - last.u, this.pointer.w - last.w);
    return this.click({ u: last.u + du * mm, w: last.w + dw * mm, label: "typed" });
  }

  key(key: string): Outcome | null {
    if (key === "Escape") {
      if (this.corners.length === 0) return null;
      this.corners.pop();
      return this.shown();
    }
    if (key === "Enter") {
      if (this.corners.length === 0) return this.click({ ...this.pointer, label: "here" });
      if (this.corners.length > 1) return this.finish(false);
      return this.shown();
    }
    if (ARROWS[key]) {
      this.direction = ARROWS[key];
      return this.shown();
    }
    return null;
  }

  private corner(place: Place): Corner {
    if (place.joint) return { ...place, id: place.joint, made: null };
    const id = newId("joint");
    if (place.wall !== undefined && place.along !== undefined)
      return {
        ...place,
        id,
        made: { kind: "hosted", id, wall: place.wall, end: "start", distance: place.along, join: "clean" },
      };
    return { ...place, id, made: { kind: "free", id, ...toPlan(this.turn, place.u, place.w), join: "clean" } };
  }

  private edit(closed: boolean, corners: Corner[]): Edit {
    const chain = corners.map((corner) => corner.id);
    if (closed) chain.push(chain[0]);
    return {
      kind: "draw_walls",
      joints: corners.flatMap((corner) => (corner.made ? [corner.made] : [])),
      chain,
      walls: chain.slice(1).map(() => newId("wall")),
      make_up: this.makeUp,
      status: this.status,
      base: this.storey.level,
      top: this.storey.plate ?? "",
    };
  }

  private finish(closed: boolean): Outcome {
    const edit = this.edit(closed, this.corners);
    this.corners = [];
    this.direction = null;
    return { ...this.shown(), edits: [edit] };
  }

  private shown(): Outcome {
    const last = this.corners.at(-1);
    if (!last)
      return {
        overlay: EMPTY,
        hint: `Click the first corner of the ${this.status} walls, or press Enter to begin at the pointer.`,
      };
    const target = this.direction
      ? { u: last.u + this.direction[0] * 1000, w: last.w + this.direction[1] * 1000 }
      : { u: this.pointer.u, w: this.pointer.w };
    const points = [...this.corners, target];
    const lines = points.slice(1).map((point, i) => ({
      u1: points[i].u,
      w1: points[i].w,
      u2: point.u,
      w2: point.w,
      dashed: i === points.length - 2,
    }));
    const length = Math.hypot(target.u - last.u, target.w - last.w);
    const moved = length >= 1 && !this.direction;
    return {
      overlay: {
        lines,
        dots: this.corners,
        label: moved ? { u: (target.u + last.u) / 2, w: (target.w + last.w) / 2, length } : undefined,
      },
      hint:
        this.corners.length > 2
          ? "Next corner: click, or type a length. Click the first corner to close; Enter ends here; Escape takes one back."
          : "Next corner: click, or type a length (arrow keys choose the direction). Escape takes one back.",
      preview: this.corners.length > 1 ? [this.edit(false, this.corners)] : undefined,
      asks: "length of this wall",
    };
  }
}

function unit(u: number, w: number): [number, number] {
  const length = Math.hypot(u, w);
  if (length < 1e-9) return [1, 0];
  const snap = (value: number) =>
    Math.abs(value) < 1e-9 ? 0 : Math.abs(Math.abs(value) - 1) < 1e-9 ? Math.sign(value) : value;
  return [snap(u / length), snap(w / length)];
}
