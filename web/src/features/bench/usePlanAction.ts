import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { type BaySize, PlaceBay } from "../../actions/bay";
import { DrawConstruction } from "../../actions/construction";
import { movables } from "../../actions/elements";
import { Measure } from "../../actions/measure";
import { DrawOutline } from "../../actions/outline";
import { DrawBeam, DrawRail, DrawSection, PlaceOpening, PlacePost, PlaceRoom } from "../../actions/place";
import { Dormer, PutOnRoof, RoofOver, RoofRectangle } from "../../actions/roof";
import { DrawGroundStep, PlaceGroundSpot } from "../../actions/site";
import { Align, Mirror, Shift, TurnAbout } from "../../actions/transform";
import type { Outcome, Place, PlanAction, Snaps, Turn } from "../../actions/types";
import { EMPTY } from "../../actions/types";
import { DrawRectangle, DrawWalls } from "../../actions/walls";
import type { Edit } from "../../api/client";
import { type Last, type Tool, useClient, usePick } from "../../store";
import { isStraightWall, MOTIONS, TOOLS } from "../../useActions";
import { useHeld } from "../../useProject";
import type { usePreview } from "./usePreview";

export const SELECT_HINT = "Point at a line for where it comes from; click selects, again what lies under; Shift adds.";

/** Tools that stay chosen when one thing is placed. */
const KEPT = new Set<Tool>([
  "window",
  "door",
  "niche",
  "bay",
  "construction",
  "grid",
  "ground-spot",
  "post",
  "rail",
  "beam",
  "on-roof",
]);

/** The bay that one begins with. */
export function bayOf(units: "ft-in" | "mm"): BaySize {
  return { shape: "angled", width: units === "ft-in" ? 2438.4 : 2400, out: units === "ft-in" ? 609.6 : 600 };
}

/** How edits of a tool are done again. */
function lastOf(edits: Edit[], tool: Tool): Last | null {
  const held = edits[0];
  if (held.kind === "transform") {
    const { motion, copies = 0 } = held;
    return { kind: "motion", label: MOTIONS.find((item) => item.tool === tool)?.label ?? "Move", motion, copies };
  }
  const label = TOOLS.find((item) => item.tool === tool)?.label;
  return label ? { kind: "tool", label, tool } : null;
}

