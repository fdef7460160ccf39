import { useEffect, useId, useRef, useState } from "react";
import type { Schemas } from "../api/client";
import { useClient, usePick } from "../store";
import { useHeld } from "../useProject";
import { Button } from "./Button";
import { Select } from "./Select";
import { TypedInput } from "./TypedInput";

type Field = Schemas["Field"];

/** One fact: typed text goes to the service as it is, and an answer that refuses it stays beside the field. */
export function FieldRow({ element, field, came }: { element: string; field: Field; came: number }) {
  const { state, change } = useHeld();
  const { also, set } = usePick("also", "set");
  const [wrong, setWrong] = useState<string | null>(null);
  const id = useId();

  // What is typed for a level is shown in the views before it is taken.
  const shown = useRef(0);
  const level = state.project.rungs?.some((rung) => rung.id === element) && field.kind === "length";
  function shownFirst(value: string) {
    window.clearTimeout(shown.current);
    if (!level) return;
    const trial = value.trim() && value !== field.text ? { element, others: also, field: field.id, text: value } : null;
    shown.current = window.setTimeout(() => set({ trial }), 250);
  }
  useEffect(() => () => window.clearTimeout(shown.current), []);
  const untried = () => {
    window.clearTimeout(shown.current);
    if (useClient.getState().trial) set({ trial: null });
  };

  function send(value: string) {
    setWrong(null);
    window.clearTimeout(shown.current);
    change(
      { kind: "entry", element, others: also, field: field.id, text: value },
      {
        done: () =>
          set({ trial: null, last: { kind: "entry", field: field.id, label: `${field.label} ${value}`, text: value } }),
        failed: (error) => {
          untried();
          setWrong(error.message);
        },
      },
    );
  }

  if (field.kind === "action")
    return (
      <div>
        <Button className="mt-1 h-auto! min-h-7 w-full justify-center whitespace-normal! py-1" onClick={() => send("")}>
          {field.label}
        </Button>
        {wrong && <Wrong id={id}>{wrong}</Wrong>}
      </div>
    );
  if (field.kind === "choice")
    return (
      <div>
        <div className="grid grid-cols-[104px_minmax(0,1fr)] items-center gap-2">
          <Label element={element} field={field} />
          <Select aria-label={field.label} value={field.text} onChange={send}>
            {field.options?.map((option) => (
              <option key={option.value} value={option.value}>
                {option.label}
              </option>
            ))}
          </Select>
        </div>
        {wrong && <Wrong id={id}>{wrong}</Wrong>}
      </div>
    );
  const mono = field.kind !== "text";
  return (
    <div>
      <label className="grid grid-cols-[104px_minmax(0,1fr)] items-center gap-2">
        <Label element={element} field={field} />
        <TypedInput
          fact={field.text}
          came={came}
          aria-invalid={wrong !== null}
          aria-describedby={wrong ? id : undefined}
          onTyped={shownFirst}
          onEnter={send}
          onRestored={() => {
            setWrong(null);
            untried();
          }}
          className={`h-7 w-full rounded-md border bg-field px-2 text-[12.5px] ${mono ? "text-right font-mono" : ""} ${wrong ? "border-cut" : "border-rule"}`}
        />
      </label>
      {wrong && <Wrong id={id}>{wrong}</Wrong>}
    </div>
  );
}

/** The name of a fact; one that is stated against the kind is marked, and taken back with one click. */
function Label({ element, field }: { element: string; field: Field }) {
  const { commit } = useHeld();
  if (!field.exception) return <span className="text-[12px] text-quiet">{field.label}</span>;
  return (
    <span className="flex items-center gap-1 text-[12px] font-semibold text-check">
      {field.label}
      <button
        type="button"
        title="An exception from its kind. Click to have it as the kind has it."
        aria-label={`${field.label}: as its kind`}
        className="rounded px-1 leading-none hover:bg-check-ground"
        onClick={(event) => {
          event.preventDefault();
          commit([{ kind: "clear_exceptions", opening: element, fields: [field.id] }]);
        }}
      >
        ↺
      </button>
    </span>
  );
}

function Wrong({ id, children }: { id: string; children: string }) {
  return (
    <p
      id={id}
      role="alert"
      className="mt-1 rounded border border-cut bg-[#fbeee9] px-2 py-1 text-[11.5px] leading-snug text-[#7c2d20]"
    >
      {children}
    </p>
  );
}
