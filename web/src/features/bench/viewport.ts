import type { Drawing } from "../../api/client";
import { pointsAlong } from "../../drawing/path";
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
export const LADDER = 122;
/** The ladder shows levels in its own way. */
export const ON_LADDER: readonly string[] = ["level_mark", "level"];
/** Height of the strip over the plan, with its name and the actions of the step. */
export const HEAD = 38;
const EDGE = 30;

export function panesOf(size: Size, split: number, fill: Fill): Panes {
  const at = fill === "plan" ? size.height : fill === "view" ? -SPLITTER : Math.round(size.height * split);
  return {
    width: size.width,
    planTop: at > HEAD ? HEAD : 0,
    planBottom: Math.max(at, 0),
    viewTop: at + SPLITTER,
    viewBottom: size.height,
  };
}

type Bounds = readonly [number, number, number, number];

const EMPTY_PLAN: Bounds = [-1000, -1000, 13000, 9000];
const EMPTY_VIEW: Bounds = [-1000, -1500, 13000, 5000];

/** The box around what is built: without lettering, the lines that lead to it, sections, grid and ground. */
function builtOf(drawing: Drawing | undefined): Extent | null {
  return extentOf(drawing, (part, index) => {
    const mark = drawing?.marks[index];
    const leads = mark && (("feature" in mark && mark.feature === "leader") || mark.annotation);
    return !leads && !/\/section\/|\/grid\/|\/ground\/|^note/.test(part);
  });
}

/** The box to fit: what is built, without the marks around it. */
function boundsOf(drawing: Drawing | undefined, kind: "plan" | "view"): Bounds {
  const built = builtOf(drawing);
  if (!built && drawing?.backdrops?.length) return lettered(drawing);
  if (!built) return kind === "plan" ? EMPTY_PLAN : EMPTY_VIEW;
  const margin = kind === "plan" ? 0.06 * (built.u1 - built.u0) : 0;
  return [built.u0 - margin, built.y0 - margin * 1.6, built.u1 + margin, built.y1 + margin];
}

/** A mm of paper is drawn about so many px wide. */
export const PX_PER_PAPER_MM = 3.8;

/** The box around a drawing and the marks beside it, in a room of so many px. Marks keep their distance on paper, so
 * they are taken as they will stand once it is drawn at the scale of its zoom, whatever it is drawn at now. */
function withMarks(
  drawing: Drawing,
  built: Extent,
  marks: Bounds,
  room: number,
  tall: number,
  most = Number.POSITIVE_INFINITY,
): Bounds {
  const px = (over: number) => Math.min((Math.max(over, 0) / drawing.scale) * PX_PER_PAPER_MM, most);
  const [left, low] = [px(built.u0 - marks[0]), px(built.y0 - marks[1])];
  const [right, high] = [px(marks[2] - built.u1), px(marks[3] - built.y1)];
  // Half of the room at least is for what is built.
  const across = Math.min(1, room / 2 / Math.max(left + right, 1));
  const up = Math.min(1, tall / 2 / Math.max(low + high, 1));
  const k = Math.min(
    (room - across * (left + right)) / Math.max(built.u1 - built.u0, 1),
    (tall - up * (low + high)) / Math.max(built.y1 - built.y0, 1),
  );
  const [beside, above] = [across / k, up / k];
  return [built.u0 - left * beside, built.y0 - low * above, built.u1 + right * beside, built.y1 + high * above];
}

/** What the dimensions of a plan take at each side (px); of more of them those farthest out may lie outside. */
const STRINGS_BESIDE = 72;

/** The box to fit of a plan that is worked on: with its dimensions. */
function dimensionedBounds(plan: Drawing | undefined, room: number, tall: number): Bounds {
  const built = builtOf(plan);
  if (!plan || !built) return boundsOf(plan, "plan");
  const marks = { ...built };
  for (const mark of plan.marks)
    if ("path" in mark && mark.pen === "dimension")
      for (const [u, w] of mark.path) {
        marks.u0 = Math.min(marks.u0, u);
        marks.u1 = Math.max(marks.u1, u);
        marks.y0 = Math.min(marks.y0, w);
        marks.y1 = Math.max(marks.y1, w);
      }
  const [u0, y0, u1, y1] = withMarks(plan, built, [marks.u0, marks.y0, marks.u1, marks.y1], room, tall, STRINGS_BESIDE);
  const margin = 0.01 * (u1 - u0);
  return [u0 - margin, y0 - margin * 1.6, u1 + margin, y1 + margin];
}

