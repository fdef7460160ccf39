import { Field, Label, Radio, RadioGroup, Switch } from "@headlessui/react";
import { RotateCcw } from "lucide-react";
import { useState } from "react";
import { showOf, showWith } from "../../actions/shown";
import type { Schemas } from "../../api/client";
import { type BuiltChange, useBuilt } from "../../api/queries";
import { usePick } from "../../store";
import { Button } from "../../ui/Button";
import { Select } from "../../ui/Select";
import { TypedInput } from "../../ui/TypedInput";
import { useHeld } from "../../useProject";

type Built = Schemas["BuiltOut"];
type Scope = "one" | "alike" | "all";
type Send = (change: Partial<BuiltChange>, failed?: (words: string) => void) => void;

/** How the junction of a detail is built: which build-up, its parameters, its pieces from outside to inside. */
export function BuildUpPart({ element }: { element: string }) {
  const { id, state, change } = useHeld();
  const { step, set } = usePick("step", "set");
  const [scope, setScope] = useState<Scope>("alike");
  const [wrong, setWrong] = useState<string | null>(null);
  const detail = state.project.details?.find((held) => held.id === element);
  const { data: built, came } = useBuilt(id, state.version, detail?.id ?? null);
  if (!detail) return null;
  // From a mark in a section one goes to the detail itself.
  const open = step !== "Details" && (
    <Button
      className="my-3 w-full justify-center"
      onClick={() => set({ step: "Details", detail: element, selection: element, fill: "both" })}
    >
      Open this detail
    </Button>
  );
  if (!built) return open || null;
  const junctions = { one: [built.junction], alike: built.alike, all: null }[scope];
  const send: Send = (sent, failed = setWrong) => {
    setWrong(null);
    change(
      { kind: "built", change: { kind: built.kind, junctions, ...sent } },
      { failed: (error: Error) => failed(error.message) },
    );
  };
  return (
    <section aria-label="How it is built" className="mt-4 border-t border-rule pt-3">
      {open}
      <h3 className="text-[12.5px] font-semibold">How it is built</h3>
      <p className="mb-2 text-[11.5px] text-quiet">{built.chosen ? "Chosen by you" : `Taken for: ${built.because}`}</p>
      <Select
        aria-label="Build-up"
        value={built.build_up}
        onChange={(to) => send(to === USUAL ? { usual: true } : { build_up: to })}
      >
        {built.options.map((option) => (
          <option key={option.id} value={option.id} disabled={option.why !== ""}>
            {option.why ? `${option.name} (${option.why})` : option.name}
          </option>
        ))}
        {built.chosen && <option value={USUAL}>As is usual here</option>}
      </Select>
      <Scopes built={built} scope={scope} onScope={setScope} />
      {wrong && <Wrong>{wrong}</Wrong>}
      {built.parameters.length > 0 && (
        <div className="mt-3 flex flex-col gap-1.5">
          {built.parameters.map((held) => (
            <Parameter key={`${built.build_up} ${held.id}`} held={held} came={came} send={send} />
          ))}
        </div>
      )}
      <Lines built={built} view={`detail:${detail.id}`} />
      <Pieces built={built} send={send} />
      {built.findings.map((found) => (
        <p key={found.words} className="mt-2 rounded-md bg-check-ground px-2.5 py-1.5 text-[12px]">
          <span className="font-semibold text-check">Look at this: </span>
          {found.words}
          {found.source && <span className="mt-0.5 block text-quiet">Rule: {found.source}</span>}
        </p>
      ))}
    </section>
  );
}

const USUAL = "-";

/** Where what is set counts. */
function Scopes({ built, scope, onScope }: { built: Built; scope: Scope; onScope: (to: Scope) => void }) {
  const many = built.alike.length;
  const options: [Scope, string][] = [
    ["one", "this place"],
    ...(many > 1 ? [["alike", `the ${many} alike`] as [Scope, string]] : []),
    ["all", `all ${built.many}`],
  ];
  const held = scope === "alike" && many === 1 ? "one" : scope;
  return (
    <RadioGroup
      value={held}
      onChange={onScope}
      aria-label="What is set counts for"
      className="mt-2 flex flex-wrap gap-1"
    >
      {options.map(([value, label]) => (
        <Radio
          key={value}
          value={value}
          className="cursor-pointer rounded-full border border-rule px-2 py-0.5 text-[11.5px] text-quiet data-checked:border-line data-checked:bg-line-soft data-checked:text-line"
        >
          {label}
        </Radio>
      ))}
    </RadioGroup>
  );
}

