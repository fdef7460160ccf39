import { useMemo } from "react";
import { useJunctions } from "../../api/queries";
import { DrawingView } from "../../drawing/DrawingView";
import { usePick } from "../../store";
import { useHeld } from "../../useProject";
import { useBench } from "./useBench";
import { keyFitted } from "./viewport";

const SIZE = 20;
const MOST_BESIDE = 8;
/** Above a detail: the plan small, with the number of each detail at its place; a click shows that one below. */
export function KeyPlan() {
  const { state, storey, bench } = useHeld();
  const { plan, panes } = useBench();
  const { detail: shown, set } = usePick("detail", "set");
  const groups = useJunctions(state.id, state.version).data ?? [];
  // Dimensions, names and other marks are left to the plan itself.
  const drawn = useMemo(
    () =>
      plan && { ...plan, marks: plan.marks.filter((mark) => !mark.annotation && ("rings" in mark || "path" in mark)) },
    [plan],
  );
  if (!plan || !drawn || panes.planBottom - panes.planTop < 120) return null;
  const { k, u, w } = keyFitted(panes, plan);
  const [dx, dy] = plan.look ?? [0, 1];
  const [low, high] = between(
    state.storeys.map((held) => bench.ladder.find((rung) => rung.id === held.level)?.z ?? 0),
    state.storeys.findIndex((held) => held.level === storey.level),
  );
  const places = new Map(
    groups.flatMap((group) => group.junctions.flatMap(({ at, details }) => details.map((id) => [id, at] as const))),
  );
  const placed: { left: number; top: number }[] = [];
  const keys = (state.project.details ?? []).flatMap((detail) => {
    const at = places.get(detail.id);
    if (!at || at[2] < low || at[2] >= high) return [];
    // Those at one place stand beside each other.
    const spot = {
      left: u + (at[0] * dy - at[1] * dx) * k - SIZE / 2,
      top: w - (at[0] * dx + at[1] * dy) * k - SIZE / 2,
    };
    for (let tried = 0; tried < MOST_BESIDE && placed.some((held) => near(held, spot)); tried++) spot.left += SIZE + 1;
    placed.push(spot);
    return [{ detail, ...spot }];
  });
  return (
    <section
      aria-label="Key plan"
      className="absolute left-0 overflow-hidden bg-ground"
      style={{ top: panes.planTop, width: panes.width, height: panes.planBottom - panes.planTop }}
    >
      <svg className="h-full w-full opacity-70" aria-hidden>
        <g transform={`translate(${u} ${w}) scale(${k} ${-k})`}>
          <DrawingView drawing={drawn} id="key" k={k} />
        </g>
      </svg>
      {keys.map(({ detail, left, top }) => (
        <button
          key={detail.id}
          type="button"
          aria-label={`Detail ${detail.name}`}
          aria-pressed={shown === detail.id}
          title={detail.name}
          onClick={() => set({ detail: detail.id, selection: detail.id })}
          className={`absolute grid place-items-center rounded-full border text-[10.5px] font-semibold leading-none ${
            shown === detail.id
              ? "z-[1] border-line bg-line text-paper"
              : "border-line bg-paper/90 text-line hover:bg-line hover:text-paper"
          }`}
          style={{ left, top, width: SIZE, height: SIZE }}
        >
          {detail.name.split(",")[0]}
        </button>
      ))}
    </section>
  );
}

/** From which height to which a storey reaches: the lowest one down to its footings, the highest one up to the ridge. */
function between(floors: number[], at: number): [number, number] {
  return [at > 0 ? floors[at] : Number.NEGATIVE_INFINITY, floors[at + 1] ?? Number.POSITIVE_INFINITY];
}

function near(a: { left: number; top: number }, b: { left: number; top: number }): boolean {
  return Math.abs(a.left - b.left) < SIZE && Math.abs(a.top - b.top) < SIZE;
}
