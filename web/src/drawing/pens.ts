/** How pens and fills look on screen; widths in px. Widths on paper belong to the service. */
interface ScreenPen {
  width: number;
  colour: string;
  dash?: string;
}

const INK = "var(--color-ink)";

const PENS: Record<string, ScreenPen> = {
  ground: { width: 2.4, colour: INK },
  cut: { width: 1.35, colour: INK },
  cut_layer: { width: 0.8, colour: INK },
  outline: { width: 1.3, colour: INK },
  edge: { width: 0.95, colour: INK },
  crease: { width: 0.65, colour: INK },
  fine: { width: 0.5, colour: INK },
  existing: { width: 0.6, colour: "#7b7d7c" },
  removed: { width: 0.95, colour: INK, dash: "4 3" },
  beyond: { width: 0.6, colour: "#7b7d7c" },
  hidden: { width: 0.75, colour: "#6b6d6c", dash: "5 3" },
  centre: { width: 0.7, colour: "#6b6d6c", dash: "12 3 2 3" },
  level: { width: 0.7, colour: "#a8a18e", dash: "12 3 2 3" },
  section: { width: 1, colour: "var(--color-cut)", dash: "14 4 2 4" },
  section_mark: { width: 2, colour: "var(--color-cut)" },
  dimension: { width: 0.6, colour: "#6b6d6c" },
  symbol: { width: 0.8, colour: INK },
  note: { width: 0.7, colour: INK },
  slab_edge: { width: 1.5, colour: INK },
  void: { width: 0.8, colour: INK },
  wall_below: { width: 0.8, colour: "#6b6d6c", dash: "5 3" },
  wall_above: { width: 0.5, colour: INK },
  beam: { width: 1.2, colour: INK, dash: "12 4" },
  span: { width: 0.7, colour: INK },
  hatch: { width: 0.5, colour: "#8d8c86" },
};

const FILLS: Record<string, string> = {
  ink: INK,
  paper: "var(--color-paper)",
  poche: "#3d4145",
  existing: "#d2d2ce",
  section: "var(--color-cut)",
};

export function screenPen(name: string): ScreenPen {
  return PENS[name] ?? PENS.edge;
}

export function screenFill(fill: string): string {
  return FILLS[fill] ?? fill;
}
