import { describe, expect, it } from "vitest";
import { around, placeOf, snapped, zoomed } from "./frame";

const size = { width: 800, height: 600 };

describe("what is shown of a plan", () => {
  it("holds all points, with the drawing upright", () => {
    const frame = around(
      [
        [0, 0],
        [10000, 6000],
      ],
      size,
    );
    expect([frame.x, frame.y]).toEqual([5000, 3000]);
    expect(placeOf(frame, size, 400, 300)).toEqual([5000, 3000]);
    expect(placeOf(frame, size, 400, 0)[1]).toBeGreaterThan(6000);
  });

  it("keeps the place under the pointer while it zooms", () => {
    const frame = { x: 1000, y: 2000, k: 0.1 };
    const before = placeOf(frame, size, 150, 90);
    const after = placeOf(zoomed(frame, size, 150, 90, 1.7), size, 150, 90);
    expect(after[0]).toBeCloseTo(before[0], 6);
    expect(after[1]).toBeCloseTo(before[1], 6);
  });

  it("snaps to drawn ends within reach only", () => {
    const ends = [
      [0, 0],
      [100, 0],
    ] as const;
    expect(snapped(ends, [90, 5], 20)).toEqual([100, 0]);
    expect(snapped(ends, [50, 0], 20)).toEqual([50, 0]);
  });
});
