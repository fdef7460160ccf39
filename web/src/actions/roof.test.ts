import { describe, expect, it } from "vitest";
import type { Edit } from "../api/client";
import { dragOf } from "./drag";
import { emptyProject, MAIN, NORTH_UP, ONE_WALL } from "./fixtures";
import { Dormer, RoofOver, RoofRectangle } from "./roof";
import type { Place } from "./types";

const at = (u: number, w: number): Place => ({ u, w, label: "" });
type Proposal = Extract<Edit, { kind: "propose_roof" }>;

describe("roofs", () => {
  it("are proposed over the walls around one click", () => {
    const edit = new RoofOver(NORTH_UP, MAIN, "hip").click(at(4000, 3000)).edits?.[0] as Proposal;
    expect(edit).toMatchObject({ form: "hip", level: "floor", plate: "plate", x: 4000, y: 3000, outline: [] });
  });
  it("are drawn over a rectangle, its corners counter-clockwise", () => {
    const action = new RoofRectangle(emptyProject(), NORTH_UP, MAIN, "gable");
    action.click(at(12000, 6000));
    const edit = action.click(at(0, 0)).edits?.[0] as Proposal;
    expect(edit.outline?.map((corner) => [corner.x, corner.y])).toEqual([
      [0, 0],
      [12000, 0],
      [12000, 6000],
      [0, 6000],
    ]);
  });
  it("stand on slopes as dormers, with walls of their own", () => {
    const action = new Dormer(emptyProject(), NORTH_UP, MAIN, "single");
    action.click(at(3000, 1000));
    const edit = action.click(at(5400, 3500)).edits?.[0] as Extract<Edit, { kind: "add_dormer" }>;
    expect(edit).toMatchObject({ form: "single", x0: 3000, y0: 1000, x1: 5400, y1: 3500 });
    expect(new Set([edit.id, ...edit.joints, ...edit.walls]).size).toBe(8);
  });
  it("need width", () => {
    const action = new RoofRectangle(emptyProject(), NORTH_UP, MAIN, "gable");
    action.click(at(0, 0));
    expect(action.click(at(5000, 100)).wrong).toContain("at least 300 mm");
  });
  it("have edges that are dragged outward", () => {
    const snaps = {
      ...ONE_WALL,
      sides: [{ roof: "r", edge: "e2", number: 2, u: 0, w: 0, du: 1, dw: 0, length: 8000, kind: "gable" }],
    };
    const handle = { edit: "move_roof_edge", element: "r", field: "e2", axis: "across" as const };
    const drag = dragOf(handle, emptyProject(), snaps, NORTH_UP, 10, false);
    expect(drag?.edits(603, 77)).toEqual([{ kind: "move_roof_edge", roof: "r", edge: "e2", by: 600 }]);
    const ridge = { ...handle, edit: "move_ridge", field: "e2:e4" };
    expect(dragOf(ridge, emptyProject(), snaps, NORTH_UP, 10, false)?.edits(-250, 0)).toEqual([
      { kind: "move_ridge", roof: "r", edges: ["e2", "e4"], by: 250 },
    ]);
    expect(dragOf({ ...handle, field: "2" }, emptyProject(), snaps, NORTH_UP, 10, false)).toBeNull();
  });
});
