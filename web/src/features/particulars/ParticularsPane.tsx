import { Disclosure, DisclosureButton, DisclosurePanel } from "@headlessui/react";
import { ChevronDown, Trash2 } from "lucide-react";
import { Fragment, type ReactNode, useState } from "react";
import type { Schemas } from "../../api/client";
import { useParticulars } from "../../api/queries";
import { usePick } from "../../store";
import { Button } from "../../ui/Button";
import { FieldRow } from "../../ui/FieldRow";
import { Note } from "../../ui/Note";
import { SumRows } from "../../ui/SumCard";
import { useHeld } from "../../useProject";
import { BuildUpPart } from "./BuildUpPart";
import { Compared } from "./Compared";
import { MakeUpStrip } from "./MakeUpStrip";

type Facts = Schemas["Particulars"];

/** The facts of what is selected, with where they come from and their checks; at the sheets, what is on the `sheet`. */
export function ParticularsPane({ sheet }: { sheet: ReactNode }) {
  const { id, state, commit, bench } = useHeld();
  const { selection, also, step, set } = usePick("selection", "also", "step", "set");
  const element = selection ?? "project";
  const found = useParticulars(id, element, state.version);
  const facts = found.data;
  return (
    <aside aria-label="Particulars" className="overflow-y-auto border-l border-rule px-4 py-4">
      {step !== "Sheets" && <Compared />}
      {found.isLoading && <Note tone="note">Fetching the particulars…</Note>}
      {found.error && (
        <Note tone="note">Nothing is selected any more. Click a wall, an opening, a roof or a level.</Note>
      )}
      {facts && (
        <div key={element}>
          <div className="flex items-start justify-between gap-2">
            <div className="min-w-0">
              <h2 className="text-[16px] font-semibold">{facts.title}</h2>
              <p className="text-[11.5px] text-quiet">{facts.subtitle}</p>
              {also.length > 0 && (
                <p className="mt-1 rounded bg-line-soft px-1.5 py-0.5 text-[11.5px] text-line">
                  and {also.length} more: what is typed here counts for all
                </p>
              )}
            </div>
            {facts.removable && (
              <Button
                aria-label={`Remove ${facts.title}`}
                title="Remove (Delete)"
                onClick={() =>
                  commit([{ kind: "remove", elements: [element, ...also] }], { done: () => set({ selection: null }) })
                }
              >
                <Trash2 size={14} aria-hidden />
              </Button>
            )}
          </div>
          <Fields element={element} fields={facts.fields.filter((field) => field.group == null)} came={found.came} />
          {element === "project" && <Levels bench={bench} onPick={(rung) => set({ selection: rung })} />}
          {step === "Sheets" && sheet}
          <BuildUpPart element={element} />
          {facts.sums.length > 0 && (
            <Group title="Where it comes from">
              <div className="flex flex-col gap-3">
                {facts.sums.map((table) => (
                  <SumRows key={table.id} table={table} />
                ))}
              </div>
            </Group>
          )}
          {facts.outcome.length > 0 && (
            <Group title="What it comes to">
              <div className="flex flex-col gap-3">
                {facts.outcome.map((table) => (
                  <SumRows key={table.label} table={table} />
                ))}
              </div>
            </Group>
          )}
          {facts.carried.length > 0 && <CarriedPart carried={facts.carried} />}
          {facts.strip && <MakeUpPart element={element} facts={facts} strip={facts.strip} came={found.came} />}
          {facts.checks.length > 0 && (
            <Group title="Checks">
              {facts.checks.map((check) => (
                <button
                  key={`${check.element}${check.message}`}
                  type="button"
                  onClick={() => set({ selection: check.element })}
                  className="mb-1 block w-full rounded-md bg-check-ground px-2.5 py-1.5 text-left text-[12px]"
                >
                  <span className="font-semibold text-check">
                    {check.severity === "blocking" ? "Cannot be built: " : "Look at this: "}
                  </span>
                  {check.message}
                  {check.source && <span className="mt-0.5 block text-quiet">Rule: {check.source}</span>}
                </button>
              ))}
            </Group>
          )}
        </div>
      )}
    </aside>
  );
}

/** What the choice of a kind holds for an opening that follows none. */
const NO_KIND = "-";

interface RowsProps {
  element: string;
  fields: Facts["fields"];
  /** When they came from the service. */
  came: number;
}

