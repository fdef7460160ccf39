import { useMemo } from "react";
import { itemOf, movables } from "./actions/elements";
import { numberOf } from "./actions/openings";
import { annotationWith, showOf, showWith } from "./actions/shown";
import { newId, type Project } from "./actions/types";
import type { Change } from "./api/queries";
import { type Last, LOOK, type Side, SPLIT, type Step, useClient, usePick } from "./store";
import { motionsFor, TOOLS } from "./tools";
import { useHeld } from "./useProject";

/** Elements that the search shows by actions of their own, or that are part of others. */
const UNSEARCHED = new Set([
  "rungs",
  "joints",
  "sections",
  "wall_sections",
  "elevations",
  "shows",
  "sheets",
  "saved_walls",
]);

export interface Action {
  id: string;
  label: string;
  run: () => void;
  /** The step at which it has a button of its own beside the tools. */
  step?: Step;
}

export const STEPS: Step[] = ["Plan", "Heights", "Roof", "Elevations", "Sections", "Details", "Sheets"];
export const SIDES: Side[] = ["south", "east", "north", "west"];

/** A name for one more elevation: the word and the first number that is free. */
function nextName(project: Project, word: string): string {
  const names = new Set((project.elevations ?? []).map((held) => held.name));
  const number = Array.from({ length: names.size + 1 }, (_, k) => k + 1).find((n) => !names.has(`${word} ${n}`));
  return `${word} ${number}`;
}

/** Walls that join each other, from left to right as one sees them from outside; else in the order of selection. */
function inRow(project: Project, ids: string[]): string[] {
  const walls = ids.flatMap((id) => project.walls?.find((held) => held.id === id) ?? []);
  // Seen from outside, a wall with its outside at the right of its way runs from left to right.
  const ends = walls.map((wall) => ({
    id: wall.id,
    left: wall.outside === "right" ? wall.start : wall.end,
    right: wall.outside === "right" ? wall.end : wall.start,
  }));
  const first = ends.find((held) => !ends.some((other) => other.right === held.left)) ?? ends[0];
  const row = [first];
  for (let next = ends.find((held) => held.left === first.right); next && !row.includes(next); ) {
    row.push(next);
    const last: string = next.right;
    next = ends.find((held) => held.left === last);
  }
  return row.length === ends.length ? row.map((held) => held.id) : ids;
}

/** How openings that are selected together can be lined up with the first of them. */
const LINED = [
  { by: "heads", label: "Heads in line" },
  { by: "sills", label: "Sills in line" },
  { by: "middles", label: "One over the other" },
] as const;

/** What was done last, for what is selected now; null when it cannot be done to it. */
function repeated(last: Last, selection: string | null, movable: string[]): Change | "tool" | null {
  if (last.kind === "tool") return "tool";
  if (last.kind === "entry")
    return selection ? { kind: "entry", element: selection, field: last.field, text: last.text } : null;
  if (!movable.length) return null;
  const { motion, copies } = last;
  return { kind: "edits", edits: [{ kind: "transform", elements: movable, motion, copies, stem: newId("copy") }] };
}

