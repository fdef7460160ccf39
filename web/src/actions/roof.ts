import type { Edit } from "../api/client";
import { OnePoint } from "./onePoint";
import { TwoPoints } from "./place";
import { newId, type Overlay, type Place, type Project, type Storey, type Turn, toPlan } from "./types";

export type RoofForm = Extract<Edit, { kind: "propose_roof" }>["form"];

/** A roof over the outer walls around the place that is clicked. */
export class RoofOver extends OnePoint {
  protected readonly made = newId("roof");

  constructor(
    private readonly turn: Turn,
    private readonly storey: Storey,
    private readonly form: RoofForm,
  ) {
    super();
  }

  protected readonly hint =
    "Click inside of the walls that the roof covers; its edges are changed on the plan afterwards.";

  protected edit(place: Place): Edit {
    const { level, plate } = this.storey;
    return {
      kind: "propose_roof",
      id: this.made,
      form: this.form,
      level,
      plate: plate ?? "",
      ...toPlan(this.turn, place.u, place.w),
      outline: [],
    };
  }
}

/** A roof over a rectangle, such as a porch or a wing: what lies on another roof runs into it. */
export class RoofRectangle extends TwoPoints {
  protected readonly id = newId("roof");

  constructor(
    project: Project,
    turn: Turn,
    private readonly storey: Storey,
    protected readonly form: RoofForm,
  ) {
    super(project, turn);
  }

  protected readonly hints: [string, string, string] = [
    "Click one corner of the rectangle that the roof covers.",
    "Click the opposite corner. Escape begins again.",
    "length of the diagonal",
  ];

  protected lines(a: Place, b: Place): Overlay {
    const side = (u1: number, w1: number, u2: number, w2: number) => ({ u1, w1, u2, w2, dashed: true });
    return {
      lines: [side(a.u, a.w, b.u, a.w), side(b.u, a.w, b.u, b.w), side(b.u, b.w, a.u, b.w), side(a.u, b.w, a.u, a.w)],
      dots: [a],
    };
  }

  protected make(a: Place, b: Place): { id: string; edit: Edit } | string {
    const [u0, u1] = [Math.min(a.u, b.u), Math.max(a.u, b.u)];
    const [w0, w1] = [Math.min(a.w, b.w), Math.max(a.w, b.w)];
    if (u1 - u0 < 300 || w1 - w0 < 300)
      return "A roof needs a rectangle at least 300 mm (1') wide. Pick the opposite corner.";
    const joints = (this.project.joints ?? []).flatMap((joint) => (joint.kind === "free" ? [joint] : []));
    const corner = (u: number, w: number) => {
      const { x, y } = toPlan(this.turn, u, w);
      const joint = joints.find((held) => Math.hypot(held.x - x, held.y - y) < 0.5);
      return joint ? { joint: joint.id, x: 0, y: 0 } : { joint: null, x, y };
    };
    const { level, plate } = this.storey;
    const outline = [corner(u0, w0), corner(u1, w0), corner(u1, w1), corner(u0, w1)];
    const edit: Edit = {
      kind: "propose_roof",
      id: this.id,
      form: this.form,
      level,
      plate: plate ?? "",
      x: 0,
      y: 0,
      outline,
    };
    return { id: this.id, edit };
  }
}

export type OnRoof = Extract<Edit, { kind: "add_on_roof" }>["what"];

/** A chimney, a window, a pipe, a vent or a downpipe, one click each. */
export class PutOnRoof extends OnePoint {
  protected readonly made = newId("on-roof");
  protected readonly hint: string;

  constructor(
    private readonly turn: Turn,
    private readonly what: OnRoof,
  ) {
    super();
    this.hint =
      what === "downpipe"
        ? "Click near an eave: the downpipe hangs there, and the eave gets its gutter."
        : "Click where it goes through the roof; its particulars take sizes and heights.";
  }

  protected edit(place: Place): Edit {
    return { kind: "add_on_roof", id: this.made, what: this.what, ...toPlan(this.turn, place.u, place.w) };
  }
}

/** A dormer on a slope: its walls and its roof. */
export class Dormer extends RoofRectangle {
  private readonly names = {
    joints: [newId("joint"), newId("joint"), newId("joint"), newId("joint")] as [string, string, string, string],
    walls: [newId("wall"), newId("wall"), newId("wall")] as [string, string, string],
  };

  protected override readonly hints: [string, string, string] = [
    "Click one corner of the dormer on the slope; the side that looks down it becomes its front.",
    "Click the opposite corner. Escape begins again.",
    "length of the diagonal",
  ];

  protected override make(a: Place, b: Place) {
    const [p, q] = [toPlan(this.turn, a.u, a.w), toPlan(this.turn, b.u, b.w)];
    const edit: Edit = {
      kind: "add_dormer",
      id: this.id,
      form: this.form,
      x0: p.x,
      y0: p.y,
      x1: q.x,
      y1: q.y,
      ...this.names,
    };
    return { id: this.id, edit };
  }
}
