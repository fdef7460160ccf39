import { describe, expect, it } from "vitest";
import type { Edit } from "../api/client";
import { PlaceBay } from "./bay";
import { DrawConstruction } from "./construction";
import { emptyProject, MAIN, NORTH_UP, ONE_WALL } from "./fixtures";
import type { Outcome, Place, Project } from "./types";

const at = (u: number, w: number, more: Partial<Place> = {}): Place => ({ u, w, label: "", ...more });
type Of<K> = Extract<Edit, { kind: K }>;
const made = <K extends Edit["kind"]>(outcome: Outcome) => outcome.edits?.[0] as Of<K>;
const line = (outcome: Outcome) => made<"put_construction">(outcome).line;

describe("construction lines", () => {
  it("lie parallel to a wall, at a typed distance on the pointer's side", () => {
    const action = new DrawConstruction(NORTH_UP, MAIN, ONE_WALL);
    action.click(at(3000, 0, { wall: "south", along: 3000 }));
    action.move(at(3000, -500));
    expect(line(action.length(1200))).toMatchObject({ y: -1200, angle: 0, level: "floor" });
  });

  it("run through a point at a typed angle, or towards a second one", () => {
    const action = new DrawConstruction(NORTH_UP, MAIN, ONE_WALL);
    expect(action.click(at(1000, 1000)).degrees).toBe(true);
    expect(line(action.length(30))).toMatchObject({ x: 1000, y: 1000, angle: 30 });
    action.click(at(0, 0));
    expect(action.click(at(0.2, 0)).wrong).toContain("second place");
    expect(line(action.click(at(1000, 1000))).angle).toBeCloseTo(45, 9);
  });

  it("are turned back into the plan", () => {
    const action = new DrawConstruction({ dx: -1, dy: 0 }, MAIN, ONE_WALL);
    action.click(at(0, 0));
    // Looking west the sheet's right is north.
    expect(line(action.click(at(1000, 0))).angle).toBeCloseTo(90, 9);
  });

  it("begin again at Escape", () => {
    const action = new DrawConstruction(NORTH_UP, MAIN, ONE_WALL);
    action.click(at(0, 0));
    expect(action.key("Escape")?.overlay.dots).toHaveLength(0);
    expect(action.key("Escape")).toBeNull();
    expect(action.length(10).wrong).toContain("first");
  });
});

describe("bays", () => {
  const project = { ...emptyProject(), walls: [{ id: "south" }] } as unknown as Project;
  const place = (shape: "square" | "angled" | "bowed") =>
    new PlaceBay(project, ONE_WALL, { shape, width: 2400, out: 600 });

  it("have their middle under the pointer, and corners by their shape", () => {
    const angled = place("angled").click(at(4000, 0, { wall: "south", along: 4000 })).edits?.[0] as Of<"add_bay">;
    expect(angled).toMatchObject({ wall: "south", distance: 4000, width: 2400, out: 600, shape: "angled" });
    expect([angled.joints.length, angled.walls.length]).toEqual([4, 3]);
    const bowed = place("bowed").click(at(4000, 0, { wall: "south", along: 4000 })).edits?.[0] as Of<"add_bay">;
    expect([bowed.joints.length, bowed.walls.length]).toEqual([2, 1]);
  });

  it("take a typed distance from the start of the wall to their edge", () => {
    const action = place("square");
    expect(action.length(1000).wrong).toContain("wall first");
    action.move(at(4000, 0, { wall: "south", along: 4000 }));
    expect(made<"add_bay">(action.length(1000)).distance).toBe(2200);
  });

  it("need a wall, and show no preview where they do not fit", () => {
    expect(place("square").click(at(0, 900)).wrong).toContain("needs a wall");
    expect(place("square").move(at(200, 0, { wall: "south", along: 200 })).preview).toBeUndefined();
  });
});