/** Everything that can be done, by name: for the search, for keys, for buttons. */
export function useActions(): Action[] {
  const { state, views, viewName, change, commit } = useHeld();
  const { selection, also, lettering, setOut, allLines, solid, roofAlone, framing, last, set } = usePick(
    "selection",
    "also",
    "lettering",
    "setOut",
    "allLines",
    "solid",
    "roofAlone",
    "framing",
    "last",
    "set",
  );
  return useMemo(() => {
    const project = state.project;
    const top = state.storeys.at(-1);
    const actions: Action[] = [];
    if (state.undo) actions.push({ id: "undo", label: `Undo: ${state.undo}`, run: () => change({ kind: "undo" }) });
    if (state.redo) actions.push({ id: "redo", label: `Redo: ${state.redo}`, run: () => change({ kind: "redo" }) });
    const chosen = itemOf(state, selection);
    if (chosen?.removable)
      actions.push({
        id: "remove",
        label: "Remove what is selected",
        run: () =>
          commit([{ kind: "remove", elements: [chosen.id, ...also] }], { done: () => set({ selection: null }) }),
      });
    if (lettering)
      actions.push({
        id: "remove",
        label: "Hide the selected lettering",
        run: () =>
          commit([annotationWith(project, lettering.view, lettering.key, { hidden: true })], {
            done: () => set({ lettering: null }),
          }),
      });
    const shown = showOf(project, viewName);
    if (selection && chosen?.hideable)
      actions.push(
        {
          id: "hide",
          label: "Hide what is selected in this view",
          run: () => {
            const hidden = [...new Set([...shown.hidden, selection, ...also])];
            commit([showWith(project, viewName, { hidden })], { done: () => set({ selection: null, also: [] }) });
          },
        },
        {
          id: "alone",
          label: "Show nothing but what is selected in this view",
          run: () => commit([showWith(project, viewName, { alone: [selection, ...also] })]),
        },
      );
    const lined = [selection, ...also].filter((id): id is string =>
      Boolean(project.openings?.some((held) => held.id === id)),
    );
    if (lined.length > 1)
      actions.push(
        ...LINED.map(({ by, label }) => ({
          id: `line-up-${by}`,
          label,
          step: "Elevations" as const,
          run: () => commit([{ kind: "line_up_openings", openings: lined, by }]),
        })),
      );
    if (lined.length > 2)
      actions.push({
        id: "space-openings",
        label: "Equal spacing",
        step: "Elevations",
        run: () => commit([{ kind: "space_openings", openings: lined }]),
      });
    const unfolded = [selection, ...also].filter((id): id is string =>
      Boolean(project.walls?.some((held) => held.id === id)),
    );
    if (unfolded.length > 1)
      actions.push({
        id: "unfold",
        label: "Unfold these walls",
        step: "Elevations",
        run: () => {
          const elevation = {
            id: newId("elevation"),
            name: nextName(project, "Unfolded"),
            look:
              LOOK[useClient.getState().side] > 180
                ? LOOK[useClient.getState().side] - 360
                : LOOK[useClient.getState().side],
            room: null,
            walls: inRow(project, unfolded),
          };
          commit([{ kind: "put_elevation", elevation }], {
            done: () => set({ step: "Elevations", elevation: elevation.id, selection: elevation.id }),
          });
        },
      });
    const others = state.views.filter(({ name }) => /^(elevation|section):/.test(name) && name !== viewName);
    actions.push({
      id: "show-alike",
      label: "Show every elevation and section like this view",
      run: () => commit([{ kind: "copy_show", view: viewName, to: others.map(({ name }) => name) }]),
    });
    for (const { tool, words, steps } of TOOLS.filter((kind) => kind.steps.length))
      actions.push({
        id: `tool-${tool}`,
        label: words,
        run: () =>
          set({
            tool,
            step: steps.includes(useClient.getState().step) ? useClient.getState().step : steps[0],
            message: null,
          }),
      });
    const movable = movables(state, [selection, ...also]);
    for (const { tool, words } of motionsFor(project, movable))
      actions.push({
        id: tool,
        label: words,
        run: () => set({ tool, message: null, ...(tool === "copy" ? { copies: 1 } : {}) }),
      });
    const again = last && repeated(last, selection, movable);
    if (last && again)
      actions.push({
        id: "repeat",
        label: `Again: ${last.label}`,
        run: () =>
          again === "tool"
            ? last.kind === "tool" && set({ tool: last.tool, message: null })
            : change(again.kind === "entry" ? { ...again, others: also } : again),
      });
    actions.push({
      id: "measure",
      label: "Measure between two points",
      run: () => set({ tool: "measure", message: null }),
    });
    actions.push({
      id: "all-lines",
      label: allLines ? "Hide the projection lines of all corners" : "Show the projection lines of all corners",
      run: () => set({ allLines: !allLines, walked: null }),
    });
    actions.push({
      id: "set-out",
      label: setOut ? "Hide the set-out lines" : "Show the set-out lines",
      run: () => set({ setOut: !setOut }),
    });
    actions.push({
      id: "solid",
      label: solid ? "Back to the drawings" : "Solid view",
      step: "Roof",
      run: () => set({ solid: !solid }),
    });
    if (project.roofs?.length)
      actions.push({
        id: "roof-alone",
        label: roofAlone ? "On the floor plan" : "Roof plan",
        step: "Roof",
        run: () => set({ roofAlone: !roofAlone, step: "Roof", solid: false }),
      });
    if (project.floors?.length)
      for (const [kind, label] of [
        ["framing", "Framing plan"],
        ["structure", "Structural plan"],
        ["sheets", "Subfloor plan"],
      ] as const)
        actions.push({
          id: kind,
          label: framing === kind ? "Floor plan" : label,
          run: () =>
            set({ framing: framing === kind ? "" : kind, framed: null, step: "Plan", tool: "select", solid: false }),
        });
    for (const deck of project.decks ?? [])
      actions.push({
        id: `framing-${deck.id}`,
        label: `${deck.name}, framing plan`,
        run: () =>
          set({ framing: "framing", framed: deck.id, storey: deck.level, step: "Plan", tool: "select", solid: false }),
      });
    for (const stair of project.stairs ?? [])
      actions.push({
        id: `setting-${stair.id}`,
        label: `${stair.name}, setting out`,
        run: () => set({ step: "Sections", section: `setting:${stair.id}`, selection: stair.id, solid: false }),
      });
    const joisted = [...(project.floors ?? []), ...(project.decks ?? [])].find((held) => held.id === selection);
    if (joisted)
      actions.push({
        id: "turn-joists",
        label: `Turn the joists of ${joisted.name}`,
        run: () => commit([{ kind: "turn_joists", floor: joisted.id }]),
      });
    for (const step of STEPS)
      actions.push({
        id: `step-${step}`,
        label: `Go to ${step}`,
        run: () =>
          set({ step, tool: "select", split: SPLIT[step], ...(step === "Roof" ? { storey: top?.level } : {}) }),
      });
    for (const side of SIDES)
      actions.push({
        id: `side-${side}`,
        label: `See the ${side} side`,
        run: () =>
          set({
            side,
            elevation: null,
            step:
              useClient.getState().step === "Sections" || useClient.getState().step === "Sheets"
                ? "Elevations"
                : useClient.getState().step,
          }),
      });
    for (const held of project.elevations ?? [])
      actions.push({
        id: `elevation-${held.id}`,
        label: `See ${held.name}`,
        run: () => set({ step: "Elevations", elevation: held.id, selection: held.id }),
      });
    actions.push({
      id: "add-elevation",
      label: "Elevation at an angle",
      step: "Elevations",
      run: () => {
        const elevation = {
          id: newId("elevation"),
          name: nextName(project, "Elevation"),
          look: ((LOOK[useClient.getState().side] + 210) % 360) - 180,
          room: null,
          walls: [],
        };
        commit([{ kind: "put_elevation", elevation }], {
          done: () => set({ step: "Elevations", elevation: elevation.id, selection: elevation.id }),
        });
      },
    });
    for (const line of project.sections ?? [])
      actions.push({
        id: `section-${line.id}`,
        label: `See section ${line.name}`,
        run: () => set({ step: "Sections", section: line.id }),
      });
    for (const held of project.wall_sections ?? [])
      actions.push({
        id: `section-${held.id}`,
        label: `See wall section ${held.name}`,
        run: () => set({ step: "Sections", section: held.id }),
      });
    for (const sheet of project.sheets ?? [])
      actions.push({
        id: `sheet-${sheet.id}`,
        label: `Go to sheet ${sheet.number} ${sheet.name}`,
        run: () => set({ step: "Sheets", sheet: sheet.id, selection: sheet.id }),
      });
    actions.push({
      id: "usual-set",
      label: "Lay out the usual set of sheets",
      run: () => change({ kind: "usual" }, { done: () => set({ step: "Sheets" }) }),
    });
    actions.push({
      id: "add-sheet",
      label: "Add a sheet",
      run: () => {
        const sheets = project.sheets ?? [];
        const sheet = {
          id: newId("sheet"),
          number: `A${sheets.length + 1}`,
          name: "Drawings",
          paper: sheets[0]?.paper ?? "A3",
          placed: [],
        };
        commit([{ kind: "put_sheet", sheet }], {
          done: () => set({ step: "Sheets", sheet: sheet.id, selection: sheet.id }),
        });
      },
    });
    for (const rung of project.rungs ?? [])
      actions.push({ id: `rung-${rung.id}`, label: `Level: ${rung.name}`, run: () => set({ selection: rung.id }) });
    const named = [
      ...(project.openings ?? []).map((held) => ({ id: held.id, label: `${held.unit} ${numberOf(project, held)}` })),
      ...(project.walls ?? []).map((held, index) => ({ id: held.id, label: `${held.status} wall ${index + 1}` })),
      ...(project.roofs ?? []).map((held) => ({ id: held.id, label: held.name })),
      ...(project.rooms ?? []).map((held) => ({ id: held.id, label: `room ${held.name}` })),
      ...(project.foundations ?? []).map((held) => ({ id: held.id, label: held.name })),
      ...(project.floors ?? []).map((held) => ({ id: held.id, label: `joists of ${held.name}` })),
      ...(project.make_ups ?? []).map((held) => ({ id: held.id, label: `make-up ${held.name}` })),
      ...(project.kinds ?? []).map((held) => ({ id: held.id, label: `kind ${held.number} ${held.name}` })),
    ];
    // What has an action of its own, or no place to look at, is left out; everything else is called what it is.
    const known = new Set(named.map((own) => own.id));
    for (const item of state.elements) {
      if (!known.has(item.id) && !UNSEARCHED.has(item.kind)) named.push({ id: item.id, label: item.name });
    }
    for (const { id, label } of named)
      actions.push({ id: `select-${id}`, label: `Select ${label}`, run: () => set({ selection: id }) });
    if (top?.plate && project.make_ups?.some((held) => held.use === "floor"))
      actions.push({
        id: "add-storey",
        label: `Add a storey above ${top.name}`,
        step: "Heights",
        run: () => change({ kind: "entry", element: top.level, field: "add_storey", text: "" }),
      });
    for (const storey of state.storeys.length > 1 ? state.storeys : [])
      actions.push({
        id: `storey-${storey.level}`,
        label: `See the plan of ${storey.name}`,
        run: () => set({ storey: storey.level }),
      });
    if (project.construction?.length)
      actions.push({
        id: "clear-construction",
        label: "Clear the construction lines",
        run: () => commit([{ kind: "clear_construction" }]),
      });
    actions.push({ id: "plan", label: "Read a plan from a file: DXF or IFC", run: () => set({ panel: "plan" }) });
    for (const { name, title, over_files } of state.views)
      if (over_files && [views[0].name, viewName].includes(name))
        actions.push({
          id: `backgrounds-${name}`,
          label: `Backgrounds: a file under ${title}`,
          run: () => set({ panel: "backgrounds", under: name }),
        });
    actions.push({ id: "history", label: "History: what was done", run: () => set({ panel: "history" }) });
    actions.push({
      id: "make-ups",
      label: "Import a make-up from another project",
      run: () => set({ panel: "make-ups" }),
    });
    actions.push({
      id: "kinds",
      label: "Import a kind of window or door from another project",
      run: () => set({ panel: "make-ups" }),
    });
    actions.push({ id: "project", label: "Project: name, place, units", run: () => set({ selection: null }) });
    for (const format of ["xlsx", "csv"])
      actions.push({
        id: `export-openings-${format}`,
        label: `Save the schedule of windows and doors (${format.toUpperCase()})`,
        run: () => window.open(`/api/projects/${state.id}/schedules/openings/file?format=${format}`, "_blank"),
      });
    actions.push({
      id: "export-model",
      label: "Save the building as a model (IFC)",
      run: () => window.open(`/api/projects/${state.id}/model`, "_blank"),
    });
    actions.push({
      id: "export-file",
      label: "Save a copy as a project file",
      run: () => window.open(`/api/projects/${state.id}/file`, "_blank"),
    });
    return actions;
  }, [
    state,
    views,
    viewName,
    selection,
    also,
    lettering,
    setOut,
    allLines,
    solid,
    roofAlone,
    framing,
    last,
    change,
    commit,
    set,
  ]);
}