/** Rows in the order of the service, those with a heading folded under it. */
function Fields({ element, fields, came }: RowsProps) {
  const headings = [...new Set(fields.map((field) => field.under))].filter(Boolean) as string[];
  return (
    <>
      <Rows element={element} fields={fields.filter((field) => !field.under)} came={came} />
      {headings.map((heading) => (
        <Disclosure
          key={heading}
          as="section"
          className="mt-3 border-t border-rule pt-2"
          defaultOpen={folds.get(heading) ?? headings.length <= MOST_OPEN}
        >
          {({ open }) => (
            <>
              <DisclosureButton
                className="flex w-full items-center justify-between py-0.5 text-[12.5px] font-semibold"
                onClick={() => folds.set(heading, !open)}
              >
                {heading}
                <ChevronDown size={13} className={open ? "rotate-180 text-quiet" : "text-quiet"} aria-hidden />
              </DisclosureButton>
              <DisclosurePanel>
                <Rows element={element} fields={fields.filter((field) => field.under === heading)} came={came} />
              </DisclosurePanel>
            </>
          )}
        </Disclosure>
      ))}
    </>
  );
}

/** More groups than these are folded to begin with. */
const MOST_OPEN = 4;
/** Headings that were folded or opened stay so while one goes from wall to wall. */
const folds = new Map<string, boolean>();

function Rows({ element, fields, came }: RowsProps) {
  const { set } = usePick("set");
  return (
    <div className="mt-3 flex flex-col gap-1.5">
      {fields.map((field) => (
        <Fragment key={`${element} ${field.id}`}>
          <FieldRow element={element} field={field} came={came} />
          {field.id === "kind" && field.text !== NO_KIND && (
            <Button className="w-full justify-center" onClick={() => set({ selection: field.text })}>
              Edit this kind
            </Button>
          )}
        </Fragment>
      ))}
    </div>
  );
}

/** The way of a load down to the ground, step by step; what is chosen is lit up on the drawings. */
function CarriedPart({ carried }: { carried: Facts["carried"] }) {
  const { lit, set } = usePick("lit", "set");
  const whole = carried.flatMap((step) => step.elements);
  const same = (ids: string[]) => ids.length === lit.length && ids.every((id) => lit.includes(id));
  return (
    <Group title="What carries it">
      <ol className="flex flex-col gap-1">
        {carried.map((step) => (
          <li key={step.elements.join(" ")}>
            <button
              type="button"
              aria-pressed={same(step.elements)}
              onClick={() => set({ lit: same(step.elements) ? [] : step.elements })}
              className="w-full rounded-md px-2 py-1 text-left text-[13px] first-letter:uppercase hover:bg-ground aria-pressed:bg-check-ground"
            >
              {step.words}
            </button>
          </li>
        ))}
      </ol>
      <Button
        className="mt-2 w-full justify-center"
        aria-pressed={same(whole)}
        onClick={() => set({ lit: same(whole) ? [] : whole })}
      >
        {same(whole) ? "Light off" : "Light up the way down"}
      </Button>
    </Group>
  );
}

interface MakeUpProps {
  element: string;
  facts: Facts;
  strip: Schemas["Strip"];
  came: number;
}

/** The strip of a make-up: on what is built of it, with a way to edit it; on itself, with the facts of one layer. */
function MakeUpPart({ element, facts, strip, came }: MakeUpProps) {
  const { set, lettering } = usePick("set", "lettering");
  const [layer, setLayer] = useState<string | null>(null);
  const own = strip.make_up === element;
  // That of the note that was clicked, until another is chosen.
  const noted = lettering?.key.startsWith(`stack:${element}:`) ? lettering.key.split(":")[2] : null;
  const chosen = strip.layers.find((held) => held.id === (layer ?? noted))?.id ?? strip.layers[0].id;
  return (
    <Group title="Make-up" aside={strip.total}>
      <MakeUpStrip
        strip={strip}
        element={element}
        pickable={facts.fields.some((field) => field.id === "set_out")}
        chosen={own ? chosen : null}
        onChoose={own ? setLayer : undefined}
      />
      {own ? (
        <Fields element={element} fields={facts.fields.filter((field) => field.group === chosen)} came={came} />
      ) : (
        <Button className="mt-2 w-full justify-center" onClick={() => set({ selection: strip.make_up })}>
          Edit this make-up
        </Button>
      )}
    </Group>
  );
}

export function Group({ title, aside, children }: { title: string; aside?: string; children: React.ReactNode }) {
  return (
    <section className="mt-4 border-t border-rule pt-3">
      <h3 className="mb-2 flex justify-between text-[12.5px] font-semibold">
        {title}
        {aside && <span className="font-mono text-[11.5px] font-normal text-quiet">{aside}</span>}
      </h3>
      {children}
    </section>
  );
}

function Levels({ bench, onPick }: { bench: Schemas["Bench"]; onPick: (rung: string) => void }) {
  return (
    <Group title="Heights">
      <ul>
        {bench.ladder.map((rung) => (
          <li key={rung.id}>
            <button
              type="button"
              onClick={() => onPick(rung.element)}
              className="flex w-full justify-between rounded py-0.5 text-[12px] hover:text-line"
            >
              <span>{rung.label}</span>
              <span className="font-mono">{rung.text}</span>
            </button>
          </li>
        ))}
      </ul>
    </Group>
  );
}
