import { useRef, useState } from "react";
import { useReadPlan } from "../../api/queries";
import { useClient } from "../../store";
import { Button } from "../../ui/Button";
import { Note } from "../../ui/Note";
import { Panel } from "../../ui/Panel";
import { useHeld } from "./useProject";

const UNITS = [
  ["", "as the file says"],
  ["mm", "millimetres"],
  ["cm", "centimetres"],
  ["m", "metres"],
  ["in", "inches"],
  ["ft", "feet"],
] as const;

/** Reads a floor plan from a DXF file into the project, and lists what was not read. */
export function PlanPanel() {
  const { panel, set } = useClient();
  return (
    <Panel title="Read a plan" open={panel === "plan"} onClose={() => set({ panel: null })}>
      <Reading />
    </Panel>
  );
}

function Reading() {
  const { id, state } = useHeld();
  const read = useReadPlan(id, state.version);
  const [unit, setUnit] = useState("");
  const file = useRef<HTMLInputElement>(null);
  return (
    <div className="flex flex-col gap-3 text-[13px]">
      <p className="text-quiet">
        Closed outlines become outer walls, lines become inner walls, gaps between lines doorways, and blocks that call
        themselves windows or doors openings.
      </p>
      <label className="text-[12px] text-quiet">
        Drawn in
        <select
          aria-label="Unit of the file"
          value={unit}
          onChange={(event) => setUnit(event.target.value)}
          className="mt-1 h-8 w-full rounded-md border border-rule bg-field px-2 text-[13px] text-ink"
        >
          {UNITS.map(([value, label]) => (
            <option key={value} value={value}>
              {label}
            </option>
          ))}
        </select>
      </label>
      <Button tone="strong" disabled={read.isPending} onClick={() => file.current?.click()}>
        {read.isPending ? "Reading…" : "Choose a DXF file"}
      </Button>
      <input
        ref={file}
        type="file"
        accept=".dxf"
        aria-label="DXF file"
        className="hidden"
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          if (chosen) read.mutate({ file: chosen, unit: unit || null });
          event.target.value = "";
        }}
      />
      {read.error && <Note>{read.error.message}</Note>}
      {read.data && (
        <section aria-label="What was read">
          <p className="font-semibold">Built: {read.data.built.join(", ")}.</p>
          {read.data.skipped.length > 0 && (
            <>
              <p className="mt-2 text-quiet">Not read:</p>
              <ul className="list-disc pl-5">
                {read.data.skipped.map((line, index) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: the list never changes, and lines may repeat
                  <li key={index}>{line}</li>
                ))}
              </ul>
            </>
          )}
        </section>
      )}
    </div>
  );
}
