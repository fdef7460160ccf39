import type { Edit } from "../../api/client";
import { Select } from "../../ui/Select";
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
      // biome-ignore lint/a11y/noStaticElementInteractions: it only keeps what happens in the list from the bench
      <div
        key={side.edge}
        className="-translate-x-1/2 -translate-y-1/2 absolute z-10"
        style={{ left: x, top: y }}
        onPointerDown={(event) => event.stopPropagation()}
        onKeyDown={(event) => event.stopPropagation()}
      >
        <Select
          aria-label={`Edge ${side.number} of the roof`}
          value={side.kind}
          onChange={(value) =>
            commit([{ kind: "set_roof_edge", roof: side.roof, edge: side.edge, to: value as EdgeKind }])
          }
          className="h-5! rounded-full! border-line! text-[11px]! text-line! leading-none"
        >
          {snaps.treatments.map(([value, label]) => (
            <option key={value} value={value}>
              {label}
            </option>
          ))}
        </Select>
      </div>
    );
  });
}
