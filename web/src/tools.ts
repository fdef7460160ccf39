import { type BaySize, PlaceBay } from "./actions/bay";
import { DrawConstruction } from "./actions/construction";
import { type AREAS, drawArea, LayFloor, PlaceHatch } from "./actions/corners";
import { Measure } from "./actions/measure";
import { DrawOutline } from "./actions/outline";
import { DrawBeam, DrawRail, DrawSection, PlaceOpening, PlacePost, PlaceRoom, PlaceWallSection } from "./actions/place";
import { Dormer, PutOnRoof, RoofOver, RoofRectangle } from "./actions/roof";
import { DrawFoundationStep, DrawGroundStep, PlaceGroundSpot } from "./actions/site";
import { DrawStair } from "./actions/stair";
import { Align, Mirror, Shift, TurnAbout } from "./actions/transform";
import type { PlanAction, Project, Snaps, Storey, Turn, Under } from "./actions/types";
import { DrawRectangle, DrawWalls } from "./actions/walls";
import type { Client, Step, Tool } from "./store";
import { usual } from "./usual";

/** What a tool works on: the project and the storey on the screen, what is chosen for it, and what is selected. */
export interface OnPlan {
  project: Project;
  frame: Turn;
  storey: Storey;
  /** What carries it: on a framing plan what lies under the floor, else the storey itself. */
  under: Under;
  snaps: Snaps;
  options: Options;
  /** What is selected and may be moved. */
  movable: string[];
}

export type Options = Pick<
  Client,
  "makeUps" | "kinds" | "shape" | "outline" | "bay" | "roof" | "onRoof" | "stair" | "copies" | "keep"
>;

export type Trade = "Walls" | "Openings" | "Structure" | "Floors" | "Words" | "Lines" | "Ground" | "Roofs" | "Views";

/** A tool: its name, where it stands, and what it does on the plan. */
export interface ToolKind {
  label: string;
  /** The steps at which it has a place in the row of tools, with those of its trade. */
  steps: Step[];
  trade?: Trade;
  /** What the search calls it. */
  words: string;
  /** It stays chosen when one thing is placed. */
  stays?: boolean;
  /** It does something to what is selected, and asks for that. */
  onSelection?: boolean;
  make?: (on: OnPlan) => PlanAction | null;
}

/** The bay that one begins with. */
export function bayOf(units: "ft-in" | "mm"): BaySize {
  return { shape: "angled", width: usual("bay_width", units), out: usual("bay_depth", units) };
}

export function isStraightWall(project: Project, ids: string[]): boolean {
  return ids.length === 1 && Boolean(project.walls?.some((wall) => wall.id === ids[0] && !wall.bulge));
}

function walls(status: "outer" | "inner"): (on: OnPlan) => PlanAction {
  return ({ project, frame, storey, options: { makeUps, shape } }) => {
    const held = (project.make_ups ?? []).filter((makeUp) => makeUp.use === "wall");
    const makeUp = makeUps[status] ?? held.at(status === "outer" ? 0 : -1)?.id ?? "";
    if (shape === "outline") {
      const plain = held.filter((own) => own.layers.length === 1);
      const own = plain.find((other) => other.id === makeUps[status]) ?? plain[0];
      return new DrawOutline(frame, storey, { status, makeUp: own?.id ?? makeUp });
    }
    const Draw = shape === "rectangle" ? DrawRectangle : DrawWalls;
    const saved = project.saved_walls?.find((own) => own.id === makeUps[status]);
    return new Draw(frame, storey, saved ? { status, makeUp: saved.make_up, saved: saved.id } : { status, makeUp });
  };
}

/** The tools that draw areas by two corners or by all. */
export const ANY_OUTLINE: string[] = ["deck", "setDown", "slab"];

function area(what: keyof typeof AREAS): (on: OnPlan) => PlanAction {
  return ({ project, frame, storey, options: { outline } }) =>
    drawArea(what, project, frame, storey, ANY_OUTLINE.includes(what) ? outline : "rectangle");
}

function opening(unit: "window" | "door" | "niche"): (on: OnPlan) => PlanAction {
  return ({ project, options: { kinds } }) => {
    const own = kinds[unit];
    const fitting = (project.kinds ?? []).filter((kind) => kind.unit === unit);
    // An empty choice is one of its own; no choice yet, the first kind.
    const kind = own === "" ? null : (fitting.find((held) => held.id === own) ?? fitting[0] ?? null);
    return new PlaceOpening(project, unit, kind);
  };
}

