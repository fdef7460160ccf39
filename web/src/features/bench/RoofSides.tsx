import type { Edit } from "../../api/client";
import { useHeld } from "../../useProject";
import { useBench } from "./useBench";

type EdgeKind = Extract<Edit, { kind: "set_roof_edge" }>["to"];

/** Edges shorter than this on the screen (px) are changed in the particulars alone. */
const SHORT = 44;

/** What each edge of the selected roof is, at its place on the plan: chosen there. */
export function RoofSides({ roof }: { roof: string | null }) {
  const {
    bench: { snaps },
    viewport,
    panes,
  } = useBench();
  const { commit } = useHeld();
  const own = snaps.sides.filter((side) => side.roof === roof);
  return own.map((side) => {
    const x = viewport.u + side.u * viewport.k - side.du * 24;
    const y = viewport.w - side.w * viewport.k + side.dw * 16;
    if (y < panes.planTop + 12 || y > panes.planBottom - 12 || side.length * viewport.k < SHORT) return null;
    return (
      <select
        key={side.edge}
        aria-label={`Edge ${side.number} of the roof`}
        value={side.kind}
        onPointerDown={(event) => event.stopPropagation()}
        onKeyDown={(event) => event.stopPropagation()}
        onChange={(event) =>
          commit([{ kind: "set_roof_edge", roof: side.roof, edge: side.edge, to: event.target.value as EdgeKind }])
        }
        className="-translate-x-1/2 -translate-y-1/2 absolute z-10 h-5 cursor-pointer appearance-none rounded-full border border-line bg-field px-2 text-[11px] text-line leading-none"
        style={{ left: x, top: y, fieldSizing: "content" } as React.CSSProperties}
      >
        {snaps.treatments.map(([value, label]) => (
          <option key={value} value={value}>
            {label}
          </option>
        ))}
      </select>
    );
  });
}
