import { describe, expect, it } from "vitest";
import { snapPlace } from "./snap";
import type { Snaps } from "./types";
import { UnderLines } from "./underLines";

const NOTHING: Snaps = { points: [], lines: [], axes: [], guides: [], sides: [], treatments: [] };

describe("lines under a plan", () => {
  const lines = new UnderLines([
    [
      [0, 0],
      [10_000, 0],
    ],
    [
      [10_000, 0],
      [10_000, 6000],
    ],
    [
      [4000, 3000],
      [4100, 3000],
    ],
  ]);

  it("finds ends, then feet, within the reach", () => {
    expect(lines.end(9960, 30, 100)).toEqual([10_000, 0]);
    expect(lines.end(5000, 30, 100)).toBeNull();
    expect(lines.foot(5000, 30, 100)).toEqual([5000, 0]);
    expect(lines.foot(4050, 3020, 50)).toEqual([4050, 3000]);
    expect(lines.foot(5000, 130, 100)).toBeNull();
  });

  it("finds them from far away too", () => {
    expect(lines.end(9000, 500, 4000)).toEqual([10_000, 0]);
  });

  it("is empty where nothing is drawn", () => {
    expect(new UnderLines([]).end(0, 0, 1000)).toBeNull();
  });

  it("wins over the grid, and not over right angles that nothing is near to", () => {
    const options = { mmPerPx: 10, grid: 50, under: lines };
    expect(snapPlace(9960, 30, NOTHING, options)).toMatchObject({ u: 10_000, w: 0, label: "end of a line below" });
    expect(snapPlace(5013, 40, NOTHING, options)).toMatchObject({ u: 5013, w: 0, label: "on a line below" });
    expect(snapPlace(5013, 1040, NOTHING, options)).toMatchObject({ u: 5000, w: 1050, label: "free" });
  });
});
