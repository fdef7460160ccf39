import { useDrag } from "@use-gesture/react";
import { useMemo } from "react";
import type { Snaps } from "../../actions/types";
import { usePick } from "../../store";
import { useBench } from "./useBench";
import { extentOf, LADDER, SPLITTER } from "./viewport";

interface Corner {
  u: number;
  w: number;
}

/** Corners of the plan, from left to right; of those over each other the nearest to the view. */
export function cornersOf(snaps: Snaps): Corner[] {
  const nearest = new Map<number, Corner>();
  for (const { kind, u, w } of snaps.points) {
    if (kind !== "joint") continue;
    const held = nearest.get(Math.round(u));
    if (!held || w < held.w) nearest.set(Math.round(u), { u, w });
  }
  return [...nearest.values()].sort((a, b) => a.u - b.u);
}

/** Projection lines of the corners: all of them, or one that is walked along the plan. */
export function WalkedLines() {
  const {
    bench: { snaps },
    view,
    viewport,
    panes,
  } = useBench();
  const { walked, allLines } = usePick("walked", "allLines");
  const corners = useMemo(() => cornersOf(snaps), [snaps]);
  if ((walked === null && !allLines) || panes.planBottom < 40 || panes.viewBottom - panes.viewTop < 40) return null;
  const box = extentOf(view, () => true);
  const foot = box ? viewport.v - box.y0 * viewport.k : panes.viewBottom;
  return (
    <g stroke="var(--color-line)" pointerEvents="none" data-testid="walked-lines">
      {corners.map(({ u, w }, index) =>
        allLines || index === walked ? (
          <line
            key={u}
            x1={viewport.u + u * viewport.k}
            x2={viewport.u + u * viewport.k}
            y1={viewport.w - w * viewport.k}
            y2={foot}
            strokeWidth={index === walked ? 1.4 : 0.7}
            opacity={index === walked ? 1 : 0.55}
          />
        ) : null,
      )}
    </g>
  );
}

/** The knob between plan and view: it walks a projection line from corner to corner. */
export function WalkKnob() {
  const {
    bench: { snaps },
    viewport,
    panes,
  } = useBench();
  const { walked, set } = usePick("walked", "set");
  const corners = useMemo(() => cornersOf(snaps), [snaps]);
  const bind = useDrag(
    ({ event, xy: [x] }) => {
      event.stopPropagation();
      const left = (event.currentTarget as Element).parentElement?.getBoundingClientRect().left ?? 0;
      set({ walked: nearest(x - left) });
    },
    { pointer: { keys: false } },
  );
  if (!corners.length || panes.planBottom < 40 || panes.viewBottom - panes.viewTop < 40) return null;
  const at = (corner: Corner) => viewport.u + corner.u * viewport.k;
  const place = walked === null ? LADDER + 18 : at(corners[Math.min(walked, corners.length - 1)]);
  const nearest = (x: number) =>
    corners.reduce(
      (best, corner, index) => (Math.abs(at(corner) - x) < Math.abs(at(corners[best]) - x) ? index : best),
      0,
    );
  return (
    <button
      type="button"
      role="slider"
      aria-label="Walk the projection lines"
      aria-valuemin={1}
      aria-valuemax={corners.length}
      aria-valuenow={walked === null ? 0 : walked + 1}
      title="Drag along the plan, or use the arrow keys: the projection line of each corner. A double click takes it away."
      {...bind()}
      className="absolute z-20 h-[15px] w-[15px] -translate-x-1/2 cursor-ew-resize touch-none rounded-full border-2 border-line bg-paper"
      style={{ left: place, top: panes.planBottom + SPLITTER / 2 - 7.5 }}
      onDoubleClick={() => set({ walked: null })}
      onKeyDown={(event) => {
        const step = event.key === "ArrowRight" ? 1 : event.key === "ArrowLeft" ? -1 : 0;
        if (event.key === "Escape") set({ walked: null });
        if (!step) return;
        event.preventDefault();
        event.stopPropagation();
        set({ walked: Math.max(0, Math.min(corners.length - 1, (walked ?? (step > 0 ? -1 : corners.length)) + step)) });
      }}
    />
  );
}
