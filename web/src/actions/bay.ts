import type { Edit } from "../api/client";
import { lengthOf, placeOn } from "./arc";
import { OnePoint } from "./onePoint";
import { newId, type Place, type Project, type Snaps } from "./types";

export type BayShape = "square" | "angled" | "bowed";

export interface BaySize {
  shape: BayShape;
  /** mm along the wall. */
  width: number;
  /** mm outward; below 0 it is a recess. */
  out: number;
}

/** Cuts a bay into the wall under the pointer: click its middle, or type the distance from the start of the wall. */
export class PlaceBay extends OnePoint {
  private readonly ids = {
    joints: [newId("joint"), newId("joint"), newId("joint"), newId("joint")],
    walls: [newId("wall"), newId("wall"), newId("wall")],
    rest: newId("wall"),
  };
  protected readonly made = this.ids.walls[0];
  protected readonly missing = "A bay needs a wall. Point at one and click.";
  protected readonly hint =
    "Point at a wall and click the middle of the bay; or type its distance from the start of the wall.";

  constructor(
    private readonly project: Project,
    private readonly snaps: Snaps,
    private readonly size: BaySize,
  ) {
    super();
  }

  protected get width(): number {
    return this.size.width;
  }

  protected edit(place: Place): Edit | null {
    const { shape, width, out } = this.size;
    if (place.wall === undefined || place.along === undefined) return null;
    if (!this.project.walls?.some((wall) => wall.id === place.wall)) return null;
    const corners = shape === "bowed" ? 2 : 4;
    return {
      kind: "add_bay",
      wall: place.wall,
      distance: Math.round(place.along * 1e6) / 1e6,
      width,
      out,
      shape,
      front: null,
      joints: this.ids.joints.slice(0, corners),
      walls: this.ids.walls.slice(0, corners - 1),
      rest: this.ids.rest,
    };
  }

  protected fits(place: Place): boolean {
    const line = this.snaps.lines.find((held) => held.wall === place.wall);
    const [along, half] = [place.along ?? 0, this.size.width / 2];
    return line !== undefined && along > half && along < lengthOf(line) - half;
  }

  /** Its middle, and its ends on the wall where it fits. */
  protected dots(place: Place) {
    const line = this.snaps.lines.find((held) => held.wall === place.wall);
    const half = this.size.width / 2;
    if (!line || !this.fits(place)) return [place];
    return [place, ...[-half, half].map((by) => placeOn(line, (place.along ?? 0) + by))];
  }
}
