import { type ReactNode, useState } from "react";
import { lengthText } from "../../actions/lengthText";
import type { Schemas } from "../../api/client";
import { readLength, usePage, useParticulars } from "../../api/queries";
import { Button } from "../../ui/Button";
import { FieldRow } from "../../ui/FieldRow";
import { Note } from "../../ui/Note";
import { useHeld } from "../../useProject";
import { ASKS, type Point, type Way } from "./lying";

type Background = NonNullable<Schemas["Project"]["backgrounds"]>[number];

const WAYS: [Way, string][] = [
  ["scale", "Set its scale by a length"],
  ["lay", "Lay it on points of the house"],
  ["straighten", "Straighten it"],
  ["crop", "Crop it"],
];

interface Props {
  here: readonly Background[];
  held: Background | undefined;
  way: Way | null;
  picked: readonly Point[];
  reason: string;
  onChoose: (id: string) => void;
  onWay: (way: Way | null) => void;
  onDone: (also: { length?: number; early?: boolean }) => void;
  children: ReactNode;
}

/** The backgrounds of a view: which one is meant, how it is brought to its place, and its facts. */
export function BackgroundSide({ here, held, way, picked, reason, onChoose, onWay, onDone, children }: Props) {
  const { id, state, commit } = useHeld();
  return (
    <aside
      className="flex min-h-0 flex-col gap-3 overflow-y-auto border-l border-rule px-4 py-3 text-[13px]"
      aria-label="Backgrounds of the view"
    >
      {children}
      {here.length === 0 && (
        <p className="text-quiet">
          Drop a plan or an elevation here: DXF, a page of a PDF, SVG, PNG or JPEG. It lies under this view, to be drawn
          over and snapped to.
        </p>
      )}
      {here.length > 1 && (
        <div className="flex flex-wrap gap-1">
          {here.map((one) => (
            <Button
              key={one.id}
              tone={one.id === held?.id ? "chosen" : "plain"}
              aria-pressed={one.id === held?.id}
              onClick={() => onChoose(one.id)}
            >
              {one.name}
            </Button>
          ))}
        </div>
      )}
      {held && (
        <>
          <Notes held={held} />
          {reason && <p className="text-[12px] text-quiet">Unit found: {reason}</p>}
          <div className="flex flex-col gap-1">
            {WAYS.map(([name, label]) => (
              <Button
                key={name}
                tone={way === name ? "chosen" : "plain"}
                aria-pressed={way === name}
                onClick={() => onWay(name)}
              >
                {label}
              </Button>
            ))}
          </div>
          {way === "scale" && picked.length === ASKS.scale.length && (
            <Known onLength={(length) => onDone({ length })} />
          )}
          {way === "lay" && picked.length === 2 && (
            <Button tone="strong" onClick={() => onDone({ early: true })}>
              Only move it
            </Button>
          )}
          <Fields project={id} element={held.id} version={state.version} />
          <Button onClick={() => commit([{ kind: "remove", elements: [held.id] }])}>Remove this background</Button>
        </>
      )}
    </aside>
  );
}

/** What a page does not show, or is not snapped to, in words. */
function Notes({ held }: { held: Background }) {
  const { data } = usePage(held.file, held.page ?? 0);
  return data?.notes.map((note) => (
    <Note key={note} tone="note">
      {note}
    </Note>
  ));
}

/** The length between two points, as it is known. */
function Known({ onLength }: { onLength: (mm: number) => void }) {
  const { units } = useHeld().state.project;
  const [text, setText] = useState("");
  const [wrong, setWrong] = useState<string | null>(null);
  async function send() {
    const { value, wrong: why } = await readLength(text, units);
    if (value && value > 0) onLength(value);
    else setWrong(why ?? "type a length above nothing");
  }
  return (
    <div>
      <label className="flex items-center gap-2">
        <span className="text-[12px] text-quiet">They are apart</span>
        <input
          // biome-ignore lint/a11y/noAutofocus: two points were just pointed at, and the length is what comes next
          autoFocus
          value={text}
          placeholder={lengthText(units === "mm" ? 5000 : 4876.8, units)}
          onChange={(event) => setText(event.target.value)}
          onKeyDown={(event) => event.key === "Enter" && send()}
          className="h-7 w-full rounded-md border border-rule bg-field px-2 text-right font-mono text-[12.5px]"
        />
        <Button tone="strong" onClick={send}>
          Set
        </Button>
      </label>
      {wrong && <Note>{wrong}</Note>}
    </div>
  );
}

function Fields({ project, element, version }: { project: string; element: string; version: number }) {
  const { data, came } = useParticulars(project, element, version);
  return (
    <div className="flex flex-col gap-1.5 border-t border-rule pt-3">
      {data?.fields.map((field) => (
        <FieldRow key={`${element} ${field.id}`} element={element} field={field} came={came} />
      ))}
    </div>
  );
}
