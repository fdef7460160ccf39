import type { ReactNode } from "react";
import { lengthText } from "../../actions/lengthText";
import { Note } from "../../ui/Note";
import { Select } from "../../ui/Select";
import { useHeld } from "../../useProject";
import { fillOf, inkOf } from "./colours";
import type { Look, Reading } from "./useReading";

const UNITS = [
  ["", "as found"],
  ["mm", "millimetres"],
  ["cm", "centimetres"],
  ["m", "metres"],
  ["in", "inches"],
  ["ft", "feet"],
] as const;

const MEANINGS = [
  ["unknown", "by what is drawn"],
  ["wall", "walls"],
  ["door", "doors"],
  ["window", "windows"],
  ["furniture", "furniture and fixtures"],
  ["stair", "stairs"],
  ["hatch", "hatching"],
  ["text", "lettering"],
  ["dimension", "dimensions"],
  ["grid", "grid"],
  ["sheet", "frame and title"],
  ["above", "roof, ceiling, services, site"],
  ["nothing", "left out"],
] as const;

const AS_DRAWN = "as drawn";
/** Dimensions that differ by less (mm) agree: texts are rounded. */
const AGREES = 1;

export function Section({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section aria-label={title} className="flex flex-col gap-1.5 border-t border-rule pt-3">
      <h3 className="text-[12px] font-semibold">{title}</h3>
      {children}
    </section>
  );
}

/** What is to be known of how a file was read, before anything is made of it. */
export function Notes({ look }: { look: Look }) {
  return look.notes.map((note) => (
    <Note key={note} tone="note">
      {note}
    </Note>
  ));
}

/** The unit that was found, with its reason; another one can be said. */
export function UnitChoice({ reading, look }: { reading: Reading; look: Look }) {
  const { unit } = look;
  return (
    <Section title="Unit">
      <p className={unit.doubtful ? "text-check" : ""}>
        {unit.doubtful ? "Probably " : ""}
        {unit.name}, {Math.round(unit.confidence * 100)} % sure
      </p>
      <p className="text-[12px] text-quiet">{unit.reason}</p>
      {!look.model && (
        <Select
          aria-label="Unit of the file"
          value={reading.choices.unit ?? ""}
          onChange={(value) => reading.readBy({ unit: value || null, measured: null, says: "" })}
          className="w-full"
        >
          {UNITS.map(([value, label]) => (
            <option key={value} value={value}>
              {label}
            </option>
          ))}
        </Select>
      )}
    </Section>
  );
}

/** Each thickness with the make-up that its walls get. */
export function Thicknesses({ reading, look }: { reading: Reading; look: Look }) {
  const { choices, take } = reading;
  const { units } = useHeld().state.project;
  return (
    <Section title="Walls">
      {look.groups.map((group) => (
        <div key={group.key} className="flex flex-col gap-1">
          <span className="flex items-center gap-2">
            <span className="size-3 shrink-0 rounded-sm" style={{ background: fillOf(look.groups, group.key) }} />
            <span className="font-mono text-[12px]">
              {group.thickness ? lengthText(group.thickness, units) : "one line"}
            </span>
            <span className="text-[12px] text-quiet">
              {group.outer ? "outer" : "inner"}, {group.count} {group.count === 1 ? "wall" : "walls"},{" "}
              {lengthText(group.length, units)} in all
              {group.layers.length > 1 && `, drawn in ${group.layers.length} layers`}
            </span>
          </span>
          <Select
            aria-label={`Make-up of walls ${group.key}`}
            value={choices.make_ups[group.key] ?? group.make_up}
            onChange={(value) => take({ make_ups: { ...choices.make_ups, [group.key]: value } })}
            className="w-full"
          >
            {group.thickness > 0 && (
              <option value={AS_DRAWN}>as drawn, {lengthText(group.thickness, units)} thick</option>
            )}
            {look.make_ups.map((made) => (
              <option key={made.id} value={made.id}>
                {made.name}, {lengthText(made.thickness, units)} thick
              </option>
            ))}
          </Select>
        </div>
      ))}
    </Section>
  );
}

/** Each plan of the file with the storey that it is. */
export function Storeys({ reading, look }: { reading: Reading; look: Look }) {
  const { choices, take } = reading;
  if (look.storeys.length < 2 && look.levels.length < 2) return null;
  const chosen = Object.fromEntries(look.storeys.map((held, place) => [String(place), held.level]));
  return (
    <Section title="Plans in the file">
      {look.storeys.map((storey, place) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: plans are named by their place
        <div key={place} className="flex flex-col gap-1 text-[12px] text-quiet">
          {storey.title}, {storey.walls} walls
          <Select
            aria-label={`Storey of ${storey.title}`}
            value={choices.storeys[place] ?? storey.level}
            onChange={(value) => take({ storeys: { ...chosen, ...choices.storeys, [place]: value } })}
            className="w-full"
          >
            <option value="">leave out</option>
            {look.levels.map((level) => (
              <option key={level.level} value={level.level}>
                {level.name}
              </option>
            ))}
          </Select>
        </div>
      ))}
    </Section>
  );
}

