import { Dialog, DialogPanel, DialogTitle } from "@headlessui/react";
import { X } from "lucide-react";
import { type DragEvent, useRef, useState } from "react";
import { lengthText } from "../../actions/lengthText";
import { useReadPlan } from "../../api/queries";
import { usePick } from "../../store";
import { Button } from "../../ui/Button";
import { FileButton } from "../../ui/FileButton";
import { Note } from "../../ui/Note";
import { useSearchLeft } from "../../ui/useSearchLeft";
import { useHeld } from "../../useProject";
import { PlanPreview, type Shown } from "./PlanPreview";
import {
  Dimensions,
  Layers,
  LeftOver,
  Lies,
  Notes,
  Section,
  Storeys,
  Thicknesses,
  UnitChoice,
  Written,
} from "./ReadingSide";
import { type Look, type Reading, type Spot, useReading } from "./useReading";

/** A floor plan from a file: what is drawn and what was found in it, corrected, then taken over as one step. */
export function ReadingScreen() {
  const { panel, planFile, set } = usePick("panel", "planFile", "set");
  const { storey } = useHeld();
  const close = () => set({ panel: null, planFile: null });
  useSearchLeft(panel === "plan");
  return (
    <Dialog open={panel === "plan"} onClose={close} className="relative z-40">
      <div className="fixed inset-0 bg-ink/15" aria-hidden />
      <div className="fixed inset-0 p-5">
        <DialogPanel className="flex h-full flex-col overflow-hidden rounded-lg border border-rule bg-ground">
          <header className="flex items-center justify-between border-b border-rule px-4 py-2.5">
            <DialogTitle className="text-[15px] font-semibold">
              Read a plan{planFile && <span className="ml-2 font-mono text-[12px] font-normal">{planFile.name}</span>}
            </DialogTitle>
            <div className="flex gap-2">
              {planFile && !/\.ifc$/i.test(planFile.name) && (
                <Button
                  title="Nothing is built: the drawing lies under the plan, to be drawn over"
                  onClick={() => set({ panel: "backgrounds", under: storey.plan, underFile: planFile, planFile: null })}
                >
                  Only lay it under the plan
                </Button>
              )}
              <FileButton
                label={planFile ? "Another file" : "Choose a DXF or IFC file"}
                name="Plan file"
                accept=".dxf,.ifc"
                tone={planFile ? "plain" : "strong"}
                onFile={(file) => set({ planFile: file })}
              />
              <Button aria-label="Close" onClick={close}>
                <X size={14} aria-hidden />
              </Button>
            </div>
          </header>
          {planFile ? (
            <Opened key={`${planFile.name} ${planFile.lastModified} ${planFile.size}`} file={planFile} onDone={close} />
          ) : (
            <Empty onFile={(file) => set({ planFile: file })} />
          )}
        </DialogPanel>
      </div>
    </Dialog>
  );
}

function Empty({ onFile }: { onFile: (file: File) => void }) {
  const drop = (event: DragEvent) => {
    event.preventDefault();
    event.stopPropagation();
    const file = event.dataTransfer.files[0];
    if (file) onFile(file);
  };
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: files are dropped here; the button does the same by keyboard
    <div className="grid grow place-items-center" onDragOver={(event) => event.preventDefault()} onDrop={drop}>
      <p className="max-w-[52ch] text-center text-quiet">
        Drop a floor plan in DXF here, or a model in IFC. Walls are found by their faces, outlines, hatching or widths,
        whatever their layers are called; nothing is built before you take it over.
      </p>
    </div>
  );
}

function Opened({ file, onDone }: { file: File; onDone: () => void }) {
  const reading = useReading(file);
  const { look, error, busy } = reading;
  if (!look)
    return (
      <div className="grid grow place-items-center p-6">
        {error ? <Note>{error.message}</Note> : <Progress name={file.name} reading={reading} />}
      </div>
    );
  return <Judged file={file} reading={reading} look={look} busy={busy} error={error} onDone={onDone} />;
}

type Added = "wall" | "window" | "door" | "opening";