/** The box to fit of a view that fills the bench: with all its lettering. */
function letteredBounds(view: Drawing, room: number, tall: number): Bounds {
  const built = builtOf(view);
  return built ? withMarks(view, built, lettered(view), room, tall) : lettered(view);
}

function lettered(drawing: Drawing): Bounds {
  const [u0, v0, u1, v1] = drawing.bounds ?? EMPTY_VIEW;
  return [u0, v0, u1, v1];
}

/** Between two views that stand beside each other (real mm). */
const BESIDE = 3000;

/** How far the origin of a view lies to the right of that of another when it stands beside it (real mm). */
export function besideBy(drawing: Drawing | undefined, other: Drawing): number {
  return (drawing ? lettered(drawing)[2] : 0) + BESIDE - lettered(other)[0];
}

function joined(own: Bounds, drawing: Drawing | undefined, other: Drawing): Bounds {
  const [, low, right, high] = lettered(other);
  return [own[0], Math.min(own[1], low), right + besideBy(drawing, other), Math.max(own[3], high)];
}

/** How small the view may get for the sake of a plan that is deeper than its pane. */
const VIEW_SHARE = 0.66;

/** What is seen whole: the plan, the view, or a wall section or a detail with its notes. */
export type Whole = "plan" | "view" | "strip" | "detail";

/** What the strings and the notes of a wall section take beside it (px). */
const STRINGS = 180;
const NOTES = 370;

/** The viewport that shows a wall section with its lettering, and of the plan the place where it cuts. */
function stripFitted(panes: Panes, plan: Drawing | undefined, view: Drawing, beside?: Drawing): Viewport {
  const [u0, low, u1, high] = boundsOf(view, "view");
  const drawn = beside ? joined([u0, low, u1, high], view, beside) : [u0, low, u1, high];
  const room = panes.width - LADDER - 2 * EDGE - STRINGS - (beside ? 0 : NOTES);
  const tall = panes.viewBottom - panes.viewTop - 3.4 * EDGE;
  const k = Math.min(room / (drawn[2] - u0), Math.max(tall, 40) / (Math.max(drawn[3], high) - low));
  const cut = extentOf(plan, (part) => part.startsWith(`${view.name.split(":")[1]}/section/`));
  const focus = cut ? (cut.y0 + cut.y1) / 2 : 0;
  return {
    k,
    u: LADDER + EDGE + STRINGS + Math.max(0, room - k * (drawn[2] - u0)) / 4 - k * u0,
    w: (panes.planTop + panes.planBottom) / 2 + k * focus,
    v: (panes.viewTop + panes.viewBottom) / 2 + (k * (low + high)) / 2 + EDGE / 3,
  };
}

/** From the edge of a detail to the ends of the leaders of its notes (paper mm). */
const NOTES_BESIDE = 8;

/** What of the height of its pane a detail takes at least, and where its notes do not fit beside it so. */
const LEAST_SHARE = 0.3;
const SHARE = 0.6;

/** The viewport that shows a detail with its notes, which are as large as the usual scale nearest to its zoom makes
 * them: the nearest zoom at which all of it has room. */
