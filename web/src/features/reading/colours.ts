/** Fills of walls by thickness, the longest group first: earth and glass tones, told apart by lightness too. */
const FILLS = ["#1f6f78", "#a8402f", "#456b40", "#8a5c0e", "#5b4a7d", "#3f5f8a", "#7a5230", "#4d4d4d"];
/** Lines of the drawing, by layer. */
const INKS = [
  "#7b6f5c",
  "#5f7a86",
  "#8b6a78",
  "#6d7f5a",
  "#86704a",
  "#61688a",
  "#7d5f4a",
  "#5a7f7a",
  "#85805f",
  "#74618a",
];

export const fillOf = (groups: readonly { key: string }[], key: string) =>
  FILLS[
    Math.max(
      groups.findIndex((group) => group.key === key),
      0,
    ) % FILLS.length
  ];

export const inkOf = (layer: number) => INKS[layer % INKS.length];
