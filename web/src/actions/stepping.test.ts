import { describe, expect, it } from "vitest";
import { emptyProject, NORTH_UP, ONE_WALL } from "./fixtures";
import { stepEdits } from "./stepping";
import type { Project } from "./types";

const CROSS = { id: "s", name: "A", x1: 0, y1: 0, x2: 0, y2: 8000, look: "left", depth: 1 };
const project = { ...emptyProject(), sections: [CROSS] } as unknown as Project;

describe("arrow keys", () => {
  it("step a section across itself, whichever way it is drawn", () => {
    const [right] = stepEdits(project, "s", ONE_WALL, NORTH_UP, "ArrowRight", 100);
    expect(right).toMatchObject({ kind: "put_section", section: { x1: 100, y1: 0, x2: 100, y2: 8000 } });
    const [left] = stepEdits(project, "s", ONE_WALL, NORTH_UP, "ArrowLeft", 100);
    expect(left).toMatchObject({ section: { x1: -100, x2: -100 } });
    // With the plan turned so that east is up, its line runs across the screen.
    const [up] = stepEdits(project, "s", ONE_WALL, { dx: 1, dy: 0 }, "ArrowUp", 100);
    expect(up).toMatchObject({ section: { x1: 100, x2: 100 } });
  });
  it("do nothing along its line, and to what does not step", () => {
    expect(stepEdits(project, "s", ONE_WALL, NORTH_UP, "ArrowUp", 100)).toEqual([]);
    expect(stepEdits(project, "ghost", ONE_WALL, NORTH_UP, "ArrowRight", 100)).toEqual([]);
    expect(stepEdits(project, "s", ONE_WALL, NORTH_UP, "Enter", 100)).toEqual([]);
  });
  it("move an opening along its wall", () => {
    const window = { id: "w1", wall: "south", end: "start", distance: 2000 };
    const walled = { ...emptyProject(), openings: [window] } as unknown as Project;
    const [moved] = stepEdits(walled, "w1", ONE_WALL, NORTH_UP, "ArrowRight", 50);
    expect(moved).toEqual({ kind: "move_opening", opening: "w1", distance: 2050 });
  });
});
