import type { Edit, Schemas } from "../api/client";
import type { Project } from "./types";

/** An opening as it is stated: what it leaves out it has from its kind, or as usual. */
export type Opening = Extract<Edit, { kind: "put_opening" }>["opening"];
export type Kind = Schemas["Kind"];

/** The kind that an opening follows. */
export function kindOf(project: Project, opening: Opening): Kind | undefined {
  return project.kinds?.find((kind) => kind.id === opening.kind);
}

/** Width of an opening: its own, or that of its kind. */
export function widthOf(project: Project, opening: Opening): number {
  return opening.width ?? kindOf(project, opening)?.design.width ?? 0;
}

/** What is written beside an opening: its own number, or that of its kind. */
export function numberOf(project: Project, opening: Opening): string {
  return opening.number ?? kindOf(project, opening)?.number ?? "";
}
