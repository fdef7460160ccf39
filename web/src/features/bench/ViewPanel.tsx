import { Popover, PopoverButton, PopoverPanel } from "@headlessui/react";
import { SlidersHorizontal } from "lucide-react";
import {
  PART_KINDS,
  PLAN_WORD_KINDS,
  type Show,
  type ShowKind,
  showOf,
  showWith,
  WORD_KINDS,
} from "../../actions/shown";
import type { Drawing } from "../../api/client";
import { usePick } from "../../store";
import { Button } from "../../ui/Button";
import { Select } from "../../ui/Select";
import { useHeld } from "../../useProject";
import { LetteringList } from "./LetteringList";
import { Strings } from "./Strings";

/** How a view is shown: what it leaves out, how its materials are named, its look; and the same for other views. */
export function ViewPanel({ drawing }: { drawing: Drawing | undefined }) {
  const { state, commit } = useHeld();
  const { beside, set } = usePick("beside", "set");
  const viewName = drawing?.name ?? "";
  const onPlan = drawing?.kind === "plan";
  const show = showOf(state.project, viewName);
  const change = (changes: Partial<Show>) => commit([showWith(state.project, viewName, changes)]);
  const others = state.views.filter(({ name }) => /^(elevation|section):/.test(name) && name !== viewName);
  const isStrip = state.project.wall_sections.some(({ id }) => viewName === `section:${id}`);
  const isSection = state.project.sections.some(({ id }) => viewName === `section:${id}`);
  const outside = viewName.startsWith("elevation");
  const indoors = state.project.elevations.some(({ id, room }) => room && viewName === `elevation:${id}`);
  return (
    <Popover className="pointer-events-auto">
      <PopoverButton className="inline-flex h-7 items-center gap-1.5 rounded-md border border-rule bg-paper px-2.5 text-[12.5px] hover:border-quiet">
        <SlidersHorizontal size={13} aria-hidden />
        {onPlan ? "Lettering" : "Shown"}
      </PopoverButton>
      <PopoverPanel
        as="section"
        aria-label={onPlan ? "Lettering of the plan" : "How this view is shown"}
        className="fixed bottom-[28px] right-0 top-[44px] z-30 w-[296px] overflow-y-auto border-l border-rule bg-ground px-4 py-3 text-[12.5px]"
      >
        {drawing && <LetteringList drawing={drawing} />}
        {!onPlan && <Kinds title="Parts" kinds={PART_KINDS} show={show} onChange={change} alone />}
        <div className="mt-2">
          <Kinds title="Lettering" kinds={onPlan ? PLAN_WORD_KINDS : WORD_KINDS} show={show} onChange={change} />
        </div>
        {drawing && <Strings drawing={drawing} show={show} />}
        {state.views.some(({ name, over_files }) => over_files && name === viewName) && (
          <div className="mt-2 border-t border-rule pt-2">
            <Button onClick={() => set({ panel: "backgrounds", under: viewName })}>
              Backgrounds: files under this view…
            </Button>
          </div>
        )}
        {(onPlan ? !/^plan:.*:|^plan:roof/.test(viewName) : isSection) && (
          <div className="mt-2 border-t border-rule pt-2">
            <Tick
              label="Numbers of make-ups, with a legend"
              on={show.make_ups}
              onChange={(make_ups) => change({ make_ups })}
            />
            {isSection && (
              <Tick
                label="Layers beside what is cut, where there is room"
                on={show.stacks}
                onChange={(stacks) => change({ stacks })}
              />
            )}
          </div>
        )}
        {!onPlan && (
          <>
            <div className="mt-2 flex flex-col gap-1.5 border-t border-rule pt-2">
              {(outside || isStrip) && (
                <div className="flex items-center gap-1">
                  <span className="grow">{isStrip ? "Notes" : "Materials"}</span>
                  {(["names", "keys"] as const).map((way) => (
                    <Button
                      key={way}
                      tone={show.materials === way ? "chosen" : "plain"}
                      aria-pressed={show.materials === way}
                      onClick={() => change({ materials: way })}
                    >
                      {way === "names" ? (isStrip ? "in words" : "names") : "keys and a legend"}
                    </Button>
                  ))}
                </div>
              )}
              {outside && !indoors && (
                <Tick label="Shade at 45 degrees" on={show.shade} onChange={(shade) => change({ shade })} />
              )}
              {outside && <Tick label="Tones of the materials" on={show.tone} onChange={(tone) => change({ tone })} />}
              <Tick
                label="Thin pens on the screen; printed as ever"
                on={show.thin}
                onChange={(thin) => change({ thin })}
              />
            </div>
            <div className="mt-2 flex flex-col gap-1.5 border-t border-rule pt-2">
              <OtherView
                label="Compare heights with"
                value={beside ?? ""}
                first={["", "no other view"]}
                views={others}
                onChoose={(name) => set({ beside: name || null })}
              />
              <OtherView
                label="Show alike"
                value=""
                first={["*", "every elevation and section"]}
                unchosen="choose a view"
                views={others}
                onChoose={(name) =>
                  commit([
                    { kind: "copy_show", view: viewName, to: name === "*" ? others.map((view) => view.name) : [name] },
                  ])
                }
              />
            </div>
          </>
        )}
      </PopoverPanel>
    </Popover>
  );
}

interface OtherProps {
  label: string;
  value: string;
  /** What can be chosen besides a view: its value and words. */
  first: [string, string];
  /** What stands there when nothing is chosen. */
  unchosen?: string;
  views: { name: string; title: string }[];
  onChoose: (name: string) => void;
}

function OtherView({ label, value, first, unchosen, views, onChoose }: OtherProps) {
  return (
    <div className="flex items-center gap-1.5">
      <span className="grow">{label}</span>
      <Select
        aria-label={label}
        unchosen={unchosen}
        value={value}
        onChange={(value) => onChoose(value)}
        className="w-[140px]"
      >
        {[first, ...views.map(({ name, title }) => [name, title])].map(([name, title]) => (
          <option key={name} value={name}>
            {title}
          </option>
        ))}
      </Select>
    </div>
  );
}

interface KindsProps {
  title: string;
  kinds: [ShowKind, string][];
  show: Show;
  onChange: (changes: Partial<Show>) => void;
  /** Whether one of them can be shown without the others. */
  alone?: boolean;
}

function Kinds({ title, kinds, show, onChange, alone }: KindsProps) {
  const without = (gone: ShowKind[]) => [...new Set([...show.kinds, ...gone])];
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">{title}</legend>
      {kinds.map(([kind, label]) => (
        <div key={kind} className="flex items-center">
          <div className="grow">
            <Tick
              label={label}
              on={!show.kinds.includes(kind)}
              onChange={(on) => onChange({ kinds: on ? show.kinds.filter((held) => held !== kind) : without([kind]) })}
            />
          </div>
          {alone && (
            <button
              type="button"
              aria-label={`Only ${label}`}
              className="rounded px-1 text-[11px] text-quiet hover:text-line"
              onClick={() =>
                onChange({
                  kinds: without(kinds.map(([other]) => other).filter((other) => other !== kind)).filter(
                    (other) => other !== kind,
                  ),
                })
              }
            >
              only
            </button>
          )}
        </div>
      ))}
    </fieldset>
  );
}

function Tick({ label, on, onChange }: { label: string; on: boolean; onChange: (on: boolean) => void }) {
  return (
    <label className="flex items-center gap-1.5 py-[1px]">
      <input
        type="checkbox"
        checked={on}
        onChange={(event) => onChange(event.target.checked)}
        className="accent-[var(--color-line)]"
      />
      {label}
    </label>
  );
}