/** Each layer with what it is taken to speak of. */
export function Layers({ reading, look }: { reading: Reading; look: Look }) {
  return (
    <Section title="Layers of the file">
      {look.layers.map((layer, place) => (
        <div key={layer.name} className="grid grid-cols-[12px_minmax(0,1fr)_132px] items-center gap-2">
          <span className="h-0.5 w-3" style={{ background: inkOf(place) }} />
          <span className="truncate font-mono text-[11.5px]" title={layer.name}>
            {layer.name}
          </span>
          <Select
            aria-label={`What layer ${layer.name} is`}
            value={reading.choices.layers[layer.name] ?? layer.meaning}
            onChange={(value) => reading.readBy({ layers: { ...reading.choices.layers, [layer.name]: value } })}
          >
            {MEANINGS.map(([value, label]) => (
              <option key={value} value={value}>
                {label}
              </option>
            ))}
          </Select>
        </div>
      ))}
    </Section>
  );
}

/** How far something is turned, and which way. */
const turnedBy = (degrees: number) =>
  `${Math.abs(Math.round(degrees * 10) / 10)}° to the ${degrees > 0 ? "left" : "right"}`;

/** Heights that are written in the plan. */
export function Written({ look }: { look: Look }) {
  const texts = [...new Set(look.levels_written.map((held) => held.text))];
  if (texts.length === 0) return null;
  return (
    <Section title="Heights written in it">
      <p className="font-mono text-[11.5px]">{texts.join(", ")}</p>
    </Section>
  );
}

/** Where north is, and how the plan may be turned. */
export function Lies({ reading, look }: { reading: Reading; look: Look }) {
  if (!look.north && look.turns.length === 0) return null;
  const turned = look.north ? Math.round(look.north.angle * 10) / 10 : 0;
  return (
    <Section title="How it lies">
      {look.north && (
        <p className="text-[12px]">
          {turned === 0 ? "North is up." : `North lies ${turnedBy(-turned)} of up.`}
          {turned !== 0 && look.turns.length > 0 && reading.choices.turn === 0 && " Sides are named with up as north."}
        </p>
      )}
      {look.turns.length > 0 && (
        <Select
          aria-label="How the plan is laid"
          value={String(reading.choices.turn)}
          onChange={(value) => reading.take({ turn: Number(value) })}
          className="w-full"
        >
          <option value="0">as it is drawn</option>
          {look.turns.map(({ words, degrees }) => (
            <option key={words} value={String(degrees)}>
              {words}: {turnedBy(degrees)}
            </option>
          ))}
        </Select>
      )}
    </Section>
  );
}

/** Texts of dimensions beside what is drawn. */
export function Dimensions({ look }: { look: Look }) {
  const { units } = useHeld().state.project;
  if (look.dimensions.length === 0) return null;
  const off = look.dimensions.filter((held) => Math.abs(held.difference) > AGREES);
  return (
    <Section title="Dimensions">
      <p className="text-[12px]">
        {look.dimensions.length - off.length} of {look.dimensions.length} say what is drawn.
      </p>
      {off.length > 0 && (
        <table className="w-full font-mono text-[11.5px]">
          <thead>
            <tr className="text-left text-quiet">
              <th className="font-normal">text</th>
              <th className="text-right font-normal">drawn</th>
              <th className="text-right font-normal">difference</th>
            </tr>
          </thead>
          <tbody>
            {off.slice(0, 30).map((held) => (
              <tr key={`${held.text} ${held.at}`}>
                <td>{held.text}</td>
                <td className="text-right">{lengthText(held.measured, units)}</td>
                <td className="text-right text-check">
                  {held.difference > 0 ? "+" : ""}
                  {lengthText(held.difference, units)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </Section>
  );
}

/** What nothing was made of, by layer. */
export function LeftOver({ look }: { look: Look }) {
  return (
    <Section title="Left over">
      {look.left.length === 0 && <p className="text-[12px] text-quiet">Nothing: all that is drawn was understood.</p>}
      <ul className="text-[12px]">
        {look.left.map((held) => (
          <li key={`${held.layer} ${held.what}`} className="flex justify-between gap-2">
            <span className="truncate font-mono text-[11.5px]">{held.layer}</span>
            <span className="shrink-0 text-quiet">
              {held.count} {held.what}
            </span>
          </li>
        ))}
      </ul>
    </Section>
  );
}
