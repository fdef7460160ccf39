import { beforeEach, describe, expect, it } from "vitest";
import type { Edit } from "../api/client";
import { MAIN, NORTH_UP } from "./fixtures";
import type { Outcome, Place } from "./types";
import { DrawWalls } from "./walls";

type Draw = Extract<Edit, { kind: "draw_walls" }>;

const at = (u: number, w: number, more: Partial<Place> = {}): Place => ({ u, w, label: "", ...more });
const drawn = (outcome: Outcome | null): Draw => outcome?.edits?.[0] as Draw;
const points = (edit: Draw) => edit.joints?.map((joint) => (joint.kind === "free" ? [joint.x, joint.y] : joint.wall));

describe("drawing walls", () => {
  let action: DrawWalls;
  beforeEach(() => {
    action = new DrawWalls(NORTH_UP, MAIN, "outer", "wall-lap");
  });

  it("closes on its first corner with one wall per side", () => {
    for (const place of [at(0, 0), at(8000, 0), at(8000, 6000), at(0, 6000)]) action.click(place);
    const edit = drawn(action.click(at(0, 0)));
    expect(points(edit)).toEqual([
      [0, 0],
      [8000, 0],
      [8000, 6000],
      [0, 6000],
    ]);
    expect(edit.walls).toHaveLength(4);
    expect(edit.chain?.[0]).toBe(edit.chain?.at(-1));
    expect(edit).toMatchObject({ status: "outer", make_up: "wall-lap", base: "floor", top: "plate" });
  });

  it("takes typed lengths in the direction of the arrow keys", () => {
    action.click(at(0, 0));
    for (const [key, length] of [
      ["ArrowRight", 12000],
      ["ArrowUp", 6500],
      ["ArrowLeft", 5000],
    ] as const) {
      action.key(key);
      action.length(length);
    }
    expect(points(drawn(action.key("Enter")))).toEqual([
      [0, 0],
      [12000, 0],
      [12000, 6500],
      [7000, 6500],
    ]);
  });

  it("takes a typed length towards the pointer", () => {
    action.click(at(0, 0));
    action.move(at(300, 400));
    action.length(5000);
    expect(points(drawn(action.key("Enter")))).toEqual([
      [0, 0],
      [3000, 4000],
    ]);
  });

  it("turns what is drawn back into the plan", () => {
    const east = new DrawWalls({ dx: -1, dy: 0 }, MAIN, "outer", "m");
    east.click(at(0, 0));
    east.click(at(5000, 0));
    expect(points(drawn(east.key("Enter")))).toEqual([
      [0, 0],
      [0, 5000],
    ]);
  });

  it("shares joints and stands on walls that it snaps to", () => {
    const inner = new DrawWalls(NORTH_UP, MAIN, "inner", "wall-inner");
    inner.click(at(2000, 0, { wall: "south", along: 2000 }));
    const edit = drawn(inner.click(at(2000, 6000, { joint: "corner" })));
    expect(edit.joints).toEqual([
      expect.objectContaining({ kind: "hosted", wall: "south", end: "start", distance: 2000 }),
    ]);
    expect(edit.chain?.[1]).toBe("corner");
    expect(edit.status).toBe("inner");
  });

  it("refuses a wall of no length in words, and goes on", () => {
    action.click(at(0, 0));
    expect(action.click(at(0.2, 0)).wrong).toContain("needs a length");
    expect(action.length(0).wrong).toContain("more than nothing");
    expect(action.length(-5).wrong).toContain("more than nothing");
    action.click(at(3000, 0));
    expect(points(drawn(action.key("Enter")))).toEqual([
      [0, 0],
      [3000, 0],
    ]);
  });

  it("asks for the first corner before a length", () => {
    expect(action.length(3000).wrong).toContain("first corner");
  });

  it("steps back one corner at each Escape, then ends", () => {
    action.click(at(0, 0));
    action.click(at(3000, 0));
    expect(action.key("Escape")?.overlay.dots).toHaveLength(1);
    expect(action.key("Escape")?.overlay.dots).toHaveLength(0);
    expect(action.key("Escape")).toBeNull();
  });

  it("previews the walls so far and asks for the length of the next", () => {
    action.click(at(0, 0));
    action.click(at(3000, 0));
    const shown = action.move(at(3000, 2000));
    expect(shown.asks).toBe("length of this wall");
    expect(shown.overlay.label).toMatchObject({ length: 2000 });
    expect(shown.preview?.[0]).toMatchObject({ kind: "draw_walls", walls: [expect.any(String)] });
  });
});