function moved(make: (on: OnPlan) => PlanAction | null): (on: OnPlan) => PlanAction | null {
  return (on) => (on.movable.length ? make(on) : null);
}

const EVERY: Step[] = ["Plan", "Heights", "Roof", "Elevations", "Sections"];

/** Every tool, in the order of the row of tools. */
export const TOOL_KINDS: Record<Tool, ToolKind> = {
  select: { label: "Select", steps: EVERY, words: "Select and drag" },
  "outer-wall": {
    label: "Outer wall",
    steps: ["Plan"],
    trade: "Walls",
    words: "Draw: outer wall",
    make: walls("outer"),
  },
  "inner-wall": {
    label: "Inner wall",
    steps: ["Plan"],
    trade: "Walls",
    words: "Draw: inner wall",
    make: walls("inner"),
  },
  bay: {
    label: "Bay",
    steps: ["Plan"],
    trade: "Walls",
    words: "Draw: bay",
    stays: true,
    make: ({ project, snaps, options }) => new PlaceBay(project, snaps, options.bay ?? bayOf(project.units)),
  },
  window: {
    label: "Window",
    steps: ["Plan", "Elevations"],
    trade: "Openings",
    words: "Draw: window",
    stays: true,
    make: opening("window"),
  },
  door: {
    label: "Door",
    steps: ["Plan", "Elevations"],
    trade: "Openings",
    words: "Draw: door",
    stays: true,
    make: opening("door"),
  },
  niche: {
    label: "Niche",
    steps: ["Plan"],
    trade: "Openings",
    words: "Draw: niche",
    stays: true,
    make: opening("niche"),
  },
  post: {
    label: "Post",
    steps: ["Plan"],
    trade: "Structure",
    words: "Draw: post",
    stays: true,
    make: ({ project, frame, under }) => new PlacePost(project, frame, under),
  },
  beam: {
    label: "Beam",
    steps: ["Plan"],
    trade: "Structure",
    words: "Draw: beam",
    stays: true,
    make: ({ project, frame, under }) => new DrawBeam(project, frame, under),
  },
  rail: {
    label: "Rail",
    steps: ["Plan"],
    trade: "Structure",
    words: "Draw: rail",
    stays: true,
    make: ({ project, frame, storey }) => new DrawRail(project, frame, storey),
  },
  stair: {
    label: "Stair",
    steps: ["Plan"],
    trade: "Floors",
    words: "Draw: stair",
    make: ({ frame, storey, options }) => new DrawStair(frame, storey, options.stair),
  },
  floor: {
    label: "Floor",
    steps: ["Plan"],
    trade: "Floors",
    words: "Draw: floor",
    make: ({ project, frame, storey }) => new LayFloor(project, frame, storey),
  },
  hole: {
    label: "Hole",
    steps: ["Plan"],
    trade: "Floors",
    words: "Draw: hole in the floor",
    make: area("hole"),
  },
  hatch: {
    label: "Loft hatch",
    steps: ["Plan"],
    trade: "Floors",
    words: "Draw: loft hatch",
    make: ({ frame, storey }) => new PlaceHatch(frame, storey),
  },
  deck: {
    label: "Deck",
    steps: ["Plan"],
    trade: "Floors",
    words: "Draw: deck",
    make: area("deck"),
  },
  setDown: {
    label: "Set-down",
    steps: ["Plan"],
    trade: "Structure",
    words: "Draw: set-down of a slab",
    make: area("setDown"),
  },
  slab: {
    label: "Porch slab",
    steps: ["Plan"],
    trade: "Structure",
    words: "Draw: porch slab",
    make: area("slab"),
  },
  room: {
    label: "Room",
    steps: ["Plan"],
    trade: "Words",
    words: "Draw: room",
    make: ({ project, frame, storey }) => new PlaceRoom(project, frame, storey),
  },
  construction: {
    label: "Construction",
    steps: ["Plan"],
    trade: "Lines",
    words: "Draw: construction line",
    stays: true,
    make: ({ frame, storey, snaps }) => new DrawConstruction(frame, storey, snaps),
  },
  grid: {
    label: "Grid line",
    steps: ["Plan"],
    trade: "Lines",
    words: "Draw: grid line",
    stays: true,
    make: ({ project, frame, storey, snaps }) =>
      new DrawConstruction(
        frame,
        storey,
        snaps,
        (project.grid ?? []).map((line) => line.name),
      ),
  },
  "ground-spot": {
    label: "Ground height",
    steps: ["Heights"],
    trade: "Ground",
    words: "Draw: ground height",
    stays: true,
    make: ({ frame }) => new PlaceGroundSpot(frame),
  },
  "ground-step": {
    label: "Ground step",
    steps: ["Heights"],
    trade: "Ground",
    words: "Draw: ground step",
    make: ({ project, frame }) => new DrawGroundStep(project, frame),
  },
  "foundation-step": {
    label: "Foundation step",
    steps: ["Heights"],
    trade: "Ground",
    words: "Draw: foundation step",
    make: ({ project, frame, storey }) => new DrawFoundationStep(project, frame, storey),
  },
  roof: {
    label: "Roof",
    steps: ["Roof"],
    trade: "Roofs",
    words: "Draw: roof",
    make: ({ project, frame, storey, options: { roof } }) => {
      if (roof.over === "walls") return new RoofOver(frame, storey, roof.form);
      const Draw = roof.over === "dormer" ? Dormer : RoofRectangle;
      return new Draw(project, frame, storey, roof.form);
    },
  },
  "on-roof": {
    label: "On the roof",
    steps: ["Roof"],
    trade: "Roofs",
    words: "Draw: chimney, roof window, pipe, vent or downpipe",
    stays: true,
    make: ({ frame, options }) => new PutOnRoof(frame, options.onRoof),
  },
  section: {
    label: "Section line",
    steps: ["Sections"],
    trade: "Views",
    words: "Draw: section line",
    make: ({ project, frame }) => new DrawSection(project, frame),
  },
  "wall-section": {
    label: "Wall section",
    steps: ["Elevations", "Sections"],
    trade: "Views",
    words: "Draw: wall section",
    make: ({ project }) => new PlaceWallSection(project),
  },
  note: { label: "Note", steps: ["Plan", "Roof", "Elevations", "Sections"], trade: "Words", words: "Draw: note" },
  move: {
    label: "Move",
    steps: [],
    words: "Move what is selected",
    onSelection: true,
    make: moved(({ frame, movable }) => new Shift(frame, { elements: movable, copies: 0 })),
  },
  copy: {
    label: "Copy",
    steps: [],
    words: "Copy what is selected",
    onSelection: true,
    make: moved(({ frame, movable, options }) => new Shift(frame, { elements: movable, copies: options.copies })),
  },
  mirror: {
    label: "Mirror",
    steps: [],
    words: "Mirror what is selected",
    onSelection: true,
    make: moved(
      ({ frame, movable, options }) => new Mirror(frame, { elements: movable, copies: options.keep ? 1 : 0 }),
    ),
  },
  turn: {
    label: "Turn",
    steps: [],
    words: "Turn what is selected",
    onSelection: true,
    make: moved(
      ({ frame, movable, options }) => new TurnAbout(frame, { elements: movable, copies: options.keep ? 1 : 0 }),
    ),
  },
  align: {
    label: "Align",
    steps: [],
    words: "Align the selected wall with a face",
    onSelection: true,
    make: ({ project, frame, movable }) => (isStraightWall(project, movable) ? new Align(frame, movable[0]) : null),
  },
  measure: { label: "Measure", steps: [], words: "Measure between two points", make: () => new Measure() },
};

export const TOOLS = Object.entries(TOOL_KINDS).map(([tool, kind]) => ({ tool: tool as Tool, ...kind }));

/** What can be done with what is selected on the plan: to align, that has to be one straight wall. */
export function motionsFor(project: Project, movable: string[]) {
  if (!movable.length) return [];
  return TOOLS.filter((kind) => kind.onSelection && (kind.tool !== "align" || isStraightWall(project, movable)));
}

/** The tools of a step by trade, in order; those that stand alone by themselves. */
export function toolsByTrade(step: Step): { trade: Trade | null; tools: typeof TOOLS }[] {
  const groups: { trade: Trade | null; tools: typeof TOOLS }[] = [];
  for (const kind of TOOLS.filter((held) => held.steps.includes(step))) {
    const own = groups.find((group) => group.trade !== null && group.trade === kind.trade);
    if (own) own.tools.push(kind);
    else groups.push({ trade: kind.trade ?? null, tools: [kind] });
  }
  return groups;
}
