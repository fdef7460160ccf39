import { lazy, Suspense, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { tinykeys } from "tinykeys";
import type { Project, Storey } from "../../actions/types";
import { Refusal, Unreachable, type ViewWanted } from "../../api/client";
import { type Change, useChange, useResult, useSaving } from "../../api/queries";
import { LOOK, SPLIT, useClient, usePick } from "../../store";
import { Button } from "../../ui/Button";
import { Note } from "../../ui/Note";
import { useActions } from "../../useActions";
import { type Held, HeldContext } from "../../useProject";
import { BackgroundScreen } from "../backgrounds/BackgroundScreen";
import { BenchScreen } from "../bench/BenchScreen";
import { ParticularsPane } from "../particulars/ParticularsPane";
import { ReadingScreen } from "../reading/ReadingScreen";
import { SheetParts } from "../sheets/SheetParts";
import { SheetsScreen } from "../sheets/SheetsScreen";
import { HistoryPanel } from "./HistoryPanel";
import { LeftOut } from "./LeftOut";
import { MakeUpPanel } from "./MakeUpPanel";
import { Rail } from "./Rail";
import { StatusLine } from "./StatusLine";
import { TopStrip } from "./TopStrip";

const SolidScreen = lazy(() => import("../solid/SolidScreen"));
const ROOF_PLAN = "plan:roof";

/** One project: rail, strip, bench or sheets, particulars, status line. */
export function Workspace({ id, onLeave }: { id: string; onLeave: () => void }) {
  const {
    step,
    side,
    section,
    detail,
    elevation,
    beside,
    storey: level,
    selection,
    solid,
    roofAlone,
    framing,
    framed: deck,
    scale,
    set,
  } = usePick(
    "step",
    "side",
    "section",
    "detail",
    "elevation",
    "beside",
    "storey",
    "selection",
    "solid",
    "roofAlone",
    "framing",
    "framed",
    "scale",
    "set",
  );
  const [storeys, setStoreys] = useState<Storey[]>([]);
  const seen = useRef({ version: 0, storeys: 0 });
  const [looks, setLooks] = useState<Record<string, number>>({});
  useEffect(
    () =>
      set({
        selection: null,
        tool: "select",
        section: null,
        detail: null,
        elevation: null,
        beside: null,
        storey: null,
        sheet: null,
        step: "Elevations",
        side: "south",
        fill: "both",
        panel: null,
        solid: false,
      }),
    [set],
  );

  const viewName =
    step === "Sections" && section
      ? `section:${section}`
      : step === "Details" && detail
        ? `detail:${detail}`
        : `elevation:${elevation ?? side}`;
  const alone = step === "Roof" && roofAlone && ROOF_PLAN in looks;
  const [floors, setFloors] = useState<Record<string, string>>({});
  const floor = deck ?? floors[level ?? storeys[0]?.level ?? ""];
  const ofFloor = `plan:${framing}:${floor}`;
  const framed = step === "Plan" && framing && ofFloor in looks ? ofFloor : undefined;
  const planName = alone ? ROOF_PLAN : (framed ?? storeys.find((held) => held.level === level)?.plan ?? "plan");
  const views = useMemo<ViewWanted[]>(
    () => [
      { name: planName, look_deg: looks[viewName] ?? LOOK[side], scale },
      { name: viewName, scale },
      ...(beside && beside !== viewName && beside in looks ? [{ name: beside, scale }] : []),
    ],
    [planName, viewName, looks, side, beside, scale],
  );
  const result = useResult(id, views);
  const { mutate, error: unsaved } = useChange(id, views);
  const saving = useSaving(id);
  // What was drawn last stays while the server is away, whatever is asked for next.
  const last = useRef(result.data);
  if (result.data) last.current = result.data;
  const { state, bench } = result.data ?? last.current ?? {};

  useEffect(() => {
    if (!state) return;
    // Views kept from before a change may still be shown for a moment; they say nothing about what there is now.
    if (state.version < seen.current.version) return;
    setStoreys((held) => (JSON.stringify(held) === JSON.stringify(state.storeys) ? held : state.storeys));
    // A house begins with its plan.
    if (seen.current.version === 0 && !state.project.walls?.length) set({ step: "Plan", split: SPLIT.Plan });
    // A storey that was just added is the one to go on with.
    if (seen.current.storeys > 0 && state.storeys.length > seen.current.storeys)
      set({ storey: state.storeys.at(-1)?.level ?? null });
    seen.current = { version: state.version, storeys: state.storeys.length };
    setLooks((held) => {
      const next = Object.fromEntries(state.views.map((view) => [view.name, view.look_deg]));
      return JSON.stringify(held) === JSON.stringify(next) ? held : next;
    });
    setFloors((held) => {
      const next = Object.fromEntries((state.project.floors ?? []).map(({ level, id }) => [level, id]));
      return JSON.stringify(held) === JSON.stringify(next) ? held : next;
    });
    const { section: chosen, elevation: own, sheet, framed: shown } = useClient.getState();
    if (shown && !state.project.decks?.some((held) => held.id === shown)) set({ framed: null, framing: "" });
    if (own && !state.project.elevations?.some((held) => held.id === own)) set({ elevation: null });
    const sections = state.project.sections ?? [];
    // What is shown beside sections may be the setting out of a stair.
    if (!state.views.some((view) => view.name === `section:${chosen}`))
      set({ section: (sections[0] ?? state.project.wall_sections?.[0])?.id ?? null });
    const sheets = state.project.sheets ?? [];
    if (!sheets.some((held) => held.id === sheet)) set({ sheet: sheets[0]?.id ?? null });
  }, [state, set]);

  // What is selected is shown on the plan of its storey.
  // biome-ignore lint/correctness/useExhaustiveDependencies: only another selection turns to another storey
  useEffect(() => {
    const found = state && selection ? storeyOf(state.project, selection) : null;
    if (found && state?.storeys.some((held) => held.level === found)) set({ storey: found });
  }, [selection, set]);

  const change = useCallback<Held["change"]>(
    (what: Change, then) =>
      mutate(what, {
        onSuccess: () => {
          set({ message: null });
          then?.done?.();
        },
        onError: (error) => {
          if (then?.failed && !(error instanceof Refusal && error.problem.status === 409)) then.failed(error);
          else set({ message: { text: error.message, tone: "wrong" } });
        },
      }),
    [mutate, set],
  );
  const commit = useCallback<Held["commit"]>((edits, then) => change({ kind: "edits", edits }, then), [change]);

  if (!state || !bench)
    return (
      <div className="grid h-full place-items-center">
        {result.error ? (
          <div className="flex flex-col items-center gap-3">
            <Note>{result.error.message}</Note>
            <div className="flex gap-2">
              <Button onClick={() => result.refetch()}>Try again</Button>
              <Button onClick={onLeave}>All projects</Button>
            </div>
          </div>
        ) : (
          <Note tone="note">Opening the project and drawing its views…</Note>
        )}
      </div>
    );

  const storey = state.storeys.find((held) => held.level === level) ?? state.storeys[0];
  const held: Held = {
    id,
    state,
    bench,
    views,
    viewName,
    storey,
    saving,
    busy: result.isPlaceholderData,
    change,
    commit,
  };
  return (
    <HeldContext.Provider value={held}>
      <Keys />
      {/* biome-ignore lint/a11y/noStaticElementInteractions: plans are dropped anywhere; the action search opens them too */}
      <div
        className="relative grid h-full grid-cols-[84px_minmax(0,1fr)_296px] grid-rows-[44px_minmax(0,1fr)_28px]"
        onDragOver={(event) => event.preventDefault()}
        onDrop={(event) => {
          event.preventDefault();
          const file = event.dataTransfer.files[0];
          if (!file) return;
          // Where it is dropped says what it lies under; a plan in DXF may be read into walls first.
          const over = event.target instanceof Element ? event.target.closest("[data-bench]") : null;
          const box = over?.getBoundingClientRect();
          const onView = over && box && event.clientY - box.top > Number(over.getAttribute("data-bench"));
          const view = onView ? viewName : planName;
          const found = state.views.find(({ name }) => name === view);
          if (/\.ifc$/i.test(file.name) || (/\.dxf$/i.test(file.name) && !onView))
            set({ panel: "plan", planFile: file });
          else set({ panel: "backgrounds", under: found?.over_files ? view : planName, underFile: file });
        }}
      >
        <TopStrip
          reach={unsaved instanceof Unreachable ? "unsaved" : result.isError ? "unread" : "reached"}
          onLeave={onLeave}
        />
        <Rail />
        {step === "Sheets" ? (
          <SheetsScreen />
        ) : solid ? (
          <Suspense fallback={<main aria-label="Solid view" />}>
            <SolidScreen />
          </Suspense>
        ) : (
          <BenchScreen />
        )}
        <LeftOut />
        <ParticularsPane sheet={<SheetParts />} />
        <StatusLine />
        <HistoryPanel />
        <MakeUpPanel />
        <ReadingScreen />
        <BackgroundScreen />
      </div>
    </HeldContext.Provider>
  );
}

/** The level of the storey to which an element belongs. */
function storeyOf(project: Project, id: string): string | null {
  const opening = project.openings?.find((held) => held.id === id);
  const wall = project.walls?.find((held) => held.id === (opening?.wall ?? id));
  const room = project.rooms?.find((held) => held.id === id);
  const rung = project.rungs?.find((held) => held.id === id);
  const stair = project.stairs?.find((held) => held.id === id);
  const hole = project.floor_holes?.find((held) => held.id === id);
  const joisted = [...(project.floors ?? []), ...(project.decks ?? [])];
  const floor = joisted.find((held) => held.id === (hole?.floor ?? id));
  return wall?.base.level ?? room?.level ?? stair?.level ?? floor?.level ?? rung?.id ?? null;
}

/** Keys that work everywhere in a project. */
function Keys() {
  const actions = useActions();
  useEffect(() => {
    const run = (id: string) => () => actions.find((action) => action.id === id)?.run();
    return tinykeys(
      window,
      {
        "$mod+z": instead(run("undo")),
        "$mod+Shift+z": instead(run("redo")),
        Delete: run("remove"),
        Backspace: run("remove"),
        r: run("repeat"),
        j: run("turn-joists"),
        "/": instead(() => document.getElementById("action-search")?.focus()),
      },
      { ignore: typing },
    );
  }, [actions]);
  return null;
}

/** What a key does instead of what the browser does with it. */
function instead(does: () => void): (event: KeyboardEvent) => void {
  return (event) => {
    event.preventDefault();
    does();
  };
}

/** Whether a key belongs to a text or a list. */
function typing({ target }: KeyboardEvent): boolean {
  return target instanceof HTMLElement && target.closest("input, textarea, select, [role=listbox]") !== null;
}