const ADDED: [Added, string][] = [
  ["wall", "Wall"],
  ["window", "Window"],
  ["door", "Door"],
  ["opening", "Opening"],
];

/** How far the reading is: in words, in numbers, and as a bar. */
function Progress({ name, reading }: { name: string; reading: Reading }) {
  const { step, share } = reading.progress ?? { step: "", share: 0 };
  const percent = Math.round(share * 100);
  return (
    <div className="flex w-80 flex-col gap-2" role="status">
      <p className="truncate">Reading {name}</p>
      <div className="h-1.5 overflow-hidden rounded bg-strip" role="progressbar" aria-valuenow={percent}>
        <div className="h-full bg-line transition-[width]" style={{ width: `${Math.max(percent, 2)}%` }} />
      </div>
      <p className="text-[12px] text-quiet">{step ? `${step}, ${percent} %` : "on its way"}</p>
    </div>
  );
}

const CHIPS: [Shown, string][] = [
  ["drawing", "Drawing"],
  ["found", "Found"],
  ["left", "Left over"],
];

function Judged({
  file,
  reading,
  look,
  busy,
  error,
  onDone,
}: {
  file: File;
  reading: Reading;
  look: Look;
  busy: boolean;
  error: Error | null;
  onDone: () => void;
}) {
  const { id, state } = useHeld();
  const { set } = usePick("set");
  const read = useReadPlan(id, state.version);
  const [shown, setShown] = useState<Record<Shown, boolean>>({ drawing: true, found: true, left: false });
  const [picked, setPicked] = useState<(readonly [number, number])[] | null>(null);
  const [adding, setAdding] = useState<Added | null>(null);
  const [first, setFirst] = useState<Spot | null>(null);
  const [pointed, setPointed] = useState<string | null>(null);
  const { choices } = reading;
  const out = new Set(choices.without_walls);
  const standing = look.walls.filter((wall) => wall.stands).length;
  const walls = look.walls.filter((wall, place) => !wall.stands && !out.has(place)).length;
  const openings = look.openings.filter(
    (held, place) => !held.stands && !out.has(held.wall) && !choices.without_openings.includes(place),
  ).length;
  const stairs = look.stairs.filter((held, place) => held.built && !choices.without_stairs.includes(place)).length;
  const follows = look.moved.filter(({ id }) => !choices.unmoved.includes(id)).length + choices.removed.length;

  /** A click for what was not found: between the faces of a wall, or on both ends of an opening. */
  function add(point: readonly [number, number], end: readonly [number, number]) {
    if (adding === "wall") {
      reading.readBy({ pointed: [...choices.pointed, [point[0], point[1]]] });
    } else if (adding && first) {
      reading.take({ marked: [...choices.marked, { start: first, end: [end[0], end[1]], kind: adding }] });
      setFirst(null);
    } else setFirst([end[0], end[1]]);
  }

  function takeOver() {
    reading.remember();
    read.mutate(
      { file, choices },
      {
        onSuccess: ({ built, skipped }) => {
          const left = skipped.length > 0 ? ` Not built: ${skipped.join("; ")}.` : "";
          set({ message: { text: `Built ${built.join(", ")}.${left}`, tone: skipped.length > 0 ? "wrong" : "note" } });
          onDone();
        },
      },
    );
  }

  return (
    <div className="grid min-h-0 grow grid-cols-[minmax(0,1fr)_340px]">
      <div className="flex min-h-0 flex-col">
        <div className="flex items-center gap-1.5 border-b border-rule px-3 py-1.5">
          {CHIPS.map(([name, label]) => (
            <Button
              key={name}
              tone={shown[name] ? "chosen" : "plain"}
              aria-pressed={shown[name]}
              onClick={() => setShown({ ...shown, [name]: !shown[name] })}
            >
              {label}
            </Button>
          ))}
          {!look.model && picked === null && (
            <span className="ml-3 flex items-center gap-1.5 text-[12px] text-quiet">
              Not found:
              {ADDED.map(([name, label]) => (
                <Button
                  key={name}
                  tone={adding === name ? "chosen" : "plain"}
                  aria-pressed={adding === name}
                  onClick={() => {
                    setAdding(adding === name ? null : name);
                    setFirst(null);
                  }}
                >
                  {label}
                </Button>
              ))}
            </span>
          )}
          {!look.model && adding === null && (
            <Scale reading={reading} look={look} picked={picked} onPicked={setPicked} />
          )}
        </div>
        <div className="relative min-h-0 grow">
          <PlanPreview
            reading={reading}
            look={look}
            shown={shown}
            picking={adding !== null || (picked !== null && picked.length < 2)}
            picked={adding ? (first ? [first] : []) : (picked ?? [])}
            onPick={(point, end) => (adding ? add(point, end) : setPicked([...(picked ?? []), end]))}
            onPoint={setPointed}
          />
        </div>
        <p className="h-7 truncate border-t border-rule px-3 py-1.5 text-[12px] text-quiet" data-testid="pointed">
          {adding === "wall"
            ? "Click between the two faces of a wall that was not found."
            : adding
              ? `Click ${first ? "the other end" : "one end"} of the ${adding} in its wall.`
              : (pointed ?? "A click on a wall, an opening or a stair takes it out, another one takes it back in.")}
        </p>
      </div>
      <aside className="flex min-h-0 flex-col border-l border-rule" aria-label="What was found">
        <div className="flex min-h-0 grow flex-col gap-3 overflow-y-auto px-4 py-3 text-[13px]" aria-busy={busy}>
          {error && <Note>{error.message}</Note>}
          {!error && look.refused && <Note>{look.refused}</Note>}
          <p className="font-semibold">
            {walls} {walls === 1 ? "wall" : "walls"}, {openings} {openings === 1 ? "opening" : "openings"},{" "}
            {look.rooms.length} {look.rooms.length === 1 ? "room" : "rooms"}
            {stairs > 0 && `, ${stairs} ${stairs === 1 ? "stair" : "stairs"}`}
          </p>
          {(standing > 0 || look.gone.length + look.moved.length + look.own.length > 0) && (
            <Again reading={reading} look={look} standing={standing} />
          )}
          <Notes look={look} />
          <UnitChoice reading={reading} look={look} />
          <Lies reading={reading} look={look} />
          <Storeys reading={reading} look={look} />
          <Thicknesses reading={reading} look={look} />
          <Written look={look} />
          <Dimensions look={look} />
          {!look.model && <Layers reading={reading} look={look} />}
          <LeftOver look={look} />
          <Section title="Taken over with the walls">
            <Toggle label="Names of rooms" on={choices.rooms} onChange={(rooms) => reading.take({ rooms })} />
            <Toggle label="Grid lines" on={choices.grids} onChange={(grids) => reading.take({ grids })} />
            {look.roofs.length > 0 && (
              <Toggle
                label="Roofs, those that can be built as the model has them"
                on={choices.roofs}
                onChange={(roofs) => reading.take({ roofs })}
              />
            )}
            {look.model && (
              <Toggle
                label="The rest of the model, grey in the solid view"
                on={choices.rest !== ""}
                onChange={(on) => reading.take({ rest: on ? file.name : "" })}
              />
            )}
            {!look.model && (
              <Toggle
                label="The drawing, under the plan: what was not found is drawn over it"
                on={choices.under !== ""}
                onChange={(on) => reading.take({ under: on ? file.name : "" })}
              />
            )}
          </Section>
        </div>
        <footer className="flex flex-col gap-2 border-t border-rule px-4 py-3">
          {read.error && <Note>{read.error.message}</Note>}
          <Button
            tone="strong"
            className="justify-center"
            disabled={
              busy ||
              error !== null ||
              look.refused !== "" ||
              read.isPending ||
              walls + openings + stairs + follows === 0
            }
            onClick={takeOver}
          >
            {read.isPending ? "Building…" : "Take over"}
          </Button>
        </footer>
      </aside>
    </div>
  );
}

