import { X } from "lucide-react";
import type { Schemas } from "../../api/client";
import { useCompared } from "../../api/queries";
import { usePick } from "../../store";
import { Button } from "../../ui/Button";
import { useHeld } from "../../useProject";

/** The heights of two sides beside each other, with a mark where they differ. */
export function Compared() {
  const { id, state, viewName } = useHeld();
  const { beside, set } = usePick("beside", "set");
  const rows = useCompared(id, viewName, beside === viewName ? null : beside, state.version).data;
  if (!beside || beside === viewName || !rows) return null;
  const title = (name: string) => state.views.find((view) => view.name === name)?.title.replace(/ elevation$/, "");
  const differ = rows.filter((row) => row.differ).length;
  return (
    <section
      aria-label="Heights compared"
      className="-mx-2 mb-4 rounded-md border border-rule bg-paper p-2 text-[11px]"
    >
      <div className="mb-1 flex items-center justify-between">
        <p className="font-semibold">
          {differ ? `${differ} ${differ === 1 ? "height differs" : "heights differ"}` : "All that both show is alike"}
        </p>
        <Button aria-label="Stop comparing" onClick={() => set({ beside: null })}>
          <X size={13} aria-hidden />
        </Button>
      </div>
      <table className="w-full border-collapse">
        <thead>
          <tr className="text-left text-quiet">
            <th className="font-normal">height of</th>
            <th className="font-normal">{title(viewName)}</th>
            <th className="font-normal">{title(beside)}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.label} className={row.differ ? "bg-check-ground" : ""} data-differ={row.differ}>
              <td className="pr-1 align-top">
                {row.differ && <span className="font-semibold text-check">≠ </span>}
                {row.label}
              </td>
              <Values heights={row.one} />
              <Values heights={row.other} />
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Values({ heights }: { heights: Schemas["ShownHeight"][] }) {
  const { set } = usePick("set");
  return (
    <td className="pr-1 align-top font-mono text-[10.5px]">
      {heights.length === 0 && <span className="text-quiet">not seen</span>}
      {heights.map((held) => (
        <button
          key={held.text}
          type="button"
          className="block hover:text-line"
          onPointerEnter={() => set({ pointed: held.sum })}
          onPointerLeave={() => set({ pointed: null })}
        >
          {held.text}
        </button>
      ))}
    </td>
  );
}
