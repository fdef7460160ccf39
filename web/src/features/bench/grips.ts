import type { Snaps } from "../../actions/types";
import type { useHeld } from "../../useProject";

/** Where something that is selected is taken hold of. */
export interface Grip {
  id: string;
  u: number;
  w: number;
}

/** Handles of what is selected: the ends of a wall or of a section line. */
export function gripsOf(
  selection: string | null,
  project: ReturnType<typeof useHeld>["state"]["project"],
  snaps: Snaps,
  turn: { dx: number; dy: number },
): Grip[] {
  const wall = project.walls?.find((held) => held.id === selection);
  if (wall)
    return snaps.points.flatMap((point) =>
      point.joint && (point.joint === wall.start || point.joint === wall.end)
        ? [{ id: `joint:${point.joint}`, u: point.u, w: point.w }]
        : [],
    );
  const line = project.sections?.find((held) => held.id === selection);
  if (!line) return [];
  const turned = (x: number, y: number) => ({ u: x * turn.dy - y * turn.dx, w: x * turn.dx + y * turn.dy });
  // Its end lies where its last step has brought it.
  const length = Math.hypot(line.x2 - line.x1, line.y2 - line.y1) || 1;
  const by = ((line.steps?.at(-1)?.ahead ?? 0) / length) * (line.look === "right" ? -1 : 1);
  return [
    { id: "end:start", ...turned(line.x1, line.y1) },
    { id: "end:end", ...turned(line.x2 - (line.y2 - line.y1) * by, line.y2 + (line.x2 - line.x1) * by) },
  ];
}
