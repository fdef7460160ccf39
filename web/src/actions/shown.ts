import type { Edit, Schemas } from "../api/client";
import { newId, type Project } from "./types";

export type Show = Schemas["ViewShow"];
export type ShowKind = Show["kinds"][number];
export type Annotation = Schemas["Annotation"];

/** What a view can leave out as a whole, in words: parts, then lettering. */
export const PART_KINDS: [ShowKind, string][] = [
  ["walls", "walls"],
  ["openings", "windows and doors"],
  ["trims", "trims and boards"],
  ["roofs", "roofs"],
  ["gutters", "gutters and downpipes"],
  ["on_roofs", "chimneys and vents"],
  ["posts", "posts and beams"],
  ["outdoors", "steps and rails"],
  ["floors", "floors and ceilings"],
  ["stairs", "stairs"],
  ["foundations", "foundations"],
];
export const WORD_KINDS: [ShowKind, string][] = [
  ["levels", "level marks"],
  ["heights", "string of heights"],
  ["widths", "widths"],
  ["numbers", "opening numbers"],
  ["materials", "materials"],
  ["pitches", "pitch marks"],
  ["stepping", "risers and headroom"],
  ["grid", "grid"],
  ["names", "room names"],
  ["notes", "notes"],
];
const WORDS = new Map([...PART_KINDS, ...WORD_KINDS]);

/** A kind in words. */
export function kindInWords(kind: ShowKind): string {
  return WORDS.get(kind) ?? kind;
}

/** How a view is shown; plain where nothing was said yet. */
export function showOf(project: Project, view: string): Show {
  return (
    project.shows?.find((held) => held.view === view) ?? {
      id: newId("show"),
      view,
      hidden: [],
      alone: [],
      kinds: [],
      annotations: [],
      materials: "names",
      tone: false,
      shade: false,
      thin: false,
      works: "shown",
    }
  );
}

/** A view shown otherwise in some respect. */
export function showWith(project: Project, view: string, changes: Partial<Show>): Edit {
  return { kind: "put_show", show: { ...showOf(project, view), ...changes } };
}

/** What was changed of some lettering of a view; plain where nothing was. */
export function annotationOf(project: Project, view: string, key: string): Annotation {
  const held = showOf(project, view).annotations.find((found) => found.key === key);
  return held ?? { key, dx: 0, dy: 0, hidden: false, text: null };
}

/** Lettering of a view moved, rewritten or hidden. */
export function annotationWith(project: Project, view: string, key: string, changes: Partial<Annotation>): Edit {
  return { kind: "set_annotation", view, annotation: { ...annotationOf(project, view, key), ...changes } };
}

const SPOKEN: Record<string, string> = {
  level: "a level mark",
  height: "a height",
  width: "a width",
  fold: "a fold",
  number: "an opening number",
  material: "a material",
  legend: "a row of the legend",
  pitch: "a pitch mark",
  grid: "a grid bubble",
  name: "a room name",
};

/** Lettering in words, by its key. */
export function keyInWords(key: string): string {
  return SPOKEN[key.split(":")[0]] ?? "a word";
}
