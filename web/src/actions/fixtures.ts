import type { Project, Snaps, Storey } from "./types";

/** An empty project with what actions read of it. */
export function emptyProject(units: "ft-in" | "mm" = "mm"): Project {
  return {
    schema_version: 2,
    id: "p",
    name: "House",
    units,
    rungs: [
      { id: "plate", name: "Plate", surface: "plate", from_rung: "floor", terms: [] },
      { id: "floor", name: "Floor", surface: "slab", from_rung: "grade", terms: [] },
    ],
    make_ups: [{ id: "roof", name: "roof", use: "roof", layers: [] }],
    joints: [],
    walls: [],
    openings: [],
    roofs: [],
    sections: [],
    rooms: [],
  } as unknown as Project;
}

/** A wall from (0, 0) to (8000, 0) with its ends and middle. */
export const ONE_WALL: Snaps = {
  points: [
    { u: 0, w: 0, kind: "joint", label: "end of wall", joint: "a", wall: "south" },
    { u: 8000, w: 0, kind: "joint", label: "end of wall", joint: "b", wall: "south" },
    { u: 4000, w: 0, kind: "middle", label: "middle of wall", joint: null, wall: "south" },
  ],
  lines: [{ u1: 0, w1: 0, u2: 8000, w2: 0, wall: "south", bulge: 0 }],
  axes: [{ u1: 0, w1: 0, u2: 8000, w2: 0, wall: "south", bulge: 0 }],
  guides: [],
  sides: [],
  treatments: [],
};

/** The storey between floor and plate. */
export const MAIN: Storey = { level: "floor", name: "Floor", plate: "plate", plan: "plan" };

export const NORTH_UP = { dx: 0, dy: 1 };