/** A length that is typed in place; one that is not usual is put back with one click. */
function Parameter({ held, came, send }: { held: Built["parameters"][number]; came: number; send: Send }) {
  const [wrong, setWrong] = useState<string | null>(null);
  const enter = (value: string) => {
    setWrong(null);
    if (value !== held.text) send({ parameter: held.id, text: value }, setWrong);
  };
  return (
    <div>
      <label className="grid grid-cols-[minmax(0,1fr)_92px] items-center gap-2">
        <span className={`text-[12px] leading-tight ${held.own ? "font-semibold text-check" : "text-quiet"}`}>
          {held.words}
          {held.own && (
            <button
              type="button"
              aria-label={`${held.words}: as usual`}
              title={`Usual: ${held.usual}`}
              className="ml-1 rounded p-0.5 align-middle hover:bg-check-ground"
              onClick={(event) => {
                event.preventDefault();
                send({ parameter: held.id, text: "" }, setWrong);
              }}
            >
              <RotateCcw size={11} aria-hidden />
            </button>
          )}
        </span>
        <TypedInput
          fact={held.text}
          came={came}
          aria-label={held.words}
          aria-invalid={wrong !== null}
          title={`${held.limits}. ${held.source}`}
          onEnter={enter}
          onRestored={() => setWrong(null)}
          className={`h-7 w-full rounded-md border bg-field px-2 text-right font-mono text-[12.5px] ${wrong ? "border-cut" : "border-rule"}`}
        />
      </label>
      {wrong && <Wrong>{wrong}</Wrong>}
    </div>
  );
}

/** Whether what keeps out weather, air, cold and vapour closes; each line is drawn over the detail when pressed. */
function Lines({ built, view }: { built: Built; view: string }) {
  const { state, commit } = useHeld();
  const drawn = showOf(state.project, view).lines ?? [];
  const there = built.lines.filter((line) => line.there);
  if (there.length === 0) return null;
  const press = (name: (typeof drawn)[number]) =>
    commit([
      showWith(state.project, view, {
        lines: drawn.includes(name) ? drawn.filter((held) => held !== name) : [...drawn, name],
      }),
    ]);
  return (
    <section aria-label="Lines" className="mt-3 border-t border-rule pt-2">
      <div className="flex flex-wrap gap-1">
        {there.map(({ line, closes }) => (
          <button
            key={line}
            type="button"
            aria-pressed={drawn.includes(line)}
            title={drawn.includes(line) ? "Take it off the drawing" : "Draw it over the detail"}
            onClick={() => press(line)}
            className="inline-flex items-center gap-1.5 rounded-full border border-rule px-2 py-0.5 text-[11.5px] hover:border-quiet aria-pressed:border-line aria-pressed:bg-line-soft"
          >
            <span className="size-2 rounded-full" style={{ background: LINE_COLOURS[line] }} />
            {line} {closes ? "closes" : <strong className="text-check">open</strong>}
          </button>
        ))}
      </div>
      {built.lines
        .flatMap((line) => line.words)
        .map((words) => (
          <p key={words} className="mt-1.5 rounded-md bg-check-ground px-2.5 py-1.5 text-[12px] first-letter:uppercase">
            {words}
          </p>
        ))}
    </section>
  );
}

/** As they are drawn. */
const LINE_COLOURS = { weather: "#2c6fb3", air: "#3f8f5b", thermal: "#d0822a", vapour: "#8a4fa0" };

/** The pieces in their order; pointing at one lights it up, its switch takes it out or puts it back. */
function Pieces({ built, send }: { built: Built; send: Send }) {
  const { set } = usePick("set");
  return (
    <ul aria-label="Pieces" className="mt-3 border-t border-rule pt-2">
      {built.pieces.map((piece) => (
        <li
          key={piece.id}
          className="flex items-start gap-2 rounded px-1 py-1 text-[12px] hover:bg-paper"
          onPointerEnter={() => set({ lit: [piece.part] })}
          onPointerLeave={() => set({ lit: [] })}
        >
          <Field className="flex w-full items-start gap-2">
            <Switch
              checked={piece.on}
              onChange={(on) => send({ piece: piece.id, on })}
              className="mt-0.5 inline-flex h-3.5 w-6 shrink-0 items-center rounded-full bg-rule data-checked:bg-line"
            >
              <span className={`size-2.5 rounded-full bg-paper ${piece.on ? "translate-x-3" : "translate-x-0.5"}`} />
            </Switch>
            <Label className={`min-w-0 grow leading-snug ${piece.on ? "" : "text-quiet line-through"}`}>
              {piece.note}
              {piece.does.length > 0 && <span className="block text-[11px] text-quiet">{piece.does.join(", ")}</span>}
            </Label>
          </Field>
        </li>
      ))}
    </ul>
  );
}

function Wrong({ children }: { children: string }) {
  return (
    <p
      role="alert"
      className="mt-1 rounded border border-cut bg-[#fbeee9] px-2 py-1 text-[11.5px] leading-snug text-[#7c2d20]"
    >
      {children}
    </p>
  );
}
