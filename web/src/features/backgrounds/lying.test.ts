import { describe, expect, it } from "vitest";
import { lyingEdit, ofBackground } from "./lying";

const SOUTH = { dx: 0, dy: 1 };
const EAST = { dx: -1, dy: 0 };

describe("lyingEdit", () => {
  it("waits until enough is said", () => {
    expect(lyingEdit("scale", "b", [[0, 0]], null, { length: 10 })).toBeNull();
    expect(
      lyingEdit(
        "scale",
        "b",
        [
          [0, 0],
          [1, 0],
        ],
        null,
      ),
    ).toBeNull();
    expect(
      lyingEdit(
        "lay",
        "b",
        [
          [0, 0],
          [1, 0],
        ],
        null,
      ),
    ).toBeNull();
  });

  it("counts east and north in a plan, whichever way it is turned", () => {
    const points = [
      [10, 20],
      [30, 20],
    ] as const;
    expect(lyingEdit("straighten", "b", points, SOUTH)).toMatchObject({
      points: [
        { x: 10, y: 20 },
        { x: 30, y: 20 },
      ],
    });
    expect(lyingEdit("straighten", "b", points, EAST)).toMatchObject({
      points: [
        { x: -20, y: 10 },
        { x: -20, y: 30 },
      ],
    });
  });

  it("moves by one pair of points, turns and sizes by two", () => {
    const points = [
      [0, 0],
      [5, 5],
      [10, 0],
      [5, 15],
    ] as const;
    expect(lyingEdit("lay", "b", points.slice(0, 2), null, { early: true })).toMatchObject({
      points: [{ x: 0, y: 0 }],
      onto: [{ x: 5, y: 5 }],
    });
    expect(lyingEdit("lay", "b", points, null)).toMatchObject({
      points: [
        { x: 0, y: 0 },
        { x: 10, y: 0 },
      ],
      onto: [
        { x: 5, y: 5 },
        { x: 5, y: 15 },
      ],
    });
    expect([0, 1, 2, 3].map((place) => ofBackground("lay", place))).toEqual([true, false, true, false]);
  });
});
