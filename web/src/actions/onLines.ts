import type { Handle, Mark } from "../api/client";
import type { Drag } from "./drag";
import type { UnderLines } from "./underLines";

/** Left, bottom, right and top of something in a pane (mm). */
export type Box = readonly [number, number, number, number];

/** Of an opening its clear size is brought onto lines, without what is set around it. */
const CLEAR = ["/reveal/", "/frame/"];

/** What all marks take up that one drag moves; of a window or a door what its reveal does. Nothing for what cannot be
 * brought onto a line. */
export function boxOf(handle: Handle, marks: readonly Mark[]): Box | null {
  // A ridge goes by whole pitches.
  if (handle.edit === "raise_ridge") return null;
  const moved = marks.filter((mark) => {
    const own = "handle" in mark ? mark.handle : null;
    return own?.edit === handle.edit && own.element === handle.element && own.field === handle.field;
  });
  const clear = CLEAR.map((role) => moved.filter(({ part }) => part?.includes(role))).find((held) => held.length > 0);
  const points = (clear ?? moved).flatMap((mark) =>
    "rings" in mark ? mark.rings.flat() : "path" in mark ? mark.path : [],
  );
  if (points.length === 0) return null;
  const us = points.map((point) => point[0]);
  const vs = points.map((point) => point[1]);
  return [Math.min(...us), Math.min(...vs), Math.max(...us), Math.max(...vs)];
}

/** A drag in a view over somebody else's drawing, that is not stepped itself: an edge of what is held comes to lie on a
 * line of that, where one is within reach; else it goes by whole steps. One way counts, and only that is brought there. */
export function onLines(
  drag: Drag,
  axis: Handle["axis"],
  grid: number,
  held: Box,
  lines: UnderLines,
  reach: number,
): Drag {
  const step = (value: number) => Math.round(value / grid) * grid;
  const onto: Drag = {
    ...drag,
    edits(du, dw) {
      const box: Box = [held[0] + du, held[1] + dw, held[2] + du, held[3] + dw];
      const up = drag.way ? drag.way(du, dw) === "up" : axis === "z";
      const off = up ? lines.level(box, reach) : lines.upright(box, reach);
      onto.snapped = off === null ? "" : "on: a line of what lies under the view";
      const by = off === null ? step(up ? dw : du) : (up ? dw : du) + off;
      return up ? drag.edits(0, by) : drag.edits(by, 0);
    },
  };
  return onto;
}
