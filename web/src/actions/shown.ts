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
  ["strings", "strings of dimensions"],
  ["numbers", "opening numbers"],
  ["materials", "materials"],
  ["pitches", "pitch marks"],
  ["stepping", "risers and headroom"],
  ["grid", "grid"],
  ["names", "room names"],
  ["notes", "notes"],
];
/** Those of plans. */
export const PLAN_WORD_KINDS: [ShowKind, string][] = [
  ["numbers", "numbers of openings and members"],
  ["names", "names"],
  ["levels", "heights of the ground, steps"],
  ["stepping", "risers"],
  ["pitches", "falls of slopes"],
  ["heights", "heights of ridges"],
  ["widths", "lengths of hips and valleys"],
  ["strings", "strings of dimensions"],
  ["grid", "grid bubbles"],
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
      make_ups: false,
      stacks: false,
      lines: [],
      works: "shown",
      strings: [],
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
  return held ?? { key, dx: 0, dy: 0, hidden: false, text: null, rank: "usual", mark: null };
}

/** Lettering of a view moved, rewritten or hidden. */
export function annotationWith(project: Project, view: string, key: string, changes: Partial<Annotation>): Edit {
  return { kind: "set_annotation", view, annotation: { ...annotationOf(project, view, key), ...changes } };
}

export type StringShow = Schemas["StringShow"];

/** How a view shows a string of dimensions; plain where nothing was said. */
export function stringOf(project: Project, view: string, name: string): StringShow {
  const held = showOf(project, view).strings.find((found) => found.name === name);
  return held ?? { name, shown: "usual", away: 0, density: null, openings: null, walls: null };
}

/** A string of dimensions of a view, shown otherwise. */
export function stringWith(project: Project, view: string, name: string, changes: Partial<StringShow>): Edit {
  return { kind: "set_string", view, string: { ...stringOf(project, view, name), ...changes } };
}

/** The string that a figure belongs to, by its key; those of elevations have keys of their own. */
export function stringNamed(key: string): string | null {
  const [kind, side, row] = key.split(":");
  if (kind === "string" && row) return `${side}:${row}`;
  if (kind === "height") return side === "overall" ? "left:overall" : "left:levels";
  if (kind === "width") return ["left", "overall", "right"].includes(side) ? "bottom:overall" : "bottom:widths";
  return null;
}

/** All lettering of a view where it reads best. */
export function tidied(view: string): Edit {
  return { kind: "tidy_lettering", view };
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
  name: "a name",
  string: "a figure",
  fall: "a fall",
  ridge: "a ridge",
  length: "a length",
  spot: "a height of the ground",
  step: "a step",
  downpipe: "a downpipe",
  framing: "a number of a member",
  setting: "a height of the setting out",
  section: "a letter of a section",
  stepping: "steps",
  headroom: "headroom",
  note: "a note",
  makeup: "the number of a make-up",
};

/** Lettering in words, by its key. */
export function keyInWords(key: string): string {
  return SPOKEN[key.split(":")[0]] ?? "a word";
}
