import { describe, expect, it } from "vitest";
import { spread } from "./spread";

describe("spread", () => {
  it("leaves what is clear where it is", () => {
    expect(spread([10, 50, 90], 28, 0, 200)).toEqual([10, 50, 90]);
  });
  it("parts what is close, evenly to both sides", () => {
    expect(spread([100, 102], 28, 0, 300)).toEqual([87, 115]);
  });
  it("keeps everything within the pane", () => {
    const placed = spread([180, 190, 195, 199], 20, 10, 200);
    expect(placed.at(-1)).toBeLessThanOrEqual(200);
    expect(placed.slice(1).every((at, index) => at - placed[index] >= 20 - 1e-9)).toBe(true);
    expect(spread([0, 1, 2], 20, 10, 200)[0]).toBeGreaterThanOrEqual(10);
  });
  it("starts at the top when there is no room for all", () => {
    expect(spread([5, 5, 5, 5], 20, 10, 30)[0]).toBe(10);
  });
});