/** Runs the chosen action: its outcome goes to overlay, preview, hint and, when it is over, into edits. */
export function usePlanAction(turn: Turn, snaps: Snaps, preview: ReturnType<typeof usePreview>) {
  const { state, storey, commit } = useHeld();
  const { tool, makeUps, kinds, shape, bay, roof, onRoof, copies, keep, set } = usePick(
    "tool",
    "makeUps",
    "kinds",
    "shape",
    "bay",
    "roof",
    "onRoof",
    "copies",
    "keep",
    "set",
  );
  const saved = useRef(state);
  saved.current = state;
  const lines = useRef(snaps);
  lines.current = snaps;
  const [overlay, setOverlay] = useState(EMPTY);
  const [asks, setAsks] = useState<string | null>(null);
  const [angles, setAngles] = useState(false);
  const [degrees, setDegrees] = useState(false);
  const [second, setSecond] = useState<string>();
  const [wrong, setWrong] = useState<string | null>(null);
  const [round, setRound] = useState(0);
  const { dx, dy } = turn;

  // biome-ignore lint/correctness/useExhaustiveDependencies: a new round begins the same action anew
  const action = useMemo<PlanAction | null>(() => {
    const held = saved.current.project;
    const walls = (held.make_ups ?? []).filter((makeUp) => makeUp.use === "wall");
    const frame = { dx, dy };
    if (tool === "outer-wall" || tool === "inner-wall") {
      const status = tool === "outer-wall" ? "outer" : "inner";
      const makeUp = makeUps[status] ?? walls.at(status === "outer" ? 0 : -1)?.id ?? "";
      if (shape === "outline") {
        const plain = walls.filter((held) => held.layers.length === 1);
        const own = plain.find((held) => held.id === makeUps[status]) ?? plain[0];
        return new DrawOutline(frame, storey, { status, makeUp: own?.id ?? makeUp });
      }
      const Draw = shape === "rectangle" ? DrawRectangle : DrawWalls;
      const saved = held.saved_walls?.find((own) => own.id === makeUps[status]);
      return new Draw(frame, storey, saved ? { status, makeUp: saved.make_up, saved: saved.id } : { status, makeUp });
    }
    if (tool === "window" || tool === "door" || tool === "niche") {
      const own = kinds[tool];
      const fitting = (held.kinds ?? []).filter((kind) => kind.unit === tool);
      return new PlaceOpening(
        held,
        tool,
        (own === "" ? null : fitting.find((kind) => kind.id === own)) ?? (own === "" ? null : fitting[0]) ?? null,
      );
    }
    if (tool === "bay") return new PlaceBay(held, lines.current, bay ?? bayOf(held.units));
    if (tool === "construction") return new DrawConstruction(frame, storey, lines.current);
    if (tool === "grid") {
      const names = (held.grid ?? []).map((line) => line.name);
      return new DrawConstruction(frame, storey, lines.current, names);
    }
    if (tool === "ground-spot") return new PlaceGroundSpot(frame);
    if (tool === "ground-step") return new DrawGroundStep(held, frame);
    const { selection, also } = useClient.getState();
    const elements = movables(saved.current, [selection, ...also]);
    if (elements.length) {
      if (tool === "move") return new Shift(frame, { elements, copies: 0 });
      if (tool === "copy") return new Shift(frame, { elements, copies });
      if (tool === "mirror") return new Mirror(frame, { elements, copies: keep ? 1 : 0 });
      if (tool === "turn") return new TurnAbout(frame, { elements, copies: keep ? 1 : 0 });
      if (tool === "align" && isStraightWall(held, elements)) return new Align(frame, elements[0]);
    }
    if (tool === "post") return new PlacePost(held, frame, storey);
    if (tool === "beam") return new DrawBeam(held, frame, storey);
    if (tool === "rail") return new DrawRail(held, frame, storey);
    if (tool === "measure") return new Measure();
    if (tool === "room") return new PlaceRoom(held, frame, storey);
    if (tool === "roof") {
      const { form, over } = roof;
      if (over === "walls") return new RoofOver(frame, storey, form);
      const Draw = over === "dormer" ? Dormer : RoofRectangle;
      return new Draw(held, frame, storey, form);
    }
    if (tool === "on-roof") return new PutOnRoof(frame, onRoof);
    if (tool === "section") return new DrawSection(held, frame);
    return null;
  }, [tool, makeUps, kinds, shape, bay, roof, onRoof, copies, keep, dx, dy, round, state.version, storey]);

  const take = useCallback(
    (outcome: Outcome | null, moved = false) => {
      if (!outcome) return;
      setOverlay(outcome.overlay);
      setAsks(outcome.asks ?? null);
      setAngles(outcome.angles ?? false);
      setDegrees(outcome.degrees ?? false);
      setSecond(outcome.second);
      // What is wrong stays in sight while the pointer moves on; the next click or key answers it.
      if (!moved) setWrong(outcome.wrong ?? null);
      set({ hint: outcome.hint });
      if (outcome.edits) {
        const done = outcome.done;
        const last = lastOf(outcome.edits, useClient.getState().tool);
        commit(outcome.edits, {
          done: () => {
            if (last) set({ last });
            if (!done) return;
            const after = useClient.getState();
            const keep = KEPT.has(after.tool);
            set({ selection: done.select, also: done.also ?? [], ...(keep ? {} : { tool: "select" as const }) });
            if (after.tool === "section" && done.select) set({ section: done.select });
          },
          failed: (error) => {
            preview.clear();
            setWrong(error.message);
            setRound((n) => n + 1);
          },
        });
      } else if (outcome.preview) preview.show(outcome.preview);
    },
    [commit, preview, set],
  );

  // biome-ignore lint/correctness/useExhaustiveDependencies: starts when the action changes, not when `take` does
  useEffect(() => {
    preview.clear();
    if (action) take(action.start(), true);
    else {
      setOverlay(EMPTY);
      setAsks(null);
      set({
        hint: tool === "note" ? "Click a part in the view below to write a note on it." : SELECT_HINT,
        snapped: "",
      });
    }
  }, [action, tool]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: another tool, another matter
  useEffect(() => setWrong(null), [tool]);

  return {
    action,
    overlay,
    asks,
    angles,
    degrees,
    second,
    wrong,
    setWrong,
    take,
    move: (place: Place) => action && take(action.move(place), true),
    click: (place: Place) => action && take(action.click(place)),
  };
}
