import { useDrag } from "@use-gesture/react";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { showOf } from "../../actions/shown";
import type { Drawing } from "../../api/client";
import { DrawingView } from "../../drawing/DrawingView";
import { LOOK, type Side, usePick, type Viewport } from "../../store";
import { Note } from "../../ui/Note";
import { SIDES } from "../../useActions";
import { useHeld } from "../../useProject";
import { AtPointer } from "./AtPointer";
import { KeyPlan } from "./KeyPlan";
import { Ladder } from "./Ladder";
import { LetteringBar } from "./LetteringBar";
import { ActionOverlay, Guides, Halo, LevelLines, ProjectionLines, SelectionBox, SetOutLines } from "./Overlays";
import { OwnHeights } from "./OwnHeights";
import { PaneHeads } from "./PaneHeads";
import { Rim } from "./Rim";
import { RoofSides } from "./RoofSides";
import { Triangles } from "./Triangles";
import { BenchContext } from "./useBench";
import { useBenchPointer } from "./useBenchPointer";
import { usePreview } from "./usePreview";
import {
  besideBy,
  fitted,
  LADDER,
  nearestScale,
  ON_LADDER,
  outgrown,
  type Panes,
  panesOf,
  type Size,
  SPLITTER,
  type Whole,
} from "./viewport";
import { WalkedLines, WalkKnob } from "./Walk";

const NOTHING: readonly string[] = [];

/** From so many px per mm on a section shows its own level marks, beside those of the ladder. */
const CLOSE = 0.045;

