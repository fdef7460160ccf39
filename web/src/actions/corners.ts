import type { Edit } from "../api/client";
import { OnePoint } from "./onePoint";
import { TwoPoints } from "./place";
import { newId, type Outcome, type Overlay, type Place, type Project, type Storey, type Turn, toPlan } from "./types";

/** A rectangle on a storey by two opposite corners. */
abstract class TwoCorners extends TwoPoints {
  constructor(
    project: Project,
    turn: Turn,
    protected readonly storey: Storey,
  ) {
    super(project, turn);
  }

  protected lines(a: Place, b: Place): Overlay {
    const corners = this.corners(a, b);
    const lines = corners.map((p, k) => {
      const q = corners[(k + 1) % 4];
      return { u1: p.u, w1: p.w, u2: q.u, w2: q.w };
    });
    return { lines, dots: [a] };
  }

  private corners(a: Place, b: Place) {
    return [a, { u: b.u, w: a.w }, b, { u: a.u, w: b.w }];
  }

  /** The corners in the plan of the house; none where they do not lie apart. */
  protected inPlan(a: Place, b: Place): [number, number][] | null {
    if (Math.min(Math.abs(a.u - b.u), Math.abs(a.w - b.w)) < 150) return null;
    return this.corners(a, b).map((place): [number, number] => {
      const { x, y } = toPlan(this.turn, place.u, place.w);
      return [x, y];
    });
  }
}

/** A hole in the floor of a storey by two opposite corners. */
export class DrawHole extends TwoCorners {
  private readonly id = newId("hole");

  protected readonly hints: [string, string, string] = [
    "Click a corner of the hole in this floor.",
    "Click the corner across from it. Escape begins again.",
    "diagonal of the hole",
  ];

  protected make(a: Place, b: Place) {
    const floor = this.project.floors?.find((held) => held.level === this.storey.level);
    if (!floor) return `${this.storey.name} has no joist floor to cut a hole in.`;
    const corners = this.inPlan(a, b);
    if (!corners) return "A hole needs two corners that lie apart.";
    const taken = this.project.floor_holes?.length ?? 0;
    const hole = { id: this.id, state: "new" as const, name: `Hole ${taken + 1}`, floor: floor.id, corners };
    return { id: this.id, edit: { kind: "put_floor_hole" as const, hole } };
  }
}

/** A joist floor by one click within the walls of a storey; where one lies already, that is what the click means. */
export class LayFloor extends OnePoint {
  protected readonly made = newId("floor");
  protected readonly hint = "Click within closed outer walls: a joist floor is laid there.";

  constructor(
    private readonly project: Project,
    private readonly turn: Turn,
    private readonly storey: Storey,
  ) {
    super();
  }

  private get there() {
    return this.project.floors?.find((held) => held.level === this.storey.level);
  }

  click(place: Place): Outcome {
    return this.there ? { ...this.shown(), done: { select: this.there.id } } : super.click(place);
  }

  protected edit(place: Place): Edit | null {
    if (this.there) return null;
    const { x, y } = toPlan(this.turn, place.u, place.w);
    return { kind: "lay_floor", id: this.made, level: this.storey.level, x, y };
  }
}

/** A deck beside the house by two opposite corners; what lies within the house falls away. */
export class DrawDeck extends TwoCorners {
  private readonly id = newId("deck");

  protected readonly hints: [string, string, string] = [
    "Click a corner of the deck, at the wall of the house; within a joist floor it becomes a part with joists of its own.",
    "Click the corner across from it. Escape begins again.",
    "diagonal of the deck",
  ];

  protected make(a: Place, b: Place) {
    const corners = this.inPlan(a, b);
    if (!corners) return "A deck needs two corners that lie apart.";
    return { id: this.id, edit: { kind: "draw_deck" as const, id: this.id, level: this.storey.level, corners } };
  }
}

/** A part of the slab on the ground that lies lower, by two opposite corners. */
export class DrawSetDown extends TwoCorners {
  private readonly id = newId("set-down");

  protected readonly hints: [string, string, string] = [
    "Click a corner of the part of this slab that lies lower.",
    "Click the corner across from it. Escape begins again.",
    "diagonal of the set-down",
  ];

  protected make(a: Place, b: Place) {
    const corners = this.inPlan(a, b);
    if (!corners) return "A set-down needs two corners that lie apart.";
    return { id: this.id, edit: { kind: "draw_set_down" as const, id: this.id, level: this.storey.level, corners } };
  }
}

/** A porch slab below the floor of a storey by two opposite corners; what lies within the house falls away. */
export class DrawSlab extends TwoCorners {
  private readonly id = newId("slab");

  protected readonly hints: [string, string, string] = [
    "Click a corner of the slab, at the wall of the house.",
    "Click the corner across from it. Escape begins again.",
    "diagonal of the slab",
  ];

  protected make(a: Place, b: Place) {
    const corners = this.inPlan(a, b);
    if (!corners) return "A slab needs two corners that lie apart.";
    return { id: this.id, edit: { kind: "draw_porch_slab" as const, id: this.id, level: this.storey.level, corners } };
  }
}
