import type { Edit } from "../api/client";
import { usual } from "../usual";
import { OnePoint } from "./onePoint";
import { TwoPoints } from "./place";
import { newId, type Outcome, type Place, type Project, type Storey, type Turn, toPlan } from "./types";

/** Heights of the ground, one click each: what was typed before is how far above grade they lie. */
export class PlaceGroundSpot extends OnePoint {
  private id = newId("ground");
  private rise = 0;
  protected readonly hint =
    "Type how far above (or, with a minus, below) grade the ground lies, then click the point; its particulars take it too.";

  constructor(private readonly turn: Turn) {
    super();
  }

  protected get made(): string {
    return this.id;
  }

  length(mm: number): Outcome {
    this.rise = mm;
    return this.shown();
  }

  click(place: Place): Outcome {
    const outcome = super.click(place);
    this.id = newId("ground");
    return outcome;
  }

  protected edit(place: Place): Edit {
    return {
      kind: "put_ground_spot",
      spot: { id: this.id, ...toPlan(this.turn, place.u, place.w), rise: this.rise },
    };
  }

  protected shown(): Outcome {
    return { ...super.shown(), asks: "height of the ground above grade" };
  }
}

/** A step along an endless line by two points of it. */
abstract class StepLine extends TwoPoints {
  protected readonly id = newId("step");

  constructor(project: Project, turn: Turn) {
    super(project, turn);
  }

  protected abstract edit(points: { x1: number; y1: number; x2: number; y2: number }): Edit | string;

  protected make(a: Place, b: Place) {
    if (Math.hypot(a.u - b.u, a.w - b.w) < 50) return "A step needs two points that lie apart.";
    const [p, q] = [toPlan(this.turn, a.u, a.w), toPlan(this.turn, b.u, b.w)];
    const edit = this.edit({ x1: p.x, y1: p.y, x2: q.x, y2: q.y });
    return typeof edit === "string" ? edit : { id: this.id, edit };
  }
}

/** A step of the ground: two points of its edge. It is as high as two ordinary risers to begin with. */
export class DrawGroundStep extends StepLine {
  protected readonly hints: [string, string, string] = [
    "Click a point of the edge where the ground steps.",
    "Click a second point: the ground is higher to the left. Escape begins again.",
    "length to the second point",
  ];

  protected edit(points: { x1: number; y1: number; x2: number; y2: number }): Edit {
    return {
      kind: "put_ground_step",
      step: { id: this.id, ...points, rise: usual("ground_step", this.project.units) },
    };
  }
}

/** A step of the foundation under a storey, across its walls. */
export class DrawFoundationStep extends StepLine {
  protected readonly hints: [string, string, string] = [
    "Click a point of the line along which the foundation steps down.",
    "Click a second point: the foundation is lower to the left. Escape begins again.",
    "length to the second point",
  ];

  constructor(
    project: Project,
    turn: Turn,
    private readonly storey: Storey,
  ) {
    super(project, turn);
  }

  protected edit(points: { x1: number; y1: number; x2: number; y2: number }): Edit | string {
    const all = this.project.foundations ?? [];
    const under = all.find((held) => held.level === this.storey.level) ?? (all.length === 1 ? all[0] : undefined);
    if (!under) return `${this.storey.name} has no foundation to step.`;
    const drop = usual("foundation_step", this.project.units);
    return { kind: "put_foundation_step", step: { id: this.id, state: "new", foundation: under.id, ...points, drop } };
  }
}

/** The next free name of a grid line: numbers for those that run up the plan, letters for the others. */
export function gridName(angle: number, taken: string[]): string {
  const steep = Math.abs(Math.sin((angle * Math.PI) / 180)) > 0.7;
  const letters = [..."ABCDEFGHJKLMNPQRSTUVWXYZ"];
  const names = steep ? Array.from({ length: 99 }, (_, n) => `${n + 1}`) : letters;
  return names.find((name) => !taken.includes(name)) ?? `G${taken.length + 1}`;
}
