import { useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { useLookAtPlan, useReadPlan } from "../../api/queries";
import { usePick } from "../../store";
import { Button } from "../../ui/Button";
import { Note } from "../../ui/Note";
import { Panel } from "../../ui/Panel";
import { Select } from "../../ui/Select";
import { useHeld } from "../../useProject";

const UNITS = [
  ["", "as the file says"],
  ["mm", "millimetres"],
  ["cm", "centimetres"],
  ["m", "metres"],
  ["in", "inches"],
  ["ft", "feet"],
] as const;
const LEFT_OUT = "-";

/** Reads a floor plan from a DXF file into the project: its layers first, then, with their make-ups chosen, the walls. */
export function PlanPanel() {
  const { panel, set } = usePick("panel", "set");
  return (
    <Panel title="Read a plan" open={panel === "plan"} onClose={() => set({ panel: null })}>
      <Reading />
    </Panel>
  );
}

function Reading() {
  const { id, state } = useHeld();
  const look = useLookAtPlan(id);
  const read = useReadPlan(id, state.version);
  const [unit, setUnit] = useState("");
  const [chosen, setChosen] = useState<File | null>(null);
  const [makeUps, setMakeUps] = useState<Record<string, string>>({});
  const file = useRef<HTMLInputElement>(null);
  const found = read.data ? null : look.data;

  function open(next: File, drawnIn: string) {
    setChosen(next);
    setMakeUps({});
    read.reset();
    look.mutate({ file: next, unit: drawnIn || null });
  }

  return (
    <div className="flex flex-col gap-3 text-[13px]">
      <p className="text-quiet">
        Closed outlines become outer walls, lines become inner walls, gaps between lines doorways, and blocks that call
        themselves windows or doors openings.
      </p>
      <div className="text-[12px] text-quiet">
        Drawn in
        <Select
          aria-label="Unit of the file"
          value={unit}
          onChange={(value) => {
            setUnit(value);
            if (chosen && !read.data) open(chosen, value);
          }}
          className="mt-1 h-8! w-full"
        >
          {UNITS.map(([value, label]) => (
            <option key={value} value={value}>
              {label}
            </option>
          ))}
        </Select>
      </div>
      <Button
        tone={found ? "plain" : "strong"}
        className="justify-center"
        disabled={look.isPending}
        onClick={() => file.current?.click()}
      >
        {look.isPending ? "Reading…" : found ? "Choose another file" : "Choose a DXF file"}
      </Button>
      <input
        ref={file}
        type="file"
        accept=".dxf"
        aria-label="DXF file"
        className="hidden"
        onChange={(event) => {
          const next = event.target.files?.[0];
          if (next) open(next, unit);
          event.target.value = "";
        }}
      />
      {look.error && <Note>{look.error.message}</Note>}
      {found && chosen && (
        <section aria-label="Layers of the file" className="flex flex-col gap-2">
          <p className="font-semibold">
            {chosen.name}, in {found.unit}
          </p>
          {found.layers.map((layer) => (
            <LayerRow
              key={layer.name}
              layer={layer}
              value={makeUps[layer.name] ?? layer.make_up ?? ""}
              onChoose={(makeUp) => setMakeUps({ ...makeUps, [layer.name]: makeUp })}
            />
          ))}
          <Button
            tone="strong"
            className="justify-center"
            disabled={read.isPending}
            onClick={() =>
              read.mutate({
                file: chosen,
                unit: unit || null,
                layers: Object.entries(makeUps).flatMap(([layer, makeUp]) => (makeUp ? [`${layer}=${makeUp}`] : [])),
              })
            }
          >
            {read.isPending ? "Building…" : "Build the walls"}
          </Button>
          {read.error && <Note>{read.error.message}</Note>}
          <List title="Not read:" lines={found.skipped} />
        </section>
      )}
      {read.data && (
        <section aria-label="What was read">
          <p className="font-semibold">Built: {read.data.built.join(", ")}.</p>
          <List title="Not read:" lines={read.data.skipped} />
        </section>
      )}
    </div>
  );
}

function LayerRow({
  layer,
  value,
  onChoose,
}: {
  layer: Schemas["PlanLayer"];
  value: string;
  onChoose: (makeUp: string) => void;
}) {
  const { state } = useHeld();
  const walls = (state.project.make_ups ?? []).filter((held) => held.use === "wall");
  const counted = [
    [layer.outlines, "outline"],
    [layer.lines, "wall line"],
    [layer.units, "window or door"],
  ] as const;
  return (
    <div className="flex flex-col gap-1 border-t border-rule pt-2">
      <span className="flex justify-between gap-2">
        <span className="truncate font-mono text-[12px]">{layer.name}</span>
        <span className="shrink-0 text-[12px] text-quiet">
          {counted.flatMap(([count, word]) => (count ? [`${count} x ${word}`] : [])).join(", ")}
        </span>
      </span>
      <Select
        aria-label={`What layer ${layer.name} becomes`}
        value={value}
        onChange={(value) => onChoose(value)}
        className="h-8! w-full"
      >
        {layer.make_up === null && <option value="">windows and doors</option>}
        {layer.make_up !== null &&
          walls.map((held) => (
            <option key={held.id} value={held.id}>
              {held.name}
            </option>
          ))}
        <option value={LEFT_OUT}>leave out</option>
      </Select>
    </div>
  );
}

function List({ title, lines }: { title: string; lines: string[] }) {
  if (lines.length === 0) return null;
  return (
    <div>
      <p className="mt-2 text-quiet">{title}</p>
      <ul className="list-disc pl-5">
        {lines.map((line, index) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: the list never changes, and lines may repeat
          <li key={index}>{line}</li>
        ))}
      </ul>
    </div>
  );
}
