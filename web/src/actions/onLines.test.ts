import { describe, expect, it } from "vitest";
import type { Drag } from "./drag";
import { onLines } from "./onLines";
import { UnderLines } from "./underLines";

/** A window from (1000, 900) to (2200, 2100), over a drawing with a sill at 1000, a jamb at 1234.5 and a slope. */
const lines = new UnderLines([
  [
    [800, 1000],
    [2600, 1000],
  ],
  [
    [1234.5, 400],
    [1234.5, 2400],
  ],
  [
    [9000, 3000],
    [9900, 3000],
  ],
  [
    [800, 950],
    [2600, 990],
  ],
]);
const held = [1000, 900, 2200, 2100] as const;
const plain: Drag = { hint: "", edits: (du, dw) => [{ kind: "move_wall", wall: "w", dx: du, dy: dw }] as never };
/** As a window goes: by the greater part, never by both. */
const greater: Drag = { ...plain, way: (du, dw) => (Math.abs(dw) > Math.abs(du) ? "up" : "across") };

function dragged(du: number, dw: number, own = greater): { dx: number; dy: number; snapped?: string } {
  const drag = onLines(own, "along", 10, held, lines, 40);
  const [edit] = drag.edits(du, dw) as unknown as { dx: number; dy: number }[];
  return { dx: edit.dx, dy: edit.dy, snapped: drag.snapped };
}

describe("a drag over somebody else's drawing", () => {
  it("brings an edge of what is held onto a line, exactly", () => {
    expect(dragged(0, 83)).toMatchObject({ dx: 0, dy: 100 });
    expect(dragged(210, 4)).toMatchObject({ dx: 234.5, dy: 0 });
    expect(dragged(210, 4).snapped).toContain("a line of what lies under");
  });

  it("goes one way alone: a line beside it does not turn a drag up into one across", () => {
    expect(dragged(220, 230)).toMatchObject({ dx: 0, dy: 230, snapped: "" });
    expect(dragged(30, 83)).toMatchObject({ dx: 0, dy: 100 });
    expect(dragged(210, 300, plain)).toMatchObject({ dx: 234.5, dy: 0 });
  });

  it("goes by whole steps where no line is within reach, beside it or slanted", () => {
    expect(dragged(104, -47)).toMatchObject({ dx: 100, dy: 0, snapped: "" });
    expect(dragged(0, 893)).toMatchObject({ dy: 890 });
    expect(dragged(0, 57)).toMatchObject({ dy: 60 });
  });
});
