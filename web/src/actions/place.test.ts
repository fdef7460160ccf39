import { describe, expect, it } from "vitest";
import type { Edit } from "../api/client";
import { dragOf, sectionDrag } from "./drag";
import { emptyProject, MAIN, NORTH_UP, ONE_WALL } from "./fixtures";
import { lengthText } from "./lengthText";
import type { Kind } from "./openings";
import { DrawSection, nextNumber, PlaceOpening, PlaceRoom } from "./place";
import type { Outcome, Place, Project } from "./types";

const at = (u: number, w: number, more: Partial<Place> = {}): Place => ({ u, w, label: "", ...more });
type Of<K extends Edit["kind"]> = Extract<Edit, { kind: K }>;

function made<K extends Edit["kind"]>(outcome: Outcome): Of<K> {
  const edit = outcome.edits?.[0];
  if (!edit) throw new Error("nothing was made");
  return edit as Of<K>;
}

function withWindow(end: "start" | "end" = "start"): Project {
  const opening = { id: "w1", wall: "south", end, distance: 3000, width: 1200, number: "W1" };
  return { ...emptyProject(), openings: [opening] } as unknown as Project;
}

describe("placing", () => {
  it("puts a window on the wall under the pointer", () => {
    const action = new PlaceOpening(emptyProject(), "window");
    expect(action.click(at(50, 900)).edits).toBeUndefined();
    const edit = action.click(at(2500, 0, { wall: "south", along: 2500 })).edits?.[0] as Of<"put_opening">;
    expect(edit.opening).toMatchObject({ wall: "south", end: "start", distance: 2500, unit: "window", number: "W1" });
    expect((edit.opening.height ?? 0) + edit.opening.sill).toBeCloseTo(2100);
  });
  it("places a kind, whose sizes and number it follows, with its head in line", () => {
    const kind = {
      id: "sash",
      name: "sash",
      number: "W7",
      unit: "window" as const,
      design: { operation: "vertical" as const, width: 900, height: 1500 },
    } as unknown as Kind;
    const action = new PlaceOpening({ ...emptyProject(), kinds: [kind] } as Project, "window", kind);
    const edit = action.click(at(2500, 0, { wall: "south", along: 2500 })).edits?.[0] as Of<"put_opening">;
    expect(edit.opening).toMatchObject({ kind: "sash", sill: 600, unit: "window" });
    expect(edit.opening).not.toHaveProperty("width");
    action.move(at(0, 0, { wall: "south", along: 100 }));
    const typed = action.length(1000).edits?.[0] as Of<"put_opening">;
    expect(typed.opening.distance).toBe(1000 + 450);
  });
  it("numbers what it places", () => {
    expect(nextNumber("W", ["W1", "W2", "W4"])).toBe("W3");
  });
  it("names a room where one clicks", () => {
    const edit = new PlaceRoom(emptyProject(), NORTH_UP, MAIN).click(at(10, 20)).edits?.[0] as Of<"put_room">;
    expect(edit.room).toMatchObject({ name: "Room 1", x: 10, y: 20 });
  });
  it("refuses a section without length", () => {
    const section = new DrawSection(emptyProject(), NORTH_UP);
    section.click(at(0, 0));
    expect(section.click(at(10, 0)).wrong).toContain("two points");
    expect(section.key("Escape")?.overlay.dots).toHaveLength(0);
  });
  it("gives a section the next free letter", () => {
    const project = { ...emptyProject(), sections: [{ id: "s", name: "A" }] } as unknown as Project;
    const action = new DrawSection(project, NORTH_UP);
    action.click(at(0, -2000));
    const { section } = made<"put_section">(action.click(at(0, 8000)));
    expect(section).toMatchObject({ name: "B", x1: 0, y1: -2000, x2: 0, y2: 8000, look: "left" });
  });
});

describe("dragging", () => {
  const handle = { edit: "move_opening", element: "w1", field: "distance", axis: "along" as const };

  it("moves an opening along its wall in steps, and no farther than its ends", () => {
    const drag = dragOf(handle, withWindow(), ONE_WALL, NORTH_UP, 10, false);
    expect(drag?.edits(503, 9999)).toEqual([{ kind: "move_opening", opening: "w1", distance: 3500 }]);
    expect(drag?.edits(99999, 0)).toEqual([{ kind: "move_opening", opening: "w1", distance: 7400 }]);
    expect(drag?.edits(-99999, 0)).toEqual([{ kind: "move_opening", opening: "w1", distance: 600 }]);
  });
  it("follows an opening that is measured from the other end", () => {
    const drag = dragOf(handle, withWindow("end"), ONE_WALL, NORTH_UP, 10, true);
    expect(drag?.edits(500, 0)).toEqual([{ kind: "move_opening", opening: "w1", distance: 2500 }]);
  });
  it("moves a wall across itself only", () => {
    const wall = { edit: "move_wall", element: "south", field: "line", axis: "across" as const };
    expect(dragOf(wall, emptyProject(), ONE_WALL, NORTH_UP, 10, false)?.edits(700, 304)).toEqual([
      { kind: "move_wall", wall: "south", dx: 0, dy: 300, alone: false },
    ]);
  });
  it("moves a section line sideways, or one of its ends", () => {
    const line = { id: "s", name: "A", x1: 0, y1: 0, x2: 0, y2: 8000, look: "left", depth: 1 };
    const project = { ...emptyProject(), sections: [line] } as unknown as Project;
    const step = (value: number) => Math.round(value / 10) * 10;
    const whole = sectionDrag("s", project, NORTH_UP, step, null)?.edits(404, 777) as Of<"put_section">[];
    expect(whole[0].section).toMatchObject({ x1: 400, y1: 0, x2: 400, y2: 8000 });
    const end = sectionDrag("s", project, NORTH_UP, step, "end")?.edits(404, -1000) as Of<"put_section">[];
    expect(end[0].section).toMatchObject({ x1: 0, y1: 0, x2: 400, y2: 7000 });
  });
  it("knows no drag for what is gone", () => {
    expect(dragOf({ ...handle, element: "ghost" }, withWindow(), ONE_WALL, NORTH_UP, 10, false)).toBeNull();
  });
});

describe("lengths while drawing", () => {
  it("are read at a glance", () => {
    expect(lengthText(34 * 304.8, "ft-in")).toBe("34'-0\"");
    expect(lengthText(12.5 * 304.8 + 12.7, "ft-in")).toBe("12'-6 1/2\"");
    expect(lengthText(-304.8, "ft-in")).toBe("-1'-0\"");
    expect(lengthText(3599.6, "mm")).toBe("3600");
  });
});
