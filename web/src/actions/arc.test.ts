import { describe, expect, it } from "vitest";
import { arcBetween, bulgeThrough, footOn, lengthOf, placeOn } from "./arc";

const HALF = { u1: 0, w1: 0, u2: 6000, w2: 0, wall: "bow", bulge: 1 };

describe("arcs in plan", () => {
  it("have the centre and radius of a half circle", () => {
    const arc = arcBetween({ u: 0, w: 0 }, { u: 6000, w: 0 }, 1);
    expect([arc.u, arc.w, arc.radius]).toEqual([3000, 0, 3000]);
    expect(lengthOf(HALF)).toBeCloseTo(Math.PI * 3000, 6);
  });

  it("have the radius of the circular segment: c² / 8h + h / 2", () => {
    const arc = arcBetween({ u: 0, w: 0 }, { u: 8000, w: 0 }, (2 * 2000) / 8000);
    expect(arc.radius).toBeCloseTo(5000, 6);
  });

  it("find the nearest place on themselves, and its direction", () => {
    const foot = footOn(HALF, 3000, -9000);
    expect(foot.along).toBeCloseTo((Math.PI * 3000) / 2, 6);
    expect([foot.u, foot.w].map(Math.round)).toEqual([3000, -3000]);
    expect([foot.du, foot.dw].map((value) => Math.round(value * 1e6) / 1e6 + 0)).toEqual([1, 0]);
    expect(footOn(HALF, -100, 100).along).toBeLessThan(0);
  });

  it("find places by distance", () => {
    const place = placeOn(HALF, (Math.PI * 3000) / 2);
    expect([place.u, place.w].map(Math.round)).toEqual([3000, -3000]);
    expect(placeOn({ ...HALF, bulge: 0 }, 1500)).toMatchObject({ u: 1500, w: 0, du: 1, dw: 0 });
  });

  it("pass three points; on a line they are none", () => {
    expect(bulgeThrough({ u: 0, w: 0 }, { u: 3000, w: -3000 }, { u: 6000, w: 0 })).toBeCloseTo(1, 9);
    expect(bulgeThrough({ u: 0, w: 0 }, { u: 4000, w: 2000 }, { u: 8000, w: 0 })).toBeCloseTo(-0.5, 9);
    expect(bulgeThrough({ u: 0, w: 0 }, { u: 3000, w: 0 }, { u: 6000, w: 0 })).toBe(0);
  });
});
