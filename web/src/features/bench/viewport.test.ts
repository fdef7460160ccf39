import { describe, expect, it } from "vitest";
import type { Drawing } from "../../api/client";
import { fitted, nearestScale, type Panes, PX_PER_PAPER_MM } from "./viewport";

const SCALES = [2, 5, 10, 20, 50, 100];
const PANES: Panes = { width: 900, planTop: 38, planBottom: 300, viewTop: 307, viewBottom: 730 };

/** A detail of 1 m by 0.8 m with so many notes at its right, 4 mm of paper one under the other. */
function detail(notes: number): Drawing {
  const scale = 10;
  const ring = [
    [0, 0],
    [1000, 0],
    [1000, 800],
    [0, 800],
  ].map(([x, y]) => [x, y, 0]);
  const rows = Array.from({ length: notes }, (_, row) => {
    const y = 400 + (notes / 2 - row) * 4 * scale;
    const text = { x: 1100, y, text: "a piece of it, sealed", size: 2.2, align: "left", valign: "middle", angle: 0 };
    return { ...text, face: "sans", part: "wall/note", feature: "label" };
  });
  const body = { rings: [ring], fill: "paper", part: "wall/cut", feature: "cut" };
  return { name: "detail:d", scale, marks: [body, ...rows], bounds: [0, 0, 1500, 800] } as unknown as Drawing;
}

const shown = (notes: number) => fitted(PANES, undefined, detail(notes), "detail", SCALES);

describe("a detail is fitted", () => {
  it("with all of its notes where they have room", () => {
    const at = shown(12);
    const scale = nearestScale(at.k, SCALES) ?? 0;
    const rows = (12 * 4 + 2) * scale * at.k;
    expect(rows).toBeLessThan(PANES.viewBottom - PANES.viewTop);
    expect(at.k * 800).toBeGreaterThan(100);
  });

  it("large enough to be seen, where its notes are taller than the pane", () => {
    const tall = 60 * 4 * PX_PER_PAPER_MM;
    expect(tall).toBeGreaterThan(PANES.viewBottom - PANES.viewTop);
    expect(shown(60).k * 800).toBeGreaterThan(100);
  });
});
