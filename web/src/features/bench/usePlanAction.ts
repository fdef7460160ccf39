import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { movables } from "../../actions/elements";
import { carrying } from "../../actions/place";
import type { Outcome, Place, PlanAction, Snaps, Turn } from "../../actions/types";
import { EMPTY } from "../../actions/types";
import type { Edit } from "../../api/client";
import { type Last, type Tool, useClient, usePick } from "../../store";
import { TOOL_KINDS } from "../../tools";
import { useHeld } from "../../useProject";
import type { usePreview } from "./usePreview";

const NOTE_HINT = "Click on what the note points at: a part, a level, a grid line, or a free place. Escape ends it.";
export const SELECT_HINT = "Point at a line for where it comes from; click selects, again what lies under; Shift adds.";

/** How edits of a tool are done again. */
function lastOf(edits: Edit[], tool: Tool): Last | null {
  const held = edits[0];
  if (held.kind === "transform") {
    const { motion, copies = 0 } = held;
    return { kind: "motion", label: TOOL_KINDS[tool].label, motion, copies };
  }
  return { kind: "tool", label: TOOL_KINDS[tool].label, tool };
}

/** Runs the chosen action: its outcome goes to overlay, preview, hint and, when it is over, into edits. */
export function usePlanAction(turn: Turn, snaps: Snaps, preview: ReturnType<typeof usePreview>) {
  const { state, storey, commit } = useHeld();
  const { tool, framing, framed, set } = usePick("tool", "framing", "framed", "set");
  const options = usePick("makeUps", "kinds", "shape", "outline", "bay", "roof", "onRoof", "stair", "copies", "keep");
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
    const { selection, also } = useClient.getState();
    return (
      TOOL_KINDS[tool].make?.({
        project: saved.current.project,
        frame: { dx, dy },
        storey,
        under: framing ? carrying(saved.current.project, saved.current.storeys, storey, framed) : storey,
        snaps: lines.current,
        options,
        movable: movables(saved.current, [selection, ...also]),
      }) ?? null
    );
  }, [tool, options, dx, dy, round, state.version, storey, framing, framed]);

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
            const keep = TOOL_KINDS[after.tool].stays;
            set({ selection: done.select, also: done.also ?? [], ...(keep ? {} : { tool: "select" as const }) });
            if (after.tool === "section" && done.select) set({ section: done.select });
            if (after.tool === "wall-section" && done.select)
              set({ step: "Sections", section: done.select, fill: "view" });
          },
          failed: (error) => {
            preview.clear();
            setWrong(error.message);
            setRound((n) => n + 1);
          },
        });
      } else if (outcome.done) set({ selection: outcome.done.select, also: [], tool: "select" });
      else if (outcome.preview) preview.show(outcome.preview);
    },
    [commit, preview, set],
  );

  // biome-ignore lint/correctness/useExhaustiveDependencies: starts when the action changes, not when `take` does
  useEffect(() => {
    preview.clear();
    if (tool !== "note") set({ tying: null });
    if (action) take(action.start(), true);
    else {
      setOverlay(EMPTY);
      setAsks(null);
      set({
        hint: tool === "note" ? NOTE_HINT : SELECT_HINT,
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
