import type { Edit } from "../api/client";
import { OnePoint } from "./onePoint";
import { ByCorners } from "./outline";
import { TwoPoints } from "./place";
import {
  newId,
  type Outcome,
  type Overlay,
  type Place,
  type PlanAction,
  type Project,
  type Storey,
  type Turn,
  toPlan,
} from "./types";

type Corners = [number, number][];

/** An area of a storey that is drawn by its corners: what it is called, where to begin, the edit that makes it. */
interface Area {
  noun: string;
  begin: string;
  edit: (id: string, corners: Corners, project: Project, storey: Storey) => Edit | string;
}

export const AREAS = {
  hole: {
    noun: "hole",
    begin: "Click a corner of the hole in this floor.",
    edit: (id, corners, project, storey) => {
      const floor = project.floors?.find((held) => held.level === storey.level);
      if (!floor) return `${storey.name} has no floor to cut a hole in.`;
      const name = `Hole ${(project.floor_holes?.length ?? 0) + 1}`;
      return { kind: "put_floor_hole", hole: { id, state: "new", name, floor: floor.id, corners } };
    },
  },
  deck: {
    noun: "deck",
    begin:
      "Click a corner of the deck, at the wall of the house; within a floor it becomes a part of that, of its own height.",
    edit: (id, corners, _, { level }) => ({ kind: "draw_deck", id, level, corners }),
  },
  setDown: {
    noun: "set-down",
    begin: "Click a corner of the part of this slab that lies lower.",
    edit: (id, corners, _, { level }) => ({ kind: "draw_set_down", id, level, corners }),
  },
  slab: {
    noun: "slab",
    begin: "Click a corner of the slab, at the wall of the house.",
    edit: (id, corners, _, { level }) => ({ kind: "draw_porch_slab", id, level, corners }),
  },
} satisfies Record<string, Area>;

/** How areas are drawn. */
export type AreaShape = "rectangle" | "corners";

/** Draws an area by two opposite corners, or corner by corner. */
export function drawArea(
  what: keyof typeof AREAS,
  project: Project,
  turn: Turn,
  storey: Storey,
  shape: AreaShape = "rectangle",
): PlanAction {
  const Draw = shape === "rectangle" ? ByTwoCorners : AreaByCorners;
  return new Draw(AREAS[what], project, turn, storey);
}

class ByTwoCorners extends TwoPoints {
  private readonly id: string;
  protected readonly hints: [string, string, string];

  constructor(
    private readonly area: Area,
    project: Project,
    turn: Turn,
    private readonly storey: Storey,
  ) {
    super(project, turn);
    this.id = newId(area.noun);
    this.hints = [area.begin, "Click the corner across from it. Escape begins again.", `diagonal of the ${area.noun}`];
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

  protected make(a: Place, b: Place) {
    if (Math.min(Math.abs(a.u - b.u), Math.abs(a.w - b.w)) < 150)
      return `A ${this.area.noun} needs two corners that lie apart.`;
    const edit = this.area.edit(this.id, inPlan(this.turn, this.corners(a, b)), this.project, this.storey);
    return typeof edit === "string" ? edit : { id: this.id, edit };
  }
}

class AreaByCorners extends ByCorners {
  private id: string;
  protected readonly first: string;

  constructor(
    private readonly area: Area,
    private readonly project: Project,
    private readonly turn: Turn,
    private readonly storey: Storey,
  ) {
    super();
    this.id = newId(area.noun);
    this.first = area.begin;
  }

  protected again() {
    this.id = newId(this.area.noun);
  }

  protected made(corners: Place[]) {
    const edit = this.area.edit(this.id, inPlan(this.turn, corners), this.project, this.storey);
    return typeof edit === "string" ? edit : { id: this.id, edit };
  }
}

function inPlan(turn: Turn, corners: { u: number; w: number }[]): Corners {
  return corners.map(({ u, w }): [number, number] => {
    const { x, y } = toPlan(turn, u, w);
    return [x, y];
  });
}

/** A floor by one click within the walls of a storey; where one lies already, that is what the click means. */
export class LayFloor extends OnePoint {
  protected readonly made = newId("floor");
  protected readonly hint = "Click within closed outer walls: a floor is laid there.";

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

/** A hatch with a folding ladder in the ceiling over a place. */
export class PlaceHatch extends OnePoint {
  protected readonly made = newId("hatch");
  protected readonly hint = "Click in a room where the loft hatch goes; its particulars turn its ladder.";

  constructor(
    private readonly turn: Turn,
    private readonly storey: Storey,
  ) {
    super();
  }

  protected edit(place: Place): Edit {
    const { x, y } = toPlan(this.turn, place.u, place.w);
    return { kind: "draw_loft_hatch", id: this.made, level: this.storey.level, x, y };
  }
}