const BACK = { wall: "back_walls", opening: "back_openings" } as const;

/** What of the file stands already, what lies elsewhere in it, and what it no longer has: each followed or not. */
function Again({ reading, look, standing }: { reading: Reading; look: Look; standing: number }) {
  const { unmoved, removed } = reading.choices;
  // What is brought back is no longer among them, and can be left again.
  const seen = useRef(new Map<string, Look["own"][number]>());
  for (const held of look.own) seen.current.set(`${held.kind} ${held.number}`, held);
  const owned = [...seen.current.values()].filter(
    (held) => look.own.includes(held) || reading.choices[BACK[held.kind]].includes(held.number),
  );
  const flipped = (held: string[], id: string) =>
    held.includes(id) ? held.filter((other) => other !== id) : [...held, id];
  return (
    <Section title="Read again">
      <p className="text-[12px]">
        {standing} of its walls stand already, and keep their heights and make-ups; openings that are new are put into
        them.
      </p>
      {look.moved.length > 0 && <p className="text-[12px] text-quiet">It has elsewhere, and they follow:</p>}
      {look.moved.map(({ id, words }) => (
        <Toggle
          key={id}
          label={words}
          on={!unmoved.includes(id)}
          onChange={() => reading.take({ unmoved: flipped(unmoved, id) })}
        />
      ))}
      {look.gone.length > 0 && (
        <p className="text-[12px] text-cut">It no longer has these, shown dashed. Ticked, they are removed:</p>
      )}
      {look.gone.map(({ id, words }) => (
        <Toggle
          key={id}
          label={words}
          on={removed.includes(id)}
          onChange={() => reading.take({ removed: flipped(removed, id) })}
        />
      ))}
      {owned.length > 0 && (
        <p className="text-[12px] text-quiet">It has these as before, and the project otherwise. Ticked, that stays:</p>
      )}
      {owned.map(({ kind, number, words }) => (
        <Toggle
          key={`${kind} ${number}`}
          label={words}
          on={!reading.choices[BACK[kind]].includes(number)}
          onChange={() => reading.toggle(BACK[kind], number)}
        />
      ))}
    </Section>
  );
}