function detailFitted(panes: Panes, view: Drawing, scales: readonly number[]): Viewport {
  const [own0, low, own1, high] = boundsOf(view, "view");
  // The notes stand beside what the detail shows, however much of that is empty.
  const ends = view.marks.flatMap((mark) =>
    "path" in mark && mark.feature === "leader" ? [mark.path[mark.path.length - 1][0]] : [],
  );
  const beside = NOTES_BESIDE * view.scale;
  const u0 = Math.min(own0, ...ends.map((u) => u + beside));
  const u1 = Math.max(own1, ...ends.map((u) => u - beside));
  const [all0, bottom, all1, top] = annotated(view);
  const onPaper = (over: number) => Math.max(over, 0) / view.scale;
  const [left, below, right, above] = [u0 - all0, low - bottom, all1 - u1, top - high].map(onPaper);
  const room = panes.width - LADDER - 1.4 * EDGE;
  const tall = Math.max(panes.viewBottom - panes.viewTop - 3 * EDGE, 60);
  const fits = (scale: number) =>
    Math.min(NEAREST, room / (u1 - u0 + (left + right) * scale), tall / (high - low + (below + above) * scale));
  // Notes that are taller than the pane run out of it, rather than leave no room for what they are about.
  const across = (scale: number) =>
    Math.min(NEAREST, room / (u1 - u0 + (left + right) * scale), (SHARE * tall) / (high - low));
  const all = bestZoom(scales, fits);
  const [scale, k] = (all && all[1] * (high - low) > LEAST_SHARE * tall ? all : bestZoom(scales, across)) ??
    all ?? [view.scale, fits(view.scale)];
  const spare = room - k * (u1 - u0 + (left + right) * scale);
  return {
    k,
    u: LADDER + 0.7 * EDGE + spare / 2 + k * (left * scale - u0),
    w: (panes.planTop + panes.planBottom) / 2,
    v: (panes.viewTop + panes.viewBottom) / 2 + (k * (low + high + (above - below) * scale)) / 2 + EDGE / 2,
  };
}

/** How wide a letter is of its height at the most, over a line of a note. */
const WIDE = { sans: 0.66, bold: 0.65, mono: 0.62 };

/** The box around a drawing and all of its lettering but what the ladder shows. */
function annotated(drawing: Drawing): Bounds {
  let [u0, low, u1, high] = boundsOf(drawing, "view");
  for (const mark of drawing.marks) {
    if (!("align" in mark) || (mark.feature && ON_LADDER.includes(mark.feature))) continue;
    const [long, tall] = [mark.text.length * WIDE[mark.face] * mark.size * drawing.scale, mark.size * drawing.scale];
    const upright = Math.abs(Math.sin((mark.angle * Math.PI) / 180)) > 0.5;
    const [across, up] = upright ? [tall, long] : [long, tall];
    const from = upright || mark.align === "centre" ? across / 2 : mark.align === "right" ? across : 0;
    u0 = Math.min(u0, mark.x - from);
    u1 = Math.max(u1, mark.x + across - from);
    low = Math.min(low, mark.y - up / 2);
    high = Math.max(high, mark.y + up / 2);
  }
  return [u0, low, u1, high];
}

/** The usual scale that is nearest to the one that a zoom asks for. */
export function nearestScale(k: number, scales: readonly number[]): number | undefined {
  const away = (scale: number) => Math.abs(Math.log((scale * k) / PX_PER_PAPER_MM));
  return [...scales].sort((a, b) => away(a) - away(b))[0];
}

/** The nearest zoom, and the usual scale that it is drawn at, of those at which a drawing fits as that scale makes it. */
function bestZoom(scales: readonly number[], fits: (scale: number) => number): [number, number] | null {
  const sorted = [...scales].sort((a, b) => a - b);
  const found = sorted.flatMap((scale, index): [number, number][] => {
    // No nearer than where the next larger scale takes over.
    const nearest = PX_PER_PAPER_MM / Math.sqrt(scale * (sorted[index - 1] ?? scale / 4));
    const k = Math.min(fits(scale), nearest * 0.999);
    return nearestScale(k, scales) === scale ? [[scale, k]] : [];
  });
  return found.sort((a, b) => b[1] - a[1])[0] ?? null;
}

/** The viewport that shows both drawings on one horizontal scale: whole, unless the plan is so deep that the view
 * would be lost; then the plan stands with its near side, or its section line, in sight. */
