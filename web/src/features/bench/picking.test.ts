import { describe, expect, it } from "vitest";
import type { Drawing, Schemas } from "../../api/client";
import { nextUnder, toggled, within } from "./picking";

const project = {
  walls: [
    { id: "south", status: "outer" },
    { id: "north", status: "outer" },
  ],
  openings: [
    { id: "w1", unit: "window", number: null, kind: "sash" },
    { id: "d1", unit: "door", number: "D1" },
  ],
  kinds: [{ id: "sash", number: "W4" }],
  roofs: [{ id: "roof", name: "Main roof" }],
} as unknown as Schemas["Project"];

const box = (part: string, x0: number, y0: number, x1: number, y1: number) => ({
  part,
  rings: [
    [
      [x0, y0, 0],
      [x1, y0, 0],
      [x1, y1, 0],
      [x0, y1, 0],
    ],
  ],
});

const plan = {
  marks: [
    box("south/wall//", 0, 0, 100, 5),
    box("north/wall//", 0, 95, 100, 100),
    box("w1/window//", 20, 0, 40, 5),
    box("d1/door//", 60, 0, 70, 5),
  ],
} as unknown as Drawing;

describe("picking", () => {
  it("walks through what lies under the pointer, and comes round", () => {
    expect(nextUnder(["w1", "south", "roof"], null)).toBe("w1");
    expect(nextUnder(["w1", "south", "roof"], "w1")).toBe("south");
    expect(nextUnder(["w1", "south", "roof"], "roof")).toBe("w1");
    expect(nextUnder([], "w1")).toBeNull();
  });

  it("boxes walls that are enclosed, or touched, and openings where there are no walls", () => {
    const around = (u0: number, y0: number, u1: number, y1: number) => ({ u0, y0, u1, y1 });
    expect(within(around(-1, -1, 101, 50), plan, project, false)).toEqual(["south"]);
    expect(within(around(-1, -1, 101, 96), plan, project, true)).toEqual(["south", "north"]);
    expect(within(around(15, -1, 75, 6), plan, project, false)).toEqual(["w1", "d1"]);
    expect(within(around(200, 200, 300, 300), plan, project, true)).toEqual([]);
  });

  it("adds alike ones, takes them off again, and begins anew with others", () => {
    expect(toggled(project, "south", [], "north")).toEqual({ selection: "south", also: ["north"] });
    expect(toggled(project, "south", ["north"], "north")).toEqual({ selection: "south", also: [] });
    expect(toggled(project, "south", ["north"], "south")).toEqual({ selection: "north", also: [] });
    expect(toggled(project, "south", ["north"], "w1")).toEqual({ selection: "w1", also: [] });
    expect(toggled(project, null, [], "w1")).toEqual({ selection: "w1", also: [] });
  });
});