/** Plan and projected view on shared projection lines, with the height ladder. */
export function BenchScreen() {
  const { id, bench, state, views, viewName, saving, busy } = useHeld();
  const {
    set,
    split,
    fill,
    selection,
    also,
    lit,
    side,
    step,
    tool,
    section,
    trial,
    pointed,
    elevation,
    setOut,
    message,
  } = usePick(
    "set",
    "split",
    "fill",
    "selection",
    "also",
    "lit",
    "side",
    "step",
    "tool",
    "section",
    "trial",
    "pointed",
    "elevation",
    "setOut",
    "message",
  );
  const [box, size] = useSize();
  // The setting out of a stair has no place on the plan: it fills the bench.
  const filled = step === "Sections" && section?.startsWith("setting:") ? "view" : fill;
  const panes = useMemo(() => panesOf(size, split, filled), [size, split, filled]);
  const drawing =
    tool === "section" || (tool === "wall-section" && step !== "Elevations") || (step === "Sections" && !section);
  const isStrip = step === "Sections" && state.project.wall_sections?.some((held) => held.id === section);
  const isDetail = step === "Details" && viewName.startsWith("detail:");
  const whole =
    step === "Plan" || step === "Roof" || drawing ? "plan" : isStrip ? "strip" : isDetail ? "detail" : "view";
  const preview = usePreview(id, bench.version, views, saving);
  const { showEntry, clear } = preview;
  useEffect(() => {
    if (trial) showEntry(trial);
    else clear();
  }, [trial, showEntry, clear]);
  const shown = preview.shown ?? bench;
  const plan = shown.drawings[0];
  const view = shown.drawings[1];
  const beside = shown.drawings[2];
  const [viewport, setViewport] = useFitted(
    panes,
    bench.drawings[0],
    bench.drawings[1],
    `${viewName} ${views[0].look_deg}`,
    whole,
    state.scales,
    bench.drawings[2],
  );
  const rescaling = useScale(viewport.k, state.scales);
  const hoverSum = pointed;
  const setHoverSum = useCallback((pointed: string | null) => set({ pointed }), [set]);
  const pointer = useBenchPointer({ box, panes, viewport, setViewport, plan, view, snaps: shown.snaps, preview });
  const turned = step === "Sections" || elevation;
  const facing = turned ? (SIDES.find((name) => LOOK[name] === views[0].look_deg) ?? null) : side;

  const hovered = pointer.hover ? (pointer.hover.pane === "plan" ? plan : view)?.marks[pointer.hover.index] : undefined;
  const sumId = hoverSum ?? (hovered && "sum" in hovered ? hovered.sum : null);
  const sum = sumId ? shown.sums.find((table) => table.id === sumId) : undefined;
  const transform = (y: number) => `translate(${viewport.u} ${y}) scale(${viewport.k} ${-viewport.k})`;

  const onBench = useMemo(
    () => ({ bench: shown, plan, view, viewport, panes, size, point: setHoverSum }),
    [shown, plan, view, viewport, panes, size, setHoverSum],
  );

  return (
    <BenchContext.Provider value={onBench}>
      <main
        ref={box}
        className="relative select-none overflow-hidden bg-paper"
        aria-label="Bench"
        data-bench={panes.planBottom}
        aria-busy={busy || rescaling}
        {...pointer.events}
        style={{ cursor: pointer.cursor, touchAction: "none" }}
      >
        <svg
          width={size.width}
          height={size.height}
          className="absolute inset-0 block"
          style={
            { "--k": viewport.k, "--pen": Math.min(1.3, Math.max(0.45, viewport.k / 0.028)) } as React.CSSProperties
          }
        >
          <title>{`Plan and ${view?.title ?? "view"}`}</title>
          <clipPath id="clip-plan">
            <rect x={0} y={panes.planTop} width={size.width} height={Math.max(0, panes.planBottom - panes.planTop)} />
          </clipPath>
          <clipPath id="clip-view">
            <rect x={0} y={panes.viewTop} width={size.width} height={Math.max(0, panes.viewBottom - panes.viewTop)} />
          </clipPath>
          <g clipPath="url(#clip-plan)">
            <g transform={transform(viewport.w)} data-pane="plan" data-testid="plan" className="turning">
              {plan && <DrawingView drawing={plan} id="p" k={viewport.k} without={NOTHING} />}
            </g>
          </g>
          <g clipPath="url(#clip-view)">
            <LevelLines />
            {beside && (
              <g transform={`translate(${besideBy(view, beside) * viewport.k} 0)`} data-testid="beside">
                <g transform={transform(viewport.v)}>
                  <DrawingView drawing={beside} id="b" k={viewport.k} without={ON_LADDER} />
                </g>
              </g>
            )}
            <g
              transform={transform(viewport.v)}
              data-pane="view"
              data-testid="view"
              className={showOf(state.project, viewName).thin ? "thin" : undefined}
            >
              {view && (
                <DrawingView
                  drawing={view}
                  id="v"
                  k={viewport.k}
                  without={filled === "view" && viewport.k >= CLOSE && !isStrip && !isDetail ? NOTHING : ON_LADDER}
                />
              )}
            </g>
          </g>
          {lit.map((element) => (
            <Halo key={element} element={element} lit />
          ))}
          {[selection, ...also].map((element) => element && <Halo key={element} element={element} />)}
          {pointer.box && <SelectionBox box={pointer.box} />}
          {pointer.hover && <ProjectionLines {...pointer.hover} />}
          {sumId && !pointer.dragging && <Triangles sum={sumId} />}
          <WalkedLines />
          {setOut && <SetOutLines />}
          <Guides />
          <ActionOverlay overlay={pointer.overlay} />
          <Grips pointer={pointer} viewport={viewport} />
        </svg>
        <Splitter panes={panes} size={size} onSplit={(at) => set({ split: at })} hidden={filled !== "both"} />
        <PaneHeads
          panes={panes}
          plan={plan}
          view={view}
          onFit={() => setViewport(fitted(panes, plan, view, whole, state.scales, beside))}
        />
        <Rim
          facing={facing}
          panes={panes}
          onTurn={(next: Side) => set({ side: next, elevation: null, step: step === "Sections" ? "Elevations" : step })}
        />
        {step === "Roof" && tool === "select" && <RoofSides roof={selection} />}
        {isDetail && <KeyPlan />}
        <WalkKnob />
        <OwnHeights />
        <Ladder preview={preview} />
        <Messages
          panes={panes}
          plan={plan}
          view={view}
          begun={pointer.overlay.dots.length > 0 || pointer.overlay.lines.length > 0}
        />
        {!pointer.dragging && <LetteringBar />}
        <AtPointer
          sum={pointer.dragging ? undefined : sum}
          onLadder={Boolean(hoverSum)}
          wrong={pointer.wrong ?? preview.wrong}
          label={pointer.dragLabel}
          entry={pointer.entry}
          closeEntry={pointer.closeEntry}
          size={size}
        />
        {message && (
          <div className="absolute bottom-3 left-1/2 z-20 -translate-x-1/2">
            <Note tone={message.tone}>{message.text}</Note>
          </div>
        )}
      </main>
    </BenchContext.Provider>
  );
}

function Grips({ pointer, viewport }: { pointer: ReturnType<typeof useBenchPointer>; viewport: Viewport }) {
  return (
    <g clipPath="url(#clip-plan)">
      {pointer.grips.map((grip) => (
        <circle
          key={grip.id}
          cx={viewport.u + grip.u * viewport.k}
          cy={viewport.w - grip.w * viewport.k}
          r={5.5}
          fill="var(--color-paper)"
          stroke="var(--color-line)"
          strokeWidth={1.6}
          style={{ cursor: "move" }}
          data-grip={grip.id}
        />
      ))}
    </g>
  );
}

