import { type PointerEvent, type RefObject, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { lengthOf } from "../../actions/arc";
import { type Drag, dragOf, letteringDrag, noteDrag, sectionDrag, stringDrag } from "../../actions/drag";
import { nameOf } from "../../actions/elements";
import { lengthText } from "../../actions/lengthText";
import { boxOf, onLines } from "../../actions/onLines";
import { stringNamed } from "../../actions/shown";
import { nearestLine, snapPlace } from "../../actions/snap";
import { stepEdits } from "../../actions/stepping";
import { type ActionKey, EMPTY, newId, type Overlay, type Place, type Snaps, toPlan } from "../../actions/types";
import type { Angle } from "../../actions/walls";
import type { Drawing, Edit } from "../../api/client";
import { useZoom } from "../../drawing/useZoom";
import { useClient, usePick, type Viewport } from "../../store";
import { useHeld } from "../../useProject";
import { type Grip, gripsOf } from "./grips";
import { nextUnder, toggled, under, within } from "./picking";
import { SELECT_HINT, usePlanAction } from "./usePlanAction";
import type { usePreview } from "./usePreview";
import { useUnderLines } from "./useUnderLines";
import { elementOf, type Panes, zoom } from "./viewport";

interface Props {
  box: RefObject<HTMLElement | null>;
  panes: Panes;
  viewport: Viewport;
  setViewport: (next: Viewport) => void;
  plan: Drawing | undefined;
  view: Drawing | undefined;
  snaps: Snaps;
  preview: ReturnType<typeof usePreview>;
}

export interface Entry {
  key: string;
  label: string;
  first: string;
  plain?: boolean;
  angles?: boolean;
  second?: string;
  enter: (text: string, mm: number, angle?: Angle, second?: number) => void;
}

type Gesture =
  | {
      kind: "pan";
      x: number;
      y: number;
      from: Viewport;
      pane: "plan" | "view";
      moved: boolean;
      element: string | null;
      /** The part or the element of the mark where it began. */
      of: string;
    }
  | {
      kind: "drag";
      x: number;
      y: number;
      drag: Drag;
      edits: Edit[] | null;
      moved: boolean;
      element: string;
      lettering?: { view: string; key: string };
    }
  | { kind: "joint"; joint: string; edits: Edit[] | null }
  | { kind: "box"; x: number; y: number; element: string | null };

interface Box {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
  touched: boolean;
}

const CLICK_PX = 4;
const SNAP_PX = 9;
/** A grid (mm) that is none. */
const EXACT = 0.01;
const KEYS: ActionKey[] = ["Enter", "Escape", "ArrowLeft", "ArrowRight", "ArrowUp", "ArrowDown", "a", "f"];
const TYPED = /^[\d.'"\-+]$/;

/** Tools that place something on a wall. */
const ON_WALLS = new Set(["window", "door", "niche", "bay", "wall-section"]);

/** Everything that pointer and keys do on the bench. */
export function useBenchPointer({ box, panes, viewport, setViewport, plan, view, snaps, preview }: Props) {
  const { state, views, storey, commit, change } = useHeld();
  const { tool, selection, also, tying, set } = usePick("tool", "selection", "also", "tying", "set");
  const units = state.project.units;
  const grid = units === "ft-in" ? 25.4 : 10;
  const turn = useMemo(() => ({ dx: plan?.look?.[0] ?? 0, dy: plan?.look?.[1] ?? 1 }), [plan?.look]);
  const below = useUnderLines(plan);
  const behind = useUnderLines(view);
  const runner = usePlanAction(turn, snaps, preview);
  const [hover, setHover] = useState<{ pane: "plan" | "view"; index: number } | null>(null);
  const [entry, setEntry] = useState<Entry | null>(null);
  const [dragging, setDragging] = useState(false);
  const [selecting, setSelecting] = useState<Box | null>(null);
  const gesture = useRef<Gesture | null>(null);

  const paneAt = useCallback((y: number): "plan" | "view" => (y < panes.planBottom ? "plan" : "view"), [panes]);
  const toPane = (x: number, y: number) => ({ u: (x - viewport.u) / viewport.k, w: (viewport.w - y) / viewport.k });

  function spot(event: { clientX: number; clientY: number }) {
    const rect = box.current?.getBoundingClientRect();
    return { x: event.clientX - (rect?.left ?? 0), y: event.clientY - (rect?.top ?? 0) };
  }

  /** Shift held: right angles only. */
  function placeAt(x: number, y: number, square: boolean): Place {
    const { u, w } = toPane(x, y);
    const mmPerPx = 1 / viewport.k;
    const action = runner.action as { from?: Place | null; own?: Place[] } | null;
    if (ON_WALLS.has(tool)) {
      const place = nearestLine(u, w, snaps, 24 * mmPerPx) ?? noWall(u, w, 24 * mmPerPx);
      return place.along === undefined ? place : stepped(place, grid);
    }
    if (tool === "room" || tool === "align") return { u, w, label: "" };
    return snapPlace(u, w, snaps, { mmPerPx, grid, from: action?.from, own: action?.own, square, under: below });
  }

  /** The place on the first wall of what lies under a place of a view, at its u; or on that of an opening. */
  function placeInView(stack: string[], u: number): Place {
    const walls = stack.map((id) => state.project.openings?.find((held) => held.id === id)?.wall ?? id);
    const line = walls.map((wall) => snaps.axes.find((held) => held.wall === wall)).find((held) => held);
    const wide = line ? line.u2 - line.u1 : 0;
    if (line?.bulge) return { u, w: 0, label: "a bent wall", elsewhere: "Pick a place on a bent wall on the plan." };
    if (!line || Math.abs(wide) < 1) return { u, w: 0, label: "no wall here" };
    const along = Math.min(Math.max((u - line.u1) / wide, 0), 1) * lengthOf(line);
    return stepped({ u, w: line.w1, label: "", wall: line.wall, along }, grid);
  }

  /** No wall of this storey: perhaps one of another is meant. */
  function noWall(u: number, w: number, reach: number): Place {
    const other = nearestLine(u, w, { lines: snaps.axes }, reach);
    const wall = state.project.walls?.find((held) => held.id === other?.wall);
    const floor = state.storeys.find((held) => held.level === wall?.base.level);
    if (!floor) return { u, w, label: "no wall here" };
    const elsewhere = `This wall stands on ${floor.name}. Choose its plan at the top of the pane first.`;
    return { u, w, label: `no wall of ${storey.name}: this one stands on ${floor.name}`, elsewhere };
  }

  function markAt(target: EventTarget | null): { pane: "plan" | "view"; index: number } | null {
    if (!(target instanceof Element)) return null;
    const index = target.closest("[data-i]")?.getAttribute("data-i");
    const pane = target.closest("[data-pane]")?.getAttribute("data-pane");
    return index && (pane === "plan" || pane === "view") ? { pane, index: Number(index) } : null;
  }

  function onPointerDown(event: PointerEvent) {
    const { x, y } = spot(event);
    const target = event.target as Element;
    if (target.closest("button, input, select, [role=separator], section, label")) return;
    if (entry) setEntry(null);
    if (event.button === 1 || (event.button === 0 && (tool === "select" || tool === "note" || paneAt(y) === "view"))) {
      (event.currentTarget as Element).setPointerCapture(event.pointerId);
      gesture.current = begin(event, x, y);
    }
  }

  function begin(event: PointerEvent, x: number, y: number): Gesture {
    const pane = paneAt(y);
    const found = markAt(event.target);
    const mark = found ? (found.pane === "plan" ? plan : view)?.marks[found.index] : undefined;
    const element = elementOf(mark?.part);
    const grip = (event.target as Element).getAttribute("data-grip");
    const step = (value: number) => Math.round(value / grid) * grid;
    if (event.button === 0 && grip && selection) {
      const [kind, which] = grip.split(":");
      if (kind === "joint") return { kind: "joint", joint: which, edits: null };
      const drag = sectionDrag(selection, state.project, turn, step, which as "start" | "end");
      if (drag) return { kind: "drag", x, y, drag, edits: null, moved: false, element: selection };
    }
    if (event.button === 0 && event.shiftKey && pane === "plan" && tool === "select")
      return { kind: "box", x, y, element };
    const shown = pane === "plan" ? plan : view;
    const note = state.project.notes?.find((held) => held.id === element);
    if (event.button === 0 && note && tool === "select" && shown)
      return { kind: "drag", x, y, drag: noteDrag(note, shown), edits: null, moved: false, element: note.id };
    if (event.button === 0 && mark?.annotation && tool === "select" && shown) {
      const lettering = { view: shown.name, key: mark.annotation };
      // A figure is moved by itself, by its line the whole string.
      const string = event.target instanceof SVGTextElement ? null : stringNamed(lettering.key);
      const drag = string
        ? stringDrag(state.project, shown, string)
        : letteringDrag(state.project, shown, lettering.key);
      return {
        kind: "drag",
        x,
        y,
        drag,
        edits: null,
        moved: false,
        // A note on a layer leads to its make-up, one on a piece to what it is of.
        element: ((pane === "plan" || ("feature" in mark && mark.feature === "note")) && element) || "",
        lettering,
      };
    }
    const handle = mark && "handle" in mark ? mark.handle : null;
    if (event.button === 0 && handle && element && tool === "select") {
      const taken = pane === "view" && view && behind ? boxOf(handle, view.marks) : null;
      const free = dragOf(handle, state.project, snaps, turn, taken ? EXACT : grid, pane === "view", event.altKey);
      const drag =
        free && taken && behind ? onLines(free, handle.axis, grid, taken, behind, SNAP_PX / viewport.k) : free;
      if (drag) return { kind: "drag", x, y, drag, edits: null, moved: false, element: handle.element };
    }
    return { kind: "pan", x, y, from: viewport, pane, moved: false, element, of: mark?.part ?? "" };
  }

  function onPointerMove(event: PointerEvent) {
    const { x, y } = spot(event);
    set({ at: { x, y } });
    const held = gesture.current;
    if (held?.kind === "box") return setSelecting({ x0: held.x, y0: held.y, x1: x, y1: y, touched: event.altKey });
    if (held) return follow(held, x, y);
    const target = event.target as Element;
    if (target.closest("button, input, select, section")) return setHover(null);
    const pane = paneAt(y);
    if (pane === "plan") {
      const place = placeAt(x, y, event.shiftKey);
      const raw = toPane(x, y);
      set({
        position: positionText(place, raw, runner.action !== null, units, turn),
        snapped: runner.action && place.label ? `on: ${place.label}` : "",
      });
      if (runner.action) runner.move(place);
    }
    const found = runner.action && pane === "plan" ? null : markAt(event.target);
    if (found?.index !== hover?.index || found?.pane !== hover?.pane) setHover(found);
  }

  function follow(held: Exclude<Gesture, { kind: "box" }>, x: number, y: number) {
    if (held.kind === "joint") {
      const place = snapPlace(toPane(x, y).u, toPane(x, y).w, snaps, { mmPerPx: 1 / viewport.k, grid, under: below });
      const plan = { x: place.u * turn.dy + place.w * turn.dx, y: -place.u * turn.dx + place.w * turn.dy };
      held.edits = [{ kind: "move_joint", joint: held.joint, ...plan }];
      setDragging(true);
      set({ snapped: `on: ${place.label}` });
      return preview.show(held.edits);
    }
    if (Math.hypot(x - held.x, y - held.y) > CLICK_PX) held.moved = true;
    if (!held.moved) return;
    if (held.kind === "pan") {
      const dx = x - held.x;
      const dy = y - held.y;
      setViewport({
        ...held.from,
        u: held.from.u + dx,
        ...(held.pane === "plan" ? { w: held.from.w + dy } : { v: held.from.v + dy }),
      });
      return;
    }
    setDragging(true);
    setHover(null);
    held.edits = held.drag.edits((x - held.x) / viewport.k, -(y - held.y) / viewport.k);
    set({ hint: held.drag.hint, snapped: held.drag.snapped ?? "" });
    preview.show(held.edits);
  }

  function onPointerUp(event: PointerEvent) {
    const { x, y } = spot(event);
    const held = gesture.current;
    gesture.current = null;
    setDragging(false);
    if (held) set({ hint: tool === "note" ? useClient.getState().hint : SELECT_HINT, snapped: "" });
    if (!held) {
      const target = event.target as Element;
      if (
        event.button === 0 &&
        runner.action &&
        paneAt(y) === "plan" &&
        !target.closest("button, input, select, section, [role=separator]")
      )
        runner.click(placeAt(x, y, event.shiftKey));
      return;
    }
    if (held.kind === "box") return boxed(held, x, y, event.altKey);
    if (held.kind === "pan") {
      if (held.moved) return;
      if (tool === "note") return askNote(held.pane, held.of, x, y);
      if (tool === "wall-section" && held.pane === "view")
        return runner.click(placeInView(under(event.clientX, event.clientY, plan, view), toPane(x, y).u));
      pick(event, held.element);
      runner.setWrong(null);
      return;
    }
    if (held.kind === "drag" && !held.moved && event.shiftKey && held.element)
      return set({ ...toggled(state.project, selection, also, held.element), message: null });
    if (held.kind === "drag" && !held.moved)
      return held.lettering
        ? set({ selection: held.element || null, lettering: held.lettering, message: null })
        : pick(event, held.element);
    if (held.edits)
      commit(held.edits, {
        failed: (error) => {
          preview.clear();
          runner.setWrong(error.message);
        },
      });
  }

  /** Selects what was clicked; a repeated click goes on to what lies under it, and says so. */
  function pick(event: PointerEvent, element: string | null) {
    const stack = under(event.clientX, event.clientY, plan, view);
    const repeated = element !== null && selection !== null && also.length === 0 && stack.includes(selection);
    const chosen = repeated ? nextUnder(stack, selection) : element;
    set({ selection: chosen, message: null });
    if (chosen && stack.length > 1) {
      const names = stack.map((id) => nameOf(state, id));
      set({ snapped: `${names[stack.indexOf(chosen)]}, ${stack.indexOf(chosen) + 1} of ${stack.length} here` });
    }
  }

  /** What a box holds; without a drag, one element more or less. */
  function boxed(held: { x: number; y: number; element: string | null }, x: number, y: number, touched: boolean) {
    setSelecting(null);
    if (Math.hypot(x - held.x, y - held.y) <= CLICK_PX) {
      if (held.element) set({ ...toggled(state.project, selection, also, held.element), message: null });
      return;
    }
    const [a, b] = [toPane(held.x, held.y), toPane(x, y)];
    const box = { u0: Math.min(a.u, b.u), u1: Math.max(a.u, b.u), y0: Math.min(a.w, b.w), y1: Math.max(a.w, b.w) };
    const [first, ...rest] = within(box, plan, state.project, touched);
    set({ selection: first ?? null, also: rest, message: null });
  }

  /** The words of a note on what was clicked; one that is being tied keeps its own. */
  function askNote(pane: "plan" | "view", of: string, x: number, y: number) {
    const shown = pane === "plan" ? plan : view;
    if (!shown) return;
    const { u, w } = toPane(x, y);
    const v = pane === "plan" ? w : (viewport.v - y) / viewport.k;
    const look_deg = views.find((wanted) => wanted.name === shown.name)?.look_deg;
    const tie = (id: string, text: string) =>
      change(
        { kind: "note", id, view: shown.name, of, u, v, look_deg, text },
        {
          done: () => set({ selection: id, also: [], tool: "select" }),
          failed: (error) => runner.setWrong(error.message),
        },
      );
    const tied = state.project.notes?.find((note) => note.id === tying);
    if (tied) return tie(tied.id, "");
    setEntry({
      key: `note ${x} ${y}`,
      label: "note on this place",
      first: "",
      plain: true,
      enter: (text) => {
        setEntry(null);
        tie(newId("note"), text);
      },
    });
  }

  useZoom(box, {
    held: viewport,
    zoomed: (from, by, x, y) => zoom(from, by, x, y, panes),
    set: setViewport,
    pinched: () => {
      gesture.current = null;
    },
  });

  const latest = useRef({ runner, selection, state, snaps, hover });
  latest.current = { runner, selection, state, snaps, hover };
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      const typing =
        event.target instanceof HTMLElement &&
        event.target.closest("input, textarea, select, [role=listbox], [role=separator]");
      if (typing || event.ctrlKey || event.metaKey || event.altKey) return;
      const { runner, selection, state } = latest.current;
      const elsewhere = event.target instanceof HTMLElement && event.target.closest("button, a, [tabindex]");
      // Tab opens what a running tool asks for; from a button it goes on among the buttons.
      const tab = event.key === "Tab" && !elsewhere;
      if (runner.action && runner.asks && (tab || TYPED.test(event.key))) {
        event.preventDefault();
        const action = runner.action;
        setEntry({
          key: `action ${Date.now()}`,
          label: runner.asks,
          first: tab ? "" : event.key,
          angles: runner.angles,
          second: runner.second,
          plain: runner.degrees,
          enter: (text, mm, angle, beside) => {
            const value = runner.degrees ? Number(text.replace(/°|deg$/u, "")) : mm;
            if (!Number.isFinite(value)) return runner.setWrong(`“${text}” is no angle: type degrees, such as 45.`);
            setEntry(null);
            runner.take(action.length(value, angle, beside));
          },
        });
        return;
      }
      const opening = state.project.openings?.find((held) => held.id === selection);
      const wall = state.project.walls?.find((held) => held.id === selection);
      if (!runner.action && (opening || wall) && /^[\d.]$/.test(event.key)) {
        event.preventDefault();
        const element = (opening ?? wall)?.id ?? "";
        setEntry({
          key: `entry ${Date.now()}`,
          label: opening ? "clear distance from the start of the wall" : "length of this wall",
          first: event.key,
          enter: (text) => {
            setEntry(null);
            change(
              { kind: "entry", element, field: opening ? "from_start" : "length", text },
              { failed: (error) => runner.setWrong(error.message) },
            );
          },
        });
        return;
      }
      const key = KEYS.find((name) => name === event.key);
      if (!key) return;
      const onButton = event.target instanceof HTMLElement && event.target.closest("button");
      if (onButton && key === "Enter") return;
      if (runner.action) {
        const outcome = runner.action.key(key);
        if (outcome) {
          event.preventDefault();
          if (!outcome.preview && !outcome.edits) preview.clear();
          return runner.take(outcome);
        }
      }
      if (key === "Escape")
        return set(
          runner.action || useClient.getState().tool !== "select"
            ? { tool: "select" }
            : { selection: null, lettering: null, message: null },
        );
      const stepped = stepEdits(state.project, selection, latest.current.snaps, turn, key, grid);
      if (stepped.length) {
        event.preventDefault();
        commit(stepped, { failed: (error) => runner.setWrong(error.message) });
      }
    };
    window.addEventListener("keydown", listen);
    return () => window.removeEventListener("keydown", listen);
  }, [change, commit, grid, preview, set, turn]);

  const grips = useMemo<Grip[]>(
    () => gripsOf(selection, state.project, snaps, turn),
    [selection, state.project, snaps, turn],
  );
  return {
    hover: dragging ? null : hover,
    overlay: runner.action ? runner.overlay : EMPTY,
    grips: tool === "select" ? grips : [],
    entry,
    closeEntry: () => setEntry(null),
    wrong: runner.wrong,
    box: selecting,
    dragging,
    dragLabel: runner.action ? overlayText(runner.overlay, units) : null,
    cursor: runner.action ? "crosshair" : "default",
    events: { onPointerDown, onPointerMove, onPointerUp, onPointerLeave: () => setHover(null) },
  };
}

