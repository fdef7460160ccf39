import type { Drawing } from "../../api/client";
import type { Fill, Viewport } from "../../store";

export interface Size {
  width: number;
  height: number;
}

/** The panes of the bench in px: the plan above, the view below, the ladder at its left. */
export interface Panes {
  width: number;
  planTop: number;
  planBottom: number;
  viewTop: number;
  viewBottom: number;
}

export const SPLITTER = 7;
export const LADDER = 112;
const EDGE = 30;

export function panesOf(size: Size, split: number, fill: Fill): Panes {
  const at = fill === "plan" ? size.height : fill === "view" ? -SPLITTER : Math.round(size.height * split);
  return { width: size.width, planTop: 0, planBottom: Math.max(at, 0), viewTop: at + SPLITTER, viewBottom: size.height };
}

type Bounds = readonly [number, number, number, number];

const EMPTY_PLAN: Bounds = [-1000, -1000, 13000, 9000];
const EMPTY_VIEW: Bounds = [-1000, -1500, 13000, 5000];

export function boundsOf(drawing: Drawing | undefined, kind: "plan" | "view"): Bounds {
  if (!drawing || drawing.marks.length === 0) return kind === "plan" ? EMPTY_PLAN : EMPTY_VIEW;
  return drawing.bounds as unknown as Bounds;
}

/** The viewport that shows both drawings whole, on one horizontal scale. */
export function fit(panes: Panes, plan: Bounds, view: Bounds): Viewport {
  const planHeight = panes.planBottom - panes.planTop;
  const viewHeight = panes.viewBottom - panes.viewTop;
  const shown = [planHeight > 40 ? plan : null, viewHeight > 40 ? view : null].filter((b): b is Bounds => b !== null);
  const u0 = Math.min(...shown.map((b) => b[0]));
  const u1 = Math.max(...shown.map((b) => b[2]));
  const room = panes.width - LADDER - 2 * EDGE;
  let k = room / (u1 - u0);
  if (planHeight > 40) k = Math.min(k, (planHeight - 1.6 * EDGE) / (plan[3] - plan[1]));
  if (viewHeight > 40) k = Math.min(k, (viewHeight - 1.6 * EDGE) / (view[3] - view[1]));
  return {
    k,
    u: LADDER + EDGE + room / 2 - (k * (u0 + u1)) / 2,
    w: (panes.planTop + panes.planBottom) / 2 + (k * (plan[1] + plan[3])) / 2,
    v: (panes.viewTop + panes.viewBottom) / 2 + (k * (view[1] + view[3])) / 2,
  };
}

const NEAREST = 2;
const FARTHEST = 0.002;

/** Zoomed about a point of the bench; the other pane keeps its middle. */
export function zoom(at: Viewport, factor: number, x: number, y: number, panes: Panes): Viewport {
  const k = Math.min(NEAREST, Math.max(FARTHEST, at.k * factor));
  const f = k / at.k;
  const inPlan = y < panes.planBottom;
  const planY = inPlan ? y : (panes.planTop + panes.planBottom) / 2;
  const viewY = inPlan ? (panes.viewTop + panes.viewBottom) / 2 : y;
  return { k, u: x + (at.u - x) * f, w: planY + (at.w - planY) * f, v: viewY + (at.v - viewY) * f };
}

export interface Extent {
  u0: number;
  u1: number;
  y0: number;
  y1: number;
}

/** The box of some marks of a drawing; null when there are none. */
export function extentOf(drawing: Drawing | undefined, wanted: (part: string, index: number) => boolean): Extent | null {
  let found: Extent | null = null;
  drawing?.marks.forEach((mark, index) => {
    if (!mark.part || !wanted(mark.part, index)) return;
    const vertices = "rings" in mark ? mark.rings[0] : "path" in mark ? mark.path : [];
    for (const [x, y] of vertices as number[][]) {
      found = found
        ? { u0: Math.min(found.u0, x), u1: Math.max(found.u1, x), y0: Math.min(found.y0, y), y1: Math.max(found.y1, y) }
        : { u0: x, u1: x, y0: y, y1: y };
    }
  });
  return found;
}

export function elementOf(part: string | null | undefined): string | null {
  return part ? part.split("/")[0] : null;
}
