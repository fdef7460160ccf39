import { describe, expect, it } from "vitest";
import { ONE_WALL } from "./fixtures";
import { nearestLine, snapPlace } from "./snap";

const options = { mmPerPx: 30, grid: 10 };

describe("snapping", () => {
  it("prefers an end to the line it lies on, and says so", () => {
    expect(snapPlace(200, 60, ONE_WALL, options)).toMatchObject({ u: 0, w: 0, joint: "a", label: "end of wall" });
  });
  it("prefers a middle to the line", () => {
    expect(snapPlace(4150, 90, ONE_WALL, options)).toMatchObject({ u: 4000, w: 0, wall: "south", along: 4000 });
  });
  it("takes the line where nothing better is near", () => {
    expect(snapPlace(2500, 120, ONE_WALL, options)).toMatchObject({
      u: 2500,
      w: 0,
      wall: "south",
      label: "on the wall",
    });
  });
  it("prefers an end to a middle that is nearer", () => {
    const close = {
      ...ONE_WALL,
      points: [
        ...ONE_WALL.points,
        { u: 250, w: 0, kind: "middle" as const, label: "middle of wall", joint: null, wall: "x" },
      ],
    };
    expect(snapPlace(180, 0, close, options).joint).toBe("a");
  });
  it("keeps right angles from the last corner", () => {
    const place = snapPlace(3004, 5200, ONE_WALL, { ...options, from: { u: 3000, w: 2000 } });
    expect(place).toEqual({ u: 3000, w: 5200, label: "at right angles" });
  });
  it("lets go of right angles past a few degrees", () => {
    expect(snapPlace(4500, 5203, ONE_WALL, { ...options, from: { u: 3000, w: 2000 } })).toMatchObject({
      u: 4500,
      w: 5200,
      label: "free",
    });
  });
  it("closes on the action's own first corner before anything else", () => {
    const own = [{ u: 100, w: 0, label: "first corner" }];
    expect(snapPlace(40, 0, ONE_WALL, { ...options, own }).label).toBe("first corner");
  });
  it("reaches as far on screen whatever the zoom", () => {
    expect(snapPlace(200, 0, { ...ONE_WALL, lines: [] }, { mmPerPx: 3, grid: 10 }).label).toBe("free");
  });
  it("measures along the wall from its start", () => {
    expect(nearestLine(1234, -50, ONE_WALL, 100)).toMatchObject({ wall: "south", along: 1234, u: 1234, w: 0 });
    expect(nearestLine(-400, 0, ONE_WALL, 100)).toBeNull();
  });
  it("finds construction lines, where they cross, and right angles onto them", () => {
    const guides = [
      { u: 0, w: 3000, du: 1, dw: 0, id: "level", label: "a construction line" },
      { u: 2000, w: 0, du: 0, dw: 1, id: "upright", label: "a construction line" },
    ];
    const held = { ...ONE_WALL, guides };
    expect(snapPlace(5003, 3040, held, options)).toMatchObject({ u: 5003, w: 3000, guide: "level" });
    expect(snapPlace(2030, 2970, held, options)).toMatchObject({
      u: 2000,
      w: 3000,
      label: "where construction lines cross",
    });
    const square = snapPlace(6020, 3030, held, { ...options, from: { u: 6000, w: 1000 } });
    expect(square).toMatchObject({ u: 6000, w: 3000, guide: "level" });
  });
  it("keeps to right angles alone when told so", () => {
    const from = { u: 1000, w: 1000 };
    expect(snapPlace(40, 60, ONE_WALL, { ...options, from, square: true })).toMatchObject({ label: "at right angles" });
  });
});
