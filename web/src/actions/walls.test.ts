import { beforeEach, describe, expect, it } from "vitest";
import type { Edit } from "../api/client";
import { MAIN, NORTH_UP } from "./fixtures";
import type { Outcome, Place } from "./types";
import { DrawRectangle, DrawWalls } from "./walls";

type Draw = Extract<Edit, { kind: "draw_walls" }>;

const at = (u: number, w: number, more: Partial<Place> = {}): Place => ({ u, w, label: "", ...more });
const drawn = (outcome: Outcome | null): Draw => outcome?.edits?.[0] as Draw;
const points = (edit: Draw) => edit.joints?.map((joint) => (joint.kind === "free" ? [joint.x, joint.y] : joint.wall));

describe("drawing walls", () => {
  let action: DrawWalls;
  beforeEach(() => {
    action = new DrawWalls(NORTH_UP, MAIN, { status: "outer", makeUp: "wall-lap" });
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
    const east = new DrawWalls({ dx: -1, dy: 0 }, MAIN, { status: "outer", makeUp: "m" });
    east.click(at(0, 0));
    east.click(at(5000, 0));
    expect(points(drawn(east.key("Enter")))).toEqual([
      [0, 0],
      [0, 5000],
    ]);
  });

  it("shares joints and stands on walls that it snaps to", () => {
    const inner = new DrawWalls(NORTH_UP, MAIN, { status: "inner", makeUp: "wall-inner" });
    inner.click(at(2000, 0, { wall: "south", along: 2000 }));
    const edit = drawn(inner.click(at(2000, 6000, { joint: "corner" })));
    expect(edit.joints).toEqual([
      expect.objectContaining({ kind: "tee", wall: "south", end: "start", distance: 2000 }),
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

describe("drawing arcs in a chain", () => {
  let action: DrawWalls;
  beforeEach(() => {
    action = new DrawWalls(NORTH_UP, MAIN, { status: "outer", makeUp: "wall-lap" });
    action.click(at(0, 0));
    action.key("a");
  });

  it("takes the end and then a point that the arc passes", () => {
    expect(action.click(at(6000, 0)).asks).toContain("rise");
    action.click(at(3000, -3000));
    // A half circle below a chord that runs right turns left: bulge 1.
    expect(drawn(action.key("Enter")).bulges?.[0]).toBeCloseTo(1, 9);
  });

  it("takes a typed rise, to the side of the pointer", () => {
    action.click(at(8000, 0));
    action.move(at(4000, 500));
    action.length(2000);
    // bulge = 2 rise / chord, negative when the arc bows to the left of its chord.
    expect(drawn(action.key("Enter")).bulges).toEqual([-0.5]);
  });

  it("refuses an arc of no rise in words, and goes on", () => {
    action.click(at(6000, 0));
    expect(action.click(at(3000, 0)).wrong).toContain("no rise");
    expect(action.length(0).wrong).toContain("no rise");
    expect(action.length(9000).wrong).toContain("comes round");
  });

  it("closes a round house from two half circles", () => {
    action.click(at(6000, 0));
    action.click(at(3000, -3000));
    action.click(at(0, 0));
    const edit = drawn(action.click(at(3000, 3000)));
    expect(edit.bulges?.map((bulge) => Math.round(bulge * 1e6) / 1e6)).toEqual([1, 1]);
    expect(edit.chain).toHaveLength(3);
  });

  it("takes the end of an arc back at Escape, and is straight again at A", () => {
    action.click(at(6000, 0));
    action.key("Escape");
    action.key("a");
    action.click(at(5000, 0));
    expect(drawn(action.key("Enter")).bulges).toEqual([]);
  });
});

describe("drawing with angles and sides", () => {
  it("turns by a typed angle, from the right of the sheet or from the last wall", () => {
    const action = new DrawWalls(NORTH_UP, MAIN, { status: "outer", makeUp: "m" });
    action.click(at(0, 0));
    action.length(1000, { degrees: 90, relative: false });
    action.length(1000, { degrees: -90, relative: true });
    action.length(2000, { degrees: 30, relative: false });
    const [, , third, fourth] = points(drawn(action.key("Enter"))) as number[][];
    expect(third).toEqual([1000, 1000]);
    expect(fourth[0]).toBeCloseTo(1000 + 2000 * Math.cos(Math.PI / 6), 5);
    expect(fourth[1]).toBeCloseTo(2000, 5);
  });

  it("flips the outside while drawing", () => {
    const action = new DrawWalls(NORTH_UP, MAIN, { status: "outer", makeUp: "m" });
    action.click(at(0, 0));
    action.click(at(1000, 0));
    expect(action.key("f")?.hint).toContain("flipped");
    expect(drawn(action.key("Enter")).flipped).toBe(true);
  });

  it("closes at Enter when one square side remains", () => {
    const action = new DrawWalls(NORTH_UP, MAIN, { status: "outer", makeUp: "m" });
    for (const [u, w] of [
      [0, 0],
      [9000, 0],
      [9000, 5000],
    ])
      action.click(at(u, w));
    expect(action.click(at(0, 5000)).hint).toContain("Enter closes the walls");
    const edit = drawn(action.key("Enter"));
    expect(edit.chain).toHaveLength(5);
    expect(edit.chain?.[0]).toBe(edit.chain?.at(-1));
  });

  it("closes a turned house likewise", () => {
    const action = new DrawWalls(NORTH_UP, MAIN, { status: "outer", makeUp: "m" });
    const [c, s] = [Math.cos(0.3), Math.sin(0.3)];
    for (const [u, w] of [
      [0, 0],
      [9000, 0],
      [9000, 5000],
      [0, 5000],
    ])
      action.click(at(u * c - w * s, u * s + w * c));
    expect(drawn(action.key("Enter")).chain).toHaveLength(5);
  });

  it("ends at Enter where no side of its own remains", () => {
    const action = new DrawWalls(NORTH_UP, MAIN, { status: "outer", makeUp: "m" });
    for (const [u, w] of [
      [0, 0],
      [9000, 0],
      [9000, 5000],
      [2000, 5000],
    ])
      action.click(at(u, w));
    expect(drawn(action.key("Enter")).chain).toHaveLength(4);
  });

  it("tells what remains to the first corner", () => {
    const action = new DrawWalls(NORTH_UP, MAIN, { status: "outer", makeUp: "m" });
    action.click(at(0, 0));
    action.click(at(9000, 0));
    action.click(at(9000, 5000));
    expect(action.move(at(3000, 5000)).overlay.closing).toEqual({ du: -3000, dw: -5000 });
  });
});

describe("drawing a rectangle", () => {
  it("is closed from two corners", () => {
    const action = new DrawRectangle(NORTH_UP, MAIN, { status: "outer", makeUp: "m" });
    action.click(at(1000, 1000));
    const edit = drawn(action.click(at(9000, 7000)));
    expect(points(edit)).toEqual([
      [1000, 1000],
      [9000, 1000],
      [9000, 7000],
      [1000, 7000],
    ]);
    expect(edit.chain?.[0]).toBe(edit.chain?.at(-1));
    expect(edit.walls).toHaveLength(4);
  });

  it("takes a typed width and then a typed depth, towards the pointer", () => {
    const action = new DrawRectangle(NORTH_UP, MAIN, { status: "outer", makeUp: "m" });
    expect(action.length(100).wrong).toContain("first corner");
    action.click(at(0, 0));
    action.move(at(-10, 10));
    expect(action.length(8000).asks).toContain("depth");
    expect(points(drawn(action.length(6000)))?.[2]).toEqual([-8000, 6000]);
  });

  it("takes both at once", () => {
    const action = new DrawRectangle(NORTH_UP, MAIN, { status: "outer", makeUp: "m" });
    action.click(at(0, 0));
    action.move(at(10, 10));
    expect(action.start().second).toContain("depth");
    expect(points(drawn(action.length(8000, undefined, 6000)))?.[2]).toEqual([8000, 6000]);
    action.click(at(0, 0));
    expect(action.length(8000, undefined, -1).wrong).toContain("more than nothing");
  });

  it("refuses a rectangle without depth", () => {
    const action = new DrawRectangle(NORTH_UP, MAIN, { status: "outer", makeUp: "m" });
    action.click(at(0, 0));
    expect(action.click(at(5000, 0)).wrong).toContain("width and a depth");
  });
});
