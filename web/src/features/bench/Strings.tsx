import { useState } from "react";
import { type Show, type StringShow, stringOf, stringWith } from "../../actions/shown";
import type { Drawing } from "../../api/client";
import { Select } from "../../ui/Select";
import { useHeld } from "../../useProject";

const SIDES = ["top", "right", "bottom", "left"] as const;
/** Rows of strings in words; those of the rooms have no side. */
const ROWS: Record<string, string> = {
  overall: "overall",
  bearing: "edges and bearings",
  breaks: "breaks",
  grid: "grid",
  openings: "openings",
  widths: "widths",
  levels: "level to level",
  footings: "footings",
  walls: "faces that bear",
  overhangs: "overhangs",
  spans: "walls and ridges",
  across: "through the rooms, across",
  along: "through the rooms, up and down",
  clear: "clear heights",
  depths: "depths of members",
};
const DENSITY: [string, string][] = [
  ["", "dense as the project says"],
  ["coarser", "coarser"],
  ["usual", "as usual"],
  ["denser", "denser"],
];
const OPENINGS: [string, string][] = [
  ["", "openings as the project says"],
  ["centres", "to centres"],
  ["sides", "to sides"],
];
const WALLS: [string, string][] = [
  ["", "walls as the project says"],
  ["frame", "one face of frame"],
  ["structure", "faces of structure"],
  ["finish", "finished faces"],
];

interface Props {
  drawing: Drawing;
  show: Show;
}

/** The strings of dimensions that a view has, side by side: each is shown or left out; a row is denser or coarser, and
 * measured to other faces. */
export function Strings({ drawing, show }: Props) {
  const { state, commit } = useHeld();
  const [open, setOpen] = useState<string | null>(null);
  const [side, setSide] = useState<string | null>(null);
  const strings = new Map(drawing.strings ?? []);
  if (!strings.size) return null;
  const names = [...strings.keys()];
  const sided = [...new Set(names.filter((name) => !name.startsWith("inside:")).map(rowOf))];
  const inside = names.filter((name) => name.startsWith("inside:"));
  const change = (of: string[], changes: Partial<StringShow>) =>
    commit(of.map((name) => stringWith(state.project, drawing.name, name, changes)));
  /** Back to what is usual, or away from it. */
  const turned = (name: string): StringShow["shown"] => {
    if (stringOf(state.project, drawing.name, name).shown !== "usual") return "usual";
    return strings.get(name) ? "hidden" : "shown";
  };
  const tick = (name: string, label: string) => (
    <input
      type="checkbox"
      aria-label={label}
      checked={strings.get(name)}
      onChange={() => change([name], { shown: turned(name) })}
      className="accent-[var(--color-line)]"
    />
  );
  const word = (row: string) => (
    <button
      type="button"
      aria-expanded={open === row}
      title="What this string measures"
      className="text-left hover:text-line"
      onClick={() => {
        setOpen(open === row ? null : row);
        setSide(null);
      }}
    >
      {inWords(row)}
    </button>
  );
  const settings = (row: string, all: string[]) => {
    const of = side && all.includes(`${side}:${row}`) ? [`${side}:${row}`] : all;
    const field = (label: string, options: [string, string][], key: "density" | "openings" | "walls") => {
      const said = new Set(of.map((name) => show.strings.find((string) => string.name === name)?.[key] ?? ""));
      return (
        <Select
          aria-label={label}
          value={said.size > 1 ? undefined : [...said][0]}
          unchosen="not the same on all sides"
          onChange={(value) => change(of, { [key]: value || null } as Partial<StringShow>)}
        >
          {options.map(([value, words]) => (
            <option key={value} value={value}>
              {words}
            </option>
          ))}
        </Select>
      );
    };
    return (
      <div className="my-1 grid gap-1 border-l-2 border-rule pl-2">
        {all.length > 1 && (
          <Select aria-label={`${inWords(row)}: side`} value={side ?? ""} onChange={(value) => setSide(value || null)}>
            <option value="">all sides</option>
            {SIDES.filter((name) => all.includes(`${name}:${row}`)).map((name) => (
              <option key={name} value={name}>
                {name} only
              </option>
            ))}
          </Select>
        )}
        {field(`${inWords(row)}: how dense`, DENSITY, "density")}
        {row === "openings" &&
          of.some((name) => isAcross(drawing, name)) &&
          field("openings are measured", OPENINGS, "openings")}
        {(row === "across" || row === "along") && field("walls are measured", WALLS, "walls")}
      </div>
    );
  };
  return (
    <fieldset className="mt-2">
      <legend className="mb-1 font-semibold">Strings of dimensions</legend>
      <table className="w-full">
        <thead>
          <tr className="text-[11px] text-quiet">
            <th aria-label="string" />
            {SIDES.map((side) => (
              <th key={side} className="w-11 font-normal">
                {side}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {sided.map((row) => {
            const of = SIDES.map((side) => `${side}:${row}`).filter((name) => strings.has(name));
            return [
              <tr key={row}>
                <td>{word(row)}</td>
                {SIDES.map((side) => (
                  <td key={side} className="text-center">
                    {strings.has(`${side}:${row}`) && tick(`${side}:${row}`, `${inWords(row)}, ${side}`)}
                  </td>
                ))}
              </tr>,
              open === row && (
                <tr key={`${row} settings`}>
                  <td colSpan={SIDES.length + 1}>{settings(row, of)}</td>
                </tr>
              ),
            ];
          })}
        </tbody>
      </table>
      {inside.map((name) => (
        <div key={name}>
          <div className="flex items-center gap-1.5 py-[1px]">
            {tick(name, inWords(rowOf(name)))}
            {word(rowOf(name))}
          </div>
          {open === rowOf(name) && settings(rowOf(name), [name])}
        </div>
      ))}
    </fieldset>
  );
}

/** Whether a string runs along walls, not up them. */
function isAcross(drawing: Drawing, name: string): boolean {
  return drawing.kind === "plan" || name.startsWith("bottom:");
}

function rowOf(name: string): string {
  return name.split(":")[1];
}

function inWords(row: string): string {
  return ROWS[row] ?? row;
}
