import { useState } from "react";
import type { Schemas } from "../../api/client";
import { useSheet } from "../../api/queries";
import { usePick } from "../../store";
import { Button } from "../../ui/Button";
import { Select } from "../../ui/Select";
import { useHeld } from "../../useProject";

const FILES = ["pdf", "dxf", "svg", "png"] as const;
const SELECT = "w-full";

/** What is on the chosen sheet: paper, views with their scales, and the files it becomes. */
export function SheetParts() {
  const { id, state, commit, change } = useHeld();
  const { sheet: chosen } = usePick("sheet");
  const [layers, setLayers] = useState("plain");
  const shown = useSheet(id, chosen ?? undefined, state.version);
  const document = state.project.sheets?.find((held) => held.id === chosen);
  const sheet = shown.data;
  if (!document || !sheet) return null;
  const put = (changes: Partial<Schemas["Sheet"]>) =>
    commit([{ kind: "put_sheet", sheet: { ...document, ...changes } }]);
  const placed = document.placed ?? [];
  const gone = placed.filter((held) => !state.views.some((view) => view.name === held.view));
  return (
    <>
      <section className="mt-4 border-t border-rule pt-3">
        <h3 className="mb-2 text-[12.5px] font-semibold">Paper</h3>
        <Select
          aria-label="Paper"
          className={SELECT}
          value={document.paper}
          onChange={(value) => put({ paper: value })}
        >
          {sheet.papers.map((paper) => (
            <option key={paper}>{paper}</option>
          ))}
        </Select>
      </section>
      <section className="mt-4 border-t border-rule pt-3">
        <h3 className="mb-2 text-[12.5px] font-semibold">Views on this sheet</h3>
        <ul className="flex flex-col gap-1.5">
          {sheet.placed.map((view) => (
            <li key={view.id} className="grid grid-cols-[minmax(0,1fr)_118px_28px] items-center gap-1.5">
              <span className="truncate text-[12px]">{view.title}</span>
              {view.view.startsWith("schedule:") ? (
                <span className="text-[11px] text-quiet">no scale</span>
              ) : (
                <Select
                  aria-label={`Scale of ${view.title}`}
                  className={`${SELECT} font-mono text-[11px]`}
                  value={view.scale}
                  onChange={(value) =>
                    put({
                      placed: placed.map((held) => (held.id === view.id ? { ...held, scale: Number(value) } : held)),
                    })
                  }
                >
                  {sheet.scales.some((item) => item.scale === view.scale) ? null : (
                    <option value={view.scale}>{view.scale_name}</option>
                  )}
                  {sheet.scales.map((item) => (
                    <option key={item.scale} value={item.scale}>
                      {item.name}
                    </option>
                  ))}
                </Select>
              )}
              <Button
                aria-label={`Take ${view.title} off the sheet`}
                className="justify-center px-0"
                onClick={() => put({ placed: placed.filter((held) => held.id !== view.id) })}
              >
                ×
              </Button>
            </li>
          ))}
          {gone.map((view) => (
            <li key={view.id} className="grid grid-cols-[minmax(0,1fr)_28px] items-center gap-1.5">
              <span className="truncate text-[12px] text-quiet">{view.view}, no longer in this project</span>
              <Button
                aria-label={`Take ${view.view} off the sheet`}
                className="justify-center px-0"
                onClick={() => put({ placed: placed.filter((held) => held.id !== view.id) })}
              >
                ×
              </Button>
            </li>
          ))}
        </ul>
        {sheet.placed.filter((view) => /^(elevation|section):/.test(view.view)).length > 1 && (
          <Button
            className="mt-2 w-full justify-center"
            title="Elevations and sections of one scale that stand side by side: one level at one height"
            onClick={() => change({ kind: "align", sheet: document.id })}
          >
            Put on common levels
          </Button>
        )}
        <PlaceView
          sheet={sheet}
          onPlace={(view, scale) => change({ kind: "place", sheet: document.id, view, scale })}
        />
      </section>
      <section className="mt-4 border-t border-rule pt-3">
        <h3 className="mb-2 text-[12.5px] font-semibold">Files of this sheet</h3>
        <div className="flex gap-1.5">
          {FILES.map((format) => (
            <a
              key={format}
              href={`/api/projects/${id}/sheets/${sheet.id}/file?format=${format}${format === "dxf" ? `&layers=${layers}` : ""}`}
              download={`${state.project.name} ${sheet.number}.${format}`}
              className="inline-flex h-7 grow items-center justify-center rounded-md border border-ink bg-ink text-[12px] font-semibold text-paper"
            >
              {format.toUpperCase()}
            </a>
          ))}
        </div>
        {placed.some((held) => held.view === "schedule:openings") && (
          <div className="mt-2 flex items-center gap-3 text-[12px] text-quiet">
            <span className="grow">Windows and doors as a table</span>
            {["xlsx", "csv"].map((format) => (
              <a
                key={format}
                href={`/api/projects/${id}/schedules/openings/file?format=${format}`}
                download={`${state.project.name} windows and doors.${format}`}
                className="font-semibold text-ink hover:text-line"
              >
                {format.toUpperCase()}
              </a>
            ))}
          </div>
        )}
        <div className="mt-2 flex items-center justify-between gap-2 text-[12px] text-quiet">
          Layers of the DXF
          <Select aria-label="Layer names of the DXF" value={layers} onChange={(value) => setLayers(value)}>
            <option value="plain">named by role</option>
            <option value="iso13567">ISO 13567</option>
            <option value="ncs">National CAD Standard</option>
          </Select>
        </div>
      </section>
    </>
  );
}

function PlaceView({ sheet, onPlace }: { sheet: Schemas["SheetOut"]; onPlace: (view: string, scale: number) => void }) {
  const { state } = useHeld();
  const [view, setView] = useState("elevation:south");
  const [scale, setScale] = useState(state.project.units === "ft-in" ? 96 : 100);
  const known = state.views.some((held) => held.name === view) ? view : state.views[0].name;
  return (
    <div className="mt-2 grid grid-cols-[minmax(0,1fr)_118px] gap-1.5">
      <Select aria-label="View to place" className={SELECT} value={known} onChange={(value) => setView(value)}>
        {state.views.map((held) => (
          <option key={held.name} value={held.name}>
            {held.title}
          </option>
        ))}
      </Select>
      <Select
        aria-label="Scale of the view to place"
        className={`${SELECT} font-mono text-[11px]`}
        value={scale}
        onChange={(value) => setScale(Number(value))}
      >
        {sheet.scales.map((item) => (
          <option key={item.scale} value={item.scale}>
            {item.name}
          </option>
        ))}
      </Select>
      <Button tone="strong" className="col-span-2 justify-center" onClick={() => onPlace(known, scale)}>
        Place this view
      </Button>
    </div>
  );
}
