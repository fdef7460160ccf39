import { lengthOf, placeOn } from "./arc";
import { EMPTY, newId, type Outcome, type Place, type PlanAction, type Project, type Snaps } from "./types";

export type BayShape = "square" | "angled" | "bowed";

export interface BaySize {
  shape: BayShape;
  /** mm along the wall. */
  width: number;
  /** mm outward; below 0 it is a recess. */
  out: number;
}

/** Cuts a bay into the wall under the pointer: click its middle, or type the distance from the start of the wall. */
export class PlaceBay implements PlanAction {
  private at: Place | null = null;
  private readonly ids = {
    joints: [newId("joint"), newId("joint"), newId("joint"), newId("joint")],
    walls: [newId("wall"), newId("wall"), newId("wall")],
    rest: newId("wall"),
  };

  constructor(
    private readonly project: Project,
    private readonly snaps: Snaps,
    private readonly size: BaySize,
  ) {}

  start(): Outcome {
    return this.shown();
  }

  move(place: Place): Outcome {
    this.at = place;
    return this.shown();
  }

  click(place: Place): Outcome {
    this.at = place;
    const edit = this.edit();
    if (!edit) return { ...this.shown(), wrong: "A bay needs a wall. Point at one and click." };
    return { ...this.shown(), preview: undefined, edits: [edit], done: { select: this.ids.walls[0] } };
  }

  /** A typed length is the distance from the start of the wall to the bay. */
  length(mm: number): Outcome {
    if (this.at?.wall === undefined)
      return { ...this.shown(), wrong: "Point at a wall first, then type the distance." };
    return this.click({ ...this.at, along: mm + this.size.width / 2 });
  }

  key(): Outcome | null {
    return null;
  }

  private edit() {
    const { shape, width, out } = this.size;
    if (this.at?.wall === undefined || this.at.along === undefined) return null;
    if (!this.project.walls?.some((wall) => wall.id === this.at?.wall)) return null;
    const corners = shape === "bowed" ? 2 : 4;
    return {
      kind: "add_bay" as const,
      wall: this.at.wall,
      distance: Math.round(this.at.along * 1e6) / 1e6,
      width,
      out,
      shape,
      front: null,
      joints: this.ids.joints.slice(0, corners),
      walls: this.ids.walls.slice(0, corners - 1),
      rest: this.ids.rest,
    };
  }

  private shown(): Outcome {
    const edit = this.edit();
    const line = this.snaps.lines.find((held) => held.wall === this.at?.wall);
    const half = this.size.width / 2;
    const fits = line && this.at?.along !== undefined && this.at.along > half && this.at.along < lengthOf(line) - half;
    const ends = fits && line ? [-half, half].map((by) => placeOn(line, (this.at?.along ?? 0) + by)) : [];
    return {
      overlay: this.at && edit ? { lines: [], dots: [this.at, ...ends] } : EMPTY,
      hint: "Point at a wall and click the middle of the bay; or type its distance from the start of the wall.",
      preview: edit && fits ? [edit] : undefined,
      asks: "clear distance from the start of the wall",
    };
  }
}