/** What an empty or failing drawing says, in its pane. */
function Messages({
  panes,
  plan,
  view,
  begun,
}: {
  panes: Panes;
  plan: Drawing | undefined;
  view: Drawing | undefined;
  /** Whether something is being drawn: then nothing lies over it. */
  begun: boolean;
}) {
  const lines: [string, number][] = [];
  for (const text of begun ? [] : (plan?.messages ?? []))
    lines.push([text, (panes.planTop + panes.planBottom) / 2 - 20]);
  for (const text of view?.messages ?? []) lines.push([text, panes.viewBottom - 64]);
  return (
    <>
      {lines.map(([text, top]) => (
        <div
          key={text}
          className="pointer-events-none absolute z-10 flex justify-center"
          style={{ top, left: LADDER, right: 40 }}
        >
          <Note tone="note">{text}</Note>
        </div>
      ))}
    </>
  );
}

function Splitter({
  panes,
  size,
  onSplit,
  hidden,
}: {
  panes: Panes;
  size: Size;
  onSplit: (at: number) => void;
  hidden: boolean;
}) {
  const within = (share: number) => Math.min(0.85, Math.max(0.15, share));
  const bind = useDrag(
    ({ event, xy: [, y] }) => {
      event.stopPropagation();
      const top = (event.currentTarget as Element).parentElement?.getBoundingClientRect().top ?? 0;
      onSplit(within((y - top) / size.height));
    },
    { pointer: { keys: false } },
  );
  if (hidden) return null;
  return (
    // biome-ignore lint/a11y/useSemanticElements: a splitter that moves is no thematic break
    <div
      role="separator"
      aria-orientation="horizontal"
      aria-label="Share of the plan"
      aria-valuenow={Math.round((panes.planBottom / Math.max(size.height, 1)) * 100)}
      tabIndex={0}
      {...bind()}
      className="absolute inset-x-0 z-10 grid cursor-row-resize touch-none place-items-center bg-strip"
      style={{ top: panes.planBottom, height: SPLITTER }}
      onKeyDown={(event) => {
        const step = event.key === "ArrowUp" ? -0.03 : event.key === "ArrowDown" ? 0.03 : 0;
        if (step) onSplit(within(panes.planBottom / size.height + step));
      }}
    >
      <span className="h-[3px] w-10 rounded bg-[#b9b09b]" />
    </div>
  );
}

/** The zoom has to rest for so long (ms) before the views are asked for at its scale. */
const REST = 160;

/** Asks for the views at the usual scale that is nearest to the zoom, so that lettering is as large as on paper; whether
 * it is about to. */
function useScale(k: number, scales: readonly number[]): boolean {
  const { set, scale } = usePick("set", "scale");
  const nearest = nearestScale(k, scales) ?? scale;
  useEffect(() => {
    if (nearest === scale) return;
    const rest = setTimeout(() => set({ scale: nearest }), REST);
    return () => clearTimeout(rest);
  }, [nearest, scale, set]);
  return nearest !== scale;
}

function useSize(): [React.RefObject<HTMLElement | null>, Size] {
  const box = useRef<HTMLElement>(null);
  const [size, setSize] = useState<Size>({ width: 900, height: 700 });
  useEffect(() => {
    if (!box.current) return;
    const watch = new ResizeObserver(([entry]) =>
      setSize({ width: Math.round(entry.contentRect.width), height: Math.round(entry.contentRect.height) }),
    );
    watch.observe(box.current);
    return () => watch.disconnect();
  }, []);
  return [box, size];
}

/** A viewport that fits anew when the view, the panes or the emptiness of the drawing changes, and when the building
 * has outgrown it, unless the drafter has set it; otherwise never on an edit. */
function useFitted(
  panes: Panes,
  plan: Drawing | undefined,
  view: Drawing | undefined,
  key: string,
  whole: Whole,
  scales: readonly number[],
  beside: Drawing | undefined,
): [Viewport, (next: Viewport) => void] {
  const [viewport, setViewport] = useState<Viewport>({ k: 0.03, u: 200, w: 300, v: 600 });
  const arrived = view ? `${key} ${view.name} ${plan?.look?.join()}` : "";
  const empty = plan?.marks.length ? "" : `empty over ${plan?.backdrops?.length ?? 0}`;
  const byHand = useRef(false);
  const latest = useRef({ plan, view, beside, scales });
  latest.current = { plan, view, beside, scales };
  // biome-ignore lint/correctness/useExhaustiveDependencies: edits must not move the picture under the pointer
  useEffect(() => {
    const { plan, view, beside, scales } = latest.current;
    byHand.current = false;
    setViewport(fitted(panes, plan, view, whole, scales, beside));
  }, [arrived, panes, empty, whole, beside?.name]);
  useEffect(() => {
    const { scales } = latest.current;
    if (!byHand.current)
      setViewport((held) => (outgrown(held, panes, view) ? fitted(panes, plan, view, whole, scales, beside) : held));
  }, [plan, view, panes, whole, beside]);
  const setByHand = useCallback((next: Viewport) => {
    byHand.current = true;
    setViewport(next);
  }, []);
  return [viewport, setByHand];
}
