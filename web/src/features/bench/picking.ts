import type { Drawing, Schemas } from "../../api/client";
import { type Extent, elementOf, extentOf } from "./viewport";

type Project = Schemas["Project"];

/** The elements under a point of the screen, front ones first, each once. */
export function under(x: number, y: number, plan: Drawing | undefined, view: Drawing | undefined): string[] {
  const found: string[] = [];
  for (const target of document.elementsFromPoint(x, y)) {
    const index = target.closest("[data-i]")?.getAttribute("data-i");
    const pane = target.closest("[data-pane]")?.getAttribute("data-pane");
    if (!index || !pane) continue;
    const mark = (pane === "plan" ? plan : view)?.marks[Number(index)];
    const element = elementOf(mark?.part);
    if (element && !found.includes(element)) found.push(element);
  }
  return found;
}

/** The next one under the pointer: the front one, and at a repeated click the one behind what is selected. */
export function nextUnder(stack: string[], selected: string | null): string | null {
  const at = selected ? stack.indexOf(selected) : -1;
  return stack.length ? stack[(at + 1) % stack.length] : null;
}

/** The walls within a box of the plan, or when there are none the openings; `touched` counts those that reach in. */
export function within(box: Extent, plan: Drawing | undefined, project: Project, touched: boolean): string[] {
  const inside = (id: string) => {
    const own = extentOf(plan, (part) => part.split("/")[0] === id);
    if (!own) return false;
    return touched
      ? own.u0 < box.u1 && own.u1 > box.u0 && own.y0 < box.y1 && own.y1 > box.y0
      : own.u0 >= box.u0 && own.u1 <= box.u1 && own.y0 >= box.y0 && own.y1 <= box.y1;
  };
  const walls = (project.walls ?? []).map((wall) => wall.id).filter(inside);
  return walls.length ? walls : (project.openings ?? []).map((opening) => opening.id).filter(inside);
}

/** The collection in which an element is: only alike ones are selected together. */
function family(project: Project, id: string): string {
  if (project.walls?.some((held) => held.id === id)) return "walls";
  const opening = project.openings?.find((held) => held.id === id);
  return opening ? `openings ${opening.unit}` : id;
}

/** A selection with one more element, or without it when it is in there already. */
export function toggled(
  project: Project,
  selection: string | null,
  also: string[],
  id: string,
): { selection: string | null; also: string[] } {
  if (!selection || family(project, selection) !== family(project, id)) return { selection: id, also: [] };
  if (id === selection) return { selection: also[0] ?? null, also: also.slice(1) };
  if (also.includes(id)) return { selection, also: also.filter((held) => held !== id) };
  return { selection, also: [...also, id] };
}