function Toggle({ label, on, onChange }: { label: string; on: boolean; onChange: (on: boolean) => void }) {
  return (
    <label className="flex items-center gap-2 text-[12.5px]">
      <input type="checkbox" checked={on} onChange={(event) => onChange(event.target.checked)} />
      {label}
    </label>
  );
}

/** The scale, set by two points whose distance is known. */
function Scale({
  reading,
  look,
  picked,
  onPicked,
}: {
  reading: Reading;
  look: Look;
  picked: (readonly [number, number])[] | null;
  onPicked: (points: (readonly [number, number])[] | null) => void;
}) {
  const { units } = useHeld().state.project;
  const [text, setText] = useState("");
  if (picked === null)
    return (
      <Button className="ml-auto" onClick={() => onPicked([])}>
        Scale by two points
      </Button>
    );
  const [a, b] = picked;
  const drawn = a && b ? Math.hypot(b[0] - a[0], b[1] - a[1]) : 0;
  return (
    <form
      className="ml-auto flex items-center gap-1.5 text-[12px]"
      onSubmit={(event) => {
        event.preventDefault();
        if (!drawn || !text.trim()) return;
        reading.readBy({ unit: null, measured: drawn / look.unit.factor, says: text.trim() });
        onPicked(null);
        setText("");
      }}
    >
      {drawn ? (
        <>
          <label className="flex items-center gap-1.5">
            {lengthText(drawn, units)} as read; in truth
            <input
              // biome-ignore lint/a11y/noAutofocus: the second point has just been picked to type this
              autoFocus
              aria-label="Length between the two points"
              value={text}
              onChange={(event) => setText(event.target.value)}
              className="h-7 w-28 rounded-md border border-rule bg-field px-2 font-mono text-[12px]"
            />
          </label>
          <Button type="submit" tone="strong">
            Set
          </Button>
        </>
      ) : (
        <span className="text-quiet">Pick the {a ? "second" : "first"} of two points of known distance</span>
      )}
      <Button onClick={() => onPicked(null)}>Cancel</Button>
    </form>
  );
}