function stepped(place: Place, grid: number): Place {
  const along = Math.round((place.along ?? 0) / grid) * grid;
  const off = along - (place.along ?? 0);
  return Math.abs(off) < 1e-6 ? place : { ...place, along };
}

/** What is read beside the pointer while drawing: the length, and what remains to the first corner. */
function overlayText({ label, closing }: Overlay, units: "ft-in" | "mm"): string | null {
  const length = label && `${label.word ? `${label.word} ` : ""}${lengthText(label.length, units)}`;
  const [across, deep] = closing?.words ?? ["across to close", "deep to close"];
  const rest = closing && [
    ...(Math.abs(closing.du) >= 1 ? [`${lengthText(Math.abs(closing.du), units)} ${across}`] : []),
    ...(Math.abs(closing.dw) >= 1 ? [`${lengthText(Math.abs(closing.dw), units)} ${deep}`] : []),
  ];
  return [length, ...(rest ?? [])].filter(Boolean).join("\n") || null;
}

/** Where the pointer is, from the origin of the plan: x to the east, y to the north, however the plan is turned. */
function positionText(
  place: Place,
  raw: { u: number; w: number },
  acting: boolean,
  units: "ft-in" | "mm",
  turn: { dx: number; dy: number },
): string {
  const { u, w } = acting ? place : raw;
  const { x, y } = toPlan(turn, u, w);
  return `from the origin  x ${lengthText(x, units)}  y ${lengthText(y, units)}`;
}
