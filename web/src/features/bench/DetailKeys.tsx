import { useJunctions } from "../../api/queries";
import { usePick } from "../../store";
import { useHeld } from "../../useProject";
import { useBench } from "./useBench";

const SIZE = 20;
const MOST_BESIDE = 8;

/** The number of each detail at its place in the plan; a click shows it below. Never printed. */
export function DetailKeys() {
  const { state, storey, bench } = useHeld();
  const { plan, viewport, panes } = useBench();
  const { detail: shown, set } = usePick("detail", "set");
  const groups = useJunctions(state.id, state.version).data ?? [];
  const [dx, dy] = plan?.look ?? [0, 1];
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
    const left = viewport.u + (at[0] * dy - at[1] * dx) * viewport.k - SIZE / 2;
    const top = viewport.w - (at[0] * dx + at[1] * dy) * viewport.k - SIZE / 2;
    // Those at one place stand beside each other.
    const spot = { left, top };
    for (let tried = 0; tried < MOST_BESIDE && placed.some((held) => near(held, spot)); tried++) spot.left += SIZE + 1;
    placed.push(spot);
    const inside = spot.top > panes.planTop && spot.top < panes.planBottom - SIZE && left > 0;
    return inside ? [{ detail, ...spot }] : [];
  });
  return (
    <>
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
    </>
  );
}

/** From which height to which a storey reaches: the lowest one down to its footings, the highest one up to the ridge. */
function between(floors: number[], at: number): [number, number] {
  return [at > 0 ? floors[at] : Number.NEGATIVE_INFINITY, floors[at + 1] ?? Number.POSITIVE_INFINITY];
}

function near(a: { left: number; top: number }, b: { left: number; top: number }): boolean {
  return Math.abs(a.left - b.left) < SIZE && Math.abs(a.top - b.top) < SIZE;
}
