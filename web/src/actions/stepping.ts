import type { Edit } from "../api/client";
import { sectionDrag } from "./drag";
import type { ActionKey, Project, Snaps, Turn } from "./types";

/** Which way on the plan an arrow key goes: to the right, and up. */
const WAYS: Partial<Record<ActionKey, [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/** What an arrow key does to what is selected: an opening goes along its wall by a step, a section line across itself;
 * nothing where it does not go that way. */
export function stepEdits(
  project: Project,
  selection: string | null,
  snaps: Snaps,
  turn: Turn,
  key: ActionKey,
  by: number,
): Edit[] {
  const way = WAYS[key];
  if (!way) return [];
  const opening = project.openings?.find((held) => held.id === selection);
  if (opening && way[0]) {
    const line = snaps.lines.find((held) => held.wall === opening.wall);
    const right = line && line.u2 >= line.u1 ? 1 : -1;
    const along = way[0] * right * (opening.end === "start" ? 1 : -1);
    return [{ kind: "move_opening", opening: opening.id, distance: opening.distance + along * by }];
  }
  const section = project.sections?.find((held) => held.id === selection);
  if (!section) return [];
  // What goes along the line leaves it where it is; a line at an angle goes with either pair of keys by a whole step.
  const whole = (across: number) => (Math.abs(across) < by / 2 ? 0 : Math.sign(across) * by);
  const edits = sectionDrag(section.id, project, turn, whole, null)?.edits(way[0] * by, way[1] * by) ?? [];
  const went = (edit: Edit) =>
    edit.kind === "put_section" && (edit.section.x1 !== section.x1 || edit.section.y1 !== section.y1);
  return edits.some(went) ? edits : [];
}
