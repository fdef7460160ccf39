import { describe, expect, it } from "vitest";
import { Measure } from "./measure";
import type { Place } from "./types";

const at = (u: number, w: number): Place => ({ u, w, label: "" });

describe("measuring", () => {
  it("tells distance, both parts and the angle, and keeps nothing", () => {
    const action = new Measure();
    action.click(at(0, 0));
    const shown = action.click(at(3000, 4000));
    // 3-4-5 triangle; its angle is atan(4 / 3).
    expect(shown.overlay.label?.length).toBe(5000);
    expect(shown.overlay.closing).toMatchObject({ du: 3000, dw: 4000 });
    expect(shown.hint).toContain("53.13°");
    expect(shown.edits).toBeUndefined();
    expect(action.move(at(9, 9)).overlay.label?.length).toBe(5000);
  });

  it("measures again at the next click, and begins anew at Escape", () => {
    const action = new Measure();
    action.click(at(0, 0));
    action.click(at(1000, 0));
    expect(action.click(at(500, 500)).overlay.label).toBeUndefined();
    expect(action.key("Escape")?.overlay.dots).toHaveLength(0);
    expect(action.key("Escape")).toBeNull();
  });
});
