import { describe, expect, it } from "vitest";
import type { Edit } from "../api/client";
import { drawArea } from "./corners";
import { dragOf } from "./drag";
import { emptyProject, MAIN, NORTH_UP, ONE_WALL } from "./fixtures";
import { DrawStair } from "./stair";
import type { Place, Project } from "./types";

const at = (u: number, w: number): Place => ({ u, w, label: "" });
type Of<K extends Edit["kind"]> = Extract<Edit, { kind: K }>;

describe("drawing a stair", () => {
  it("takes its foot and its way up", () => {
    const action = new DrawStair(NORTH_UP, MAIN, "straight");
    expect(action.start().hint).toContain("first riser");
    expect(action.click(at(1000, 500)).edits).toBeUndefined();
    expect(action.move(at(3000, 500)).preview).toHaveLength(1);
    const edit = action.click(at(3000, 500)).edits?.[0] as Of<"draw_stair">;
    expect(edit).toMatchObject({ level: "floor", x1: 1000, y1: 500, x2: 3000, y2: 500, x3: null });
  });
  it("takes a third point where it turns, and a typed length to the turn", () => {
    const action = new DrawStair(NORTH_UP, MAIN, "winders");
    action.click(at(0, 0));
    expect(action.move(at(1500, 0)).asks).toContain("length");
    expect(action.length(2000).edits).toBeUndefined();
    const edit = action.click(at(2000, 1500)).edits?.[0] as Of<"draw_stair">;
    expect(edit).toMatchObject({ x2: 2000, y2: 0, x3: 2000, y3: 1500, turning: "winders" });
  });
  it("refuses a way without length and goes back point by point", () => {
    const action = new DrawStair(NORTH_UP, MAIN, "landing");
    action.click(at(0, 0));
    expect(action.click(at(10, 0)).wrong).toContain("lies apart");
    action.click(at(1500, 0));
    expect(action.key("Escape")?.hint).toContain("middle of its turn");
    expect(action.key("Escape")?.hint).toContain("first riser");
    expect(action.key("Escape")).toBeNull();
  });
});

describe("a hole", () => {
  const floored = {
    ...emptyProject(),
    floors: [{ id: "joists", name: "Joists", level: "floor", bearing: "plate", make_up: "m", span: "short" }],
  } as unknown as Project;
  it("is a rectangle in the floor of the storey", () => {
    const action = drawArea("hole", floored, NORTH_UP, MAIN);
    action.click(at(1000, 1000));
    const edit = action.click(at(2000, 3000)).edits?.[0] as Of<"put_floor_hole">;
    expect(edit.hole).toMatchObject({ floor: "joists", name: "Hole 1" });
    expect(edit.hole.corners).toEqual([
      [1000, 1000],
      [2000, 1000],
      [2000, 3000],
      [1000, 3000],
    ]);
  });
  it("needs a floor, and an area", () => {
    const bare = drawArea("hole", emptyProject(), NORTH_UP, MAIN);
    bare.click(at(0, 0));
    expect(bare.click(at(1000, 1000)).wrong).toContain("no floor");
    const flat = drawArea("hole", floored, NORTH_UP, MAIN);
    flat.click(at(0, 0));
    expect(flat.click(at(1000, 10)).wrong).toContain("lie apart");
  });
});

describe("a deck", () => {
  it("is drawn corner by corner, and closed at the first one", () => {
    const action = drawArea("deck", emptyProject(), NORTH_UP, MAIN, "corners");
    expect(action.start?.().hint).toContain("corner of the deck");
    for (const [x, y] of [
      [0, 0],
      [3000, 0],
      [3000, 2000],
      [1500, 3000],
    ])
      expect(action.click(at(x, y)).edits).toBeUndefined();
    const edit = action.click(at(0, 0)).edits?.[0] as Of<"draw_deck">;
    expect(edit.corners).toHaveLength(4);
    expect(edit.corners[3]).toEqual([1500, 3000]);
  });
  it("has three corners at least", () => {
    const action = drawArea("setDown", emptyProject(), NORTH_UP, MAIN, "corners");
    action.click(at(0, 0));
    action.click(at(1000, 0));
    expect(action.key?.("Enter")?.wrong).toContain("three corners");
  });
});

describe("dragging", () => {
  const stair = { id: "s", x: 0, y: 0, turn: 0, width: 900, going: null, level: "floor", upper: "up" };
  const hole = {
    id: "h",
    floor: "f",
    name: "Hole",
    corners: [
      [0, 0],
      [1000, 0],
      [1000, 500],
    ],
  };
  const project = { ...emptyProject(), stairs: [stair], floor_holes: [hole] } as unknown as Project;
  const drag = (edit: string, element: string, field: string) =>
    dragOf({ edit, element, field, axis: "free" }, project, ONE_WALL, NORTH_UP, 5, false);
  it("moves a stair, its going and a hole", () => {
    const moved = drag("move_stair", "s", "x")?.edits(103, 48)[0] as Of<"put_stair">;
    expect(moved.stair).toMatchObject({ x: 105, y: 50 });
    const longer = drag("stair_going", "s", "250:10:0")?.edits(100, 0)[0] as Of<"put_stair">;
    expect(longer.stair.going).toBe(260);
    const shifted = drag("move_hole", "h", "corners")?.edits(10, 0)[0] as Of<"put_floor_hole">;
    expect(shifted.hole.corners[1]).toEqual([1010, 0]);
  });
});
