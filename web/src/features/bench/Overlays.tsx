import type { Overlay, Snaps } from "../../actions/types";
import { pathData } from "../../drawing/path";
import { useBench } from "./useBench";
import { type Extent, extentOf, LADDER } from "./viewport";

/** The selected element: a dashed halo in both panes, joined by its projection lines. */
export function Halo({ element, lit = false }: { element: string; lit?: boolean }) {
  const { plan, view, viewport, panes } = useBench();
  // Lit up may be one piece of a build-up, by the beginning of its parts.
  const owns = (part: string) => (element.includes("/") ? part.startsWith(element) : part.split("/")[0] === element);
  const above = extentOf(plan, owns);
  const below = extentOf(view, owns);
  const box = (extent: Extent, y: number) => ({
    x: viewport.u + extent.u0 * viewport.k - 4,
    y: y - extent.y1 * viewport.k - 4,
    width: (extent.u1 - extent.u0) * viewport.k + 8,
    height: (extent.y1 - extent.y0) * viewport.k + 8,
  });
  const both = above && below && panes.planBottom > 40 && panes.viewBottom - panes.viewTop > 40;
  return (
    <g
      fill={lit ? "var(--color-check)" : "none"}
      fillOpacity={0.12}
      stroke={lit ? "var(--color-check)" : "var(--color-line)"}
      strokeWidth={1.2}
      pointerEvents="none"
      data-lit={lit ? element : undefined}
    >
      {above && <rect {...box(above, viewport.w)} className="dropped" clipPath="url(#clip-plan)" rx={3} />}
      {below && <rect {...box(below, viewport.v)} className="dropped" clipPath="url(#clip-view)" rx={3} />}
      {both &&
        !lit &&
        [below.u0, below.u1].map((u) => (
          <line
            key={u}
            x1={viewport.u + u * viewport.k}
            x2={viewport.u + u * viewport.k}
            y1={viewport.w - above.y0 * viewport.k}
            y2={viewport.v - below.y1 * viewport.k}
            opacity={0.75}
          />
        ))}
    </g>
  );
}

/** Projection lines of the mark under the pointer, from plan to view. */
export function ProjectionLines({ pane, index }: { pane: "plan" | "view"; index: number }) {
  const { plan, view, viewport, panes } = useBench();
  const mark = (pane === "plan" ? plan : view)?.marks[index];
  if (!mark?.part || panes.planBottom < 40 || panes.viewBottom - panes.viewTop < 40) return null;
  const element = mark.part.split("/")[0];
  const own = extentOf(pane === "plan" ? plan : view, (_, at) => at === index);
  const other = extentOf(pane === "plan" ? view : plan, (part) => part.split("/")[0] === element);
  if (!own) return null;
  const planY =
    pane === "plan" ? viewport.w - own.y0 * viewport.k : other ? viewport.w - other.y0 * viewport.k : panes.planTop;
  const viewY =
    pane === "view" ? viewport.v - own.y0 * viewport.k : other ? viewport.v - other.y1 * viewport.k : panes.viewBottom;
  const us = own.u1 - own.u0 < 1 ? [own.u0] : [own.u0, own.u1];
  return (
    <g stroke="var(--color-line)" strokeWidth={1} pointerEvents="none" data-testid="projection-lines">
      {us.map((u) => (
        <line key={u} x1={viewport.u + u * viewport.k} x2={viewport.u + u * viewport.k} y1={planY} y2={viewY} />
      ))}
      {us.map((u) => (
        <circle
          key={u}
          cx={viewport.u + u * viewport.k}
          cy={pane === "plan" ? planY : viewY}
          r={2.6}
          fill="var(--color-line)"
        />
      ))}
    </g>
  );
}