export function fitted(
  panes: Panes,
  planDrawing: Drawing | undefined,
  viewDrawing: Drawing | undefined,
  whole: Whole,
  scales: readonly number[],
  beside?: Drawing,
): Viewport {
  if (whole === "strip" && viewDrawing?.marks.length) return stripFitted(panes, planDrawing, viewDrawing, beside);
  if (whole === "detail" && viewDrawing?.marks.length) return detailFitted(panes, viewDrawing, scales);
  const planHeight = panes.planBottom - panes.planTop;
  const room = panes.width - LADDER - 2 * EDGE;
  const plan =
    whole === "plan" ? dimensionedBounds(planDrawing, room, planHeight - 1.6 * EDGE) : boundsOf(planDrawing, "plan");
  const viewHeight = panes.viewBottom - panes.viewTop;
  const own =
    planHeight > 40 || !viewDrawing?.marks.length
      ? boundsOf(viewDrawing, "view")
      : letteredBounds(viewDrawing, room, viewHeight - 2 * EDGE);
  const view = beside ? joined(own, viewDrawing, beside) : own;
  const shown = [planHeight > 40 ? plan : null, viewHeight > 40 ? view : null].filter((b): b is Bounds => b !== null);
  const u0 = Math.min(...shown.map((b) => b[0]));
  const u1 = Math.max(...shown.map((b) => b[2]));
  const byView = Math.min(
    room / (u1 - u0),
    viewHeight > 40 ? (viewHeight - 2 * EDGE) / (view[3] - view[1]) : Number.POSITIVE_INFINITY,
  );
  const byPlan = planHeight > 40 ? (planHeight - 1.6 * EDGE) / (plan[3] - plan[1]) : Number.POSITIVE_INFINITY;
  const k = Math.min(byView, Math.max(byPlan, viewHeight > 40 && whole === "view" ? VIEW_SHARE * byView : 0));
  const cut = extentOf(planDrawing, (part) => part.startsWith(`${viewDrawing?.name.split(":")[1]}/section/`));
  const deep = k > byPlan * 1.001;
  const focus = deep ? (cut ? (cut.y0 + cut.y1) / 2 : plan[1] + (planHeight - EDGE) / k / 2) : (plan[1] + plan[3]) / 2;
  return {
    k,
    u: LADDER + EDGE + room / 2 - (k * (u0 + u1)) / 2,
    w: (panes.planTop + panes.planBottom) / 2 + k * focus,
    v: (panes.viewTop + panes.viewBottom) / 2 + (k * (view[1] + view[3])) / 2 + EDGE / 3,
  };
}

/** What shows a plan whole in its pane, whatever the view below it is zoomed to; from the upper edge of that pane. */
export function keyFitted(panes: Panes, plan: Drawing): { k: number; u: number; w: number } {
  const [u0, low, u1, high] = boundsOf(plan, "plan");
  const tall = panes.planBottom - panes.planTop;
  const k = Math.min((panes.width - 4 * EDGE) / (u1 - u0), (tall - EDGE) / (high - low));
  return { k, u: panes.width / 2 - (k * (u0 + u1)) / 2, w: tall / 2 + (k * (low + high)) / 2 };
}

/** Whether what is built in the view no longer lies within its pane. */
export function outgrown(at: Viewport, panes: Panes, view: Drawing | undefined): boolean {
  const built = builtOf(view);
  if (!built || panes.viewBottom - panes.viewTop < 80) return false;
  const top = at.v - at.k * built.y1;
  const [left, right] = [at.u + at.k * built.u0, at.u + at.k * built.u1];
  return top < panes.viewTop + EDGE / 2 || left < 0 || right > panes.width;
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
export function extentOf(
  drawing: Drawing | undefined,
  wanted: (part: string, index: number) => boolean,
): Extent | null {
  let found: Extent | null = null;
  drawing?.marks.forEach((mark, index) => {
    if (!mark.part || ("path" in mark && mark.feature === "leader") || !wanted(mark.part, index)) return;
    const vertices = "rings" in mark ? mark.rings[0] : "path" in mark ? mark.path : [];
    for (const [x, y] of pointsAlong(vertices as number[][])) {
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
