import { describe, expect, it } from "vitest";
import { hatchTile, pathData, pointsAlong } from "./path";

describe("points along a path", () => {
  it("reach to the crown of a half circle, on its side", () => {
    const points = pointsAlong([
      [0, 0, 1],
      [10, 0, 0],
    ]);
    expect(Math.min(...points.map(([, y]) => y))).toBeCloseTo(-5, 9);
    for (const [x, y] of points) expect(Math.hypot(x - 5, y)).toBeCloseTo(5, 9);
  });
});

describe("paths", () => {
  it("are straight where the bulge is nought, and closed when asked", () => {
    expect(
      pathData(
        [
          [0, 0, 0],
          [10, 0, 0],
          [10, 5, 0],
        ],
        true,
      ),
    ).toBe("M0 0L10 0L10 5L0 0Z");
    expect(
      pathData(
        [
          [0, 0, 0],
          [10, 0, 0],
        ],
        false,
      ),
    ).toBe("M0 0L10 0");
    expect(pathData([], true)).toBe("");
  });
  it("draw a half circle of bulge 1 with half its chord as radius", () => {
    expect(
      pathData(
        [
          [0, 0, 1],
          [10, 0, 0],
        ],
        false,
      ),
    ).toBe("M0 0A5 5 0 0 1 10 0");
    expect(
      pathData(
        [
          [0, 0, -1],
          [10, 0, 0],
        ],
        false,
      ),
    ).toContain("0 0 0 10 0");
  });
});

describe("hatch tiles", () => {
  const boards = { angle: 0, base: [0, 0], offset: [0, 150], dashes: [] } as never;
  const courses = { angle: 90, base: [0, 0], offset: [140, 170], dashes: [140, -140] } as never;

  it("repeat at the step of the pattern", () => {
    expect(hatchTile(boards)?.height).toBe(150);
    expect(hatchTile(courses)).toMatchObject({ width: 280, height: 340 });
  });
  it("are thinned out where lines would run together, and dashes left out", () => {
    expect(hatchTile(boards, 400)?.height).toBe(600);
    expect(hatchTile(courses, 400)).toBeNull();
  });
});