/** What an action draws while it runs. */
export function ActionOverlay({ overlay }: { overlay: Overlay }) {
  const { viewport } = useBench();
  const x = (u: number) => viewport.u + u * viewport.k;
  const y = (w: number) => viewport.w - w * viewport.k;
  return (
    <g stroke="var(--color-line)" fill="none" pointerEvents="none" clipPath="url(#clip-plan)">
      {overlay.lines.map((line, index) => (
        <path
          // biome-ignore lint/suspicious/noArrayIndexKey: the lines of a chain are told apart by their place
          key={index}
          d={pathData(
            [
              [x(line.u1), y(line.w1), -(line.bulge ?? 0)],
              [x(line.u2), y(line.w2), 0],
            ],
            false,
          )}
          strokeWidth={1.6}
          className={line.dashed ? "dropped" : undefined}
        />
      ))}
      {overlay.dots.map((dot) => (
        <circle
          key={`${dot.u},${dot.w}`}
          cx={x(dot.u)}
          cy={y(dot.w)}
          r={4}
          fill="var(--color-paper)"
          strokeWidth={1.5}
        />
      ))}
    </g>
  );
}

/** The box that selects what it encloses, or touches. */
export function SelectionBox({ box }: { box: { x0: number; y0: number; x1: number; y1: number; touched: boolean } }) {
  return (
    <rect
      x={Math.min(box.x0, box.x1)}
      y={Math.min(box.y0, box.y1)}
      width={Math.abs(box.x1 - box.x0)}
      height={Math.abs(box.y1 - box.y0)}
      fill="var(--color-line)"
      fillOpacity={0.07}
      stroke="var(--color-line)"
      strokeDasharray={box.touched ? "3 3" : undefined}
      pointerEvents="none"
      data-testid="selection-box"
    />
  );
}

const ENDLESS = 1e5;

/** Construction lines across the plan: on the screen alone. */
/** Lines of the grid are drawn by the plan itself. */
function isConstruction({ label }: Snaps["guides"][number]): boolean {
  return !label.startsWith("grid");
}

export function Guides() {
  const {
    bench: { snaps },
    viewport,
  } = useBench();
  return (
    <g
      stroke="var(--color-line)"
      strokeWidth={0.9}
      strokeDasharray="9 3 1.5 3"
      opacity={0.8}
      pointerEvents="none"
      clipPath="url(#clip-plan)"
      data-testid="construction"
    >
      {snaps.guides.filter(isConstruction).map((line) => (
        <line
          key={line.id}
          x1={viewport.u + (line.u - line.du * ENDLESS) * viewport.k}
          y1={viewport.w - (line.w - line.dw * ENDLESS) * viewport.k}
          x2={viewport.u + (line.u + line.du * ENDLESS) * viewport.k}
          y2={viewport.w - (line.w + line.dw * ENDLESS) * viewport.k}
        />
      ))}
    </g>
  );
}

/** The set-out lines of the walls of the storey, with their ends. */
export function SetOutLines() {
  const {
    bench: { snaps },
    viewport,
  } = useBench();
  const x = (u: number) => viewport.u + u * viewport.k;
  const y = (w: number) => viewport.w - w * viewport.k;
  return (
    <g stroke="var(--color-check)" fill="none" pointerEvents="none" clipPath="url(#clip-plan)" data-testid="set-out">
      {snaps.lines.map((line) => (
        <path
          key={line.wall}
          strokeWidth={1.1}
          d={pathData(
            [
              [x(line.u1), y(line.w1), -line.bulge],
              [x(line.u2), y(line.w2), 0],
            ],
            false,
          )}
        />
      ))}
      {snaps.lines.flatMap((line) =>
        [
          [line.u1, line.w1],
          [line.u2, line.w2],
        ].map(([u, w], end) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a line has two ends
          <circle key={`${line.wall} ${end}`} cx={x(u)} cy={y(w)} r={2.2} fill="var(--color-paper)" />
        )),
      )}
    </g>
  );
}

/** The levels of the ladder, carried across the view behind the drawing. */
export function LevelLines() {
  const {
    bench,
    viewport,
    size: { width },
  } = useBench();
  return (
    <g stroke="#c3baa4" strokeWidth={0.8} strokeDasharray="12 3 2 3" pointerEvents="none">
      {bench.ladder.map((rung) => {
        const y = viewport.v - rung.z * viewport.k;
        return <line key={rung.id} x1={LADDER} x2={width} y1={y} y2={y} />;
      })}
    </g>
  );
}
