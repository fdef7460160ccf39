import { useDrag } from "@use-gesture/react";
import { useState } from "react";
import type { Edit } from "../../api/client";
import { usePick } from "../../store";
import { useHeld } from "../../useProject";
import { LengthEntry } from "./LengthEntry";
import { spread } from "./spread";
import { useBench } from "./useBench";
import type { usePreview } from "./usePreview";
import { LADDER } from "./viewport";

const NAME_HEIGHT = 28;
/** A name without its height, where the pane is too low for both. */
const LOW_NAME = 14;
const TERM_HEIGHT = 12;
/** Below the pane's title, and above its lower edge. */
const TOP = 36;
const BOTTOM = 16;
/** Where names end and their leaders begin, and where these reach the rung. */
const [NAME_END, RUNG] = [LADDER - 26, LADDER - 18];

const CLICK_PX = 4;

/** The height ladder beside the view: rungs at their heights, and between them the parts that add up. */
export function Ladder({ preview }: { preview: ReturnType<typeof usePreview> }) {
  const { bench, viewport, panes, point: onHover } = useBench();
  const { state, change, commit } = useHeld();
  const { selection, set } = usePick("selection", "set");
  const [entry, setEntry] = useState<{ rung: string; field: string; label: string; y: number; text: string } | null>(
    null,
  );
  const [wrong, setWrong] = useState<string | null>(null);
  const units = state.project.units;
  /** How far a rung that is stated lies over the one that it is measured from; null where it cannot be dragged. */
  function riseOf(element: string): number | null {
    const rung = state.project.rungs?.find((held) => held.id === element);
    const z = (id: string | null | undefined) => bench.ladder.find((held) => held.stated && held.element === id)?.z;
    const [own, below] = [z(element), z(rung?.from_rung)];
    return own === undefined || below === undefined ? null : own - below;
  }
  const bind = useDrag(
    ({ args: [rung], initial: [, from], xy: [, y], memo = riseOf(rung), last }) => {
      if (memo === null) return memo;
      const grid = units === "ft-in" ? 25.4 : 10;
      const total = Math.max(grid, memo + Math.round((from - y) / viewport.k / grid) * grid);
      const edits: Edit[] = [{ kind: "set_total", rung, total }];
      if (!last) preview.show(edits);
      else {
        setWrong(null);
        commit(edits, {
          failed: (error) => {
            preview.clear();
            setWrong(error.message);
          },
        });
      }
      return memo;
    },
    { axis: "y", threshold: CLICK_PX, pointer: { keys: false } },
  );
  const height = panes.viewBottom - panes.viewTop;
  if (height < 60) return null;
  const inSight = bench.ladder
    .map((rung) => ({ rung, y: viewport.v - rung.z * viewport.k - panes.viewTop }))
    .filter(({ y }) => y > 4 && y < height - 4);
  const low = inSight.length * NAME_HEIGHT > height - TOP - BOTTOM + NAME_HEIGHT;
  const clear = low ? LOW_NAME : NAME_HEIGHT;
  const places = spread(
    inSight.map(({ y }) => y),
    clear,
    TOP,
    height - BOTTOM,
  );
  const rungs = inSight.map((held, index) => ({
    ...held,
    shown: places[index],
    room: low ? 0 : (places[index + 1] ?? 0) - places[index] - clear,
  }));
  return (
    <section
      aria-label="Height ladder"
      className="absolute left-0 overflow-hidden border-r border-rule bg-ground"
      style={{ top: panes.viewTop, width: LADDER, height }}
    >
      <h2 className="absolute left-3 top-2 text-[12px] font-semibold">Heights</h2>
      <svg className="absolute inset-0" width={LADDER} height={height} aria-hidden>
        <line x1={LADDER - 12} x2={LADDER - 12} y1={26} y2={height - 8} stroke="var(--color-ink)" strokeWidth={1.2} />
        {rungs.map(({ rung, y, shown }) => (
          <g key={rung.id} stroke={rung.stated ? "var(--color-ink)" : "var(--color-line)"} strokeWidth={1.3}>
            <line x1={NAME_END} y1={shown} x2={RUNG} y2={y} strokeWidth={0.7} />
            <line x1={RUNG} x2={LADDER} y1={y} y2={y} />
            <circle cx={LADDER - 12} cy={y} r={3.2} fill="var(--color-paper)" />
          </g>
        ))}
      </svg>
      {rungs.map(({ rung, y, shown, room }) => (
        <div key={rung.id}>
          <button
            type="button"
            aria-pressed={selection === rung.element}
            onClick={() => set({ selection: rung.element })}
            onDoubleClick={() =>
              rung.stated &&
              rung.terms?.length &&
              setEntry({ rung: rung.element, field: "total", label: `${rung.label}, height in all`, y, text: "" })
            }
            {...(rung.stated ? bind(rung.element) : {})}
            onPointerEnter={() => onHover(rung.sum)}
            onPointerLeave={() => onHover(null)}
            title={`${rung.label} ${rung.text}`}
            className={`absolute right-[27px] w-[94px] touch-none rounded px-0.5 text-right leading-[13px] ${selection === rung.element ? "outline-1 outline-dashed outline-line" : ""}`}
            style={{ top: shown - clear / 2 + 1 }}
          >
            <span className={`block truncate text-[11px] font-semibold ${rung.stated ? "" : "text-line"}`}>
              {rung.label.replace(/^Ridge, (.*?)( roof)?$/, "Ridge $1")}
            </span>
            {!low && <span className="block font-mono text-[10.5px] text-quiet">{rung.text}</span>}
          </button>
          {rung.stated &&
            rung.terms?.slice(0, Math.max(0, Math.floor((room - 4) / TERM_HEIGHT))).map((term, index) => (
              <button
                key={term.id}
                type="button"
                title={`${term.label}: click to change${term.free ? "; a typed total changes this part" : ""}`}
                onClick={() =>
                  setEntry({
                    rung: rung.element,
                    field: `term:${term.id}`,
                    label: term.label,
                    y: shown + 26,
                    text: term.text,
                  })
                }
                className="absolute right-[27px] flex max-w-[94px] gap-1 text-right font-mono text-[9.5px] leading-[12px] text-quiet hover:text-line"
                style={{ top: shown + 15 + index * TERM_HEIGHT }}
              >
                <span className="truncate">{short(term.label)}</span>
                <span className="whitespace-nowrap">{term.text}</span>
              </button>
            ))}
        </div>
      ))}
      {entry && (
        <div className="fixed z-30" style={{ left: 90, top: panes.viewTop + 44 + Math.min(entry.y, height - 90) }}>
          <LengthEntry
            x={0}
            y={0}
            label={entry.label}
            first={entry.text}
            units={state.project.units}
            onTry={(text) => set({ trial: { element: entry.rung, others: [], field: entry.field, text } })}
            onClose={() => {
              setEntry(null);
              set({ trial: null });
            }}
            onEnter={(text) => {
              setWrong(null);
              change(
                { kind: "entry", element: entry.rung, field: entry.field, text },
                {
                  done: () => set({ trial: null }),
                  failed: (error) => {
                    set({ trial: null });
                    setWrong(error.message);
                  },
                },
              );
              setEntry(null);
            }}
          />
        </div>
      )}
      {wrong && (
        <p
          role="alert"
          className="absolute inset-x-1 bottom-1 z-10 rounded border border-cut bg-[#fbeee9] p-1.5 text-[11px] text-[#7c2d20]"
        >
          {wrong}
        </p>
      )}
    </section>
  );
}

function short(label: string): string {
  return label
    .replace("bottom plate", "sole")
    .replace("top plate", "top")
    .replace("floor above grade", "rise")
    .replace("frost depth", "frost");
}
