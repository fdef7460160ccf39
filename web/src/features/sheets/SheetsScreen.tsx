import { useDrag } from "@use-gesture/react";
import { useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { useSheet } from "../../api/queries";
import { usePick } from "../../store";
import { Button } from "../../ui/Button";
import { Note } from "../../ui/Note";
import { useActions } from "../../useActions";
import { useHeld } from "../../useProject";

type SheetOut = Schemas["SheetOut"];

/** The sheets: the chosen one as it prints; views are dragged into place. */
export function SheetsScreen() {
  const { id, state, change, saving } = useHeld();
  const { sheet: chosen, set, message } = usePick("sheet", "set", "message");
  const actions = useActions();
  const sheets = state.project.sheets ?? [];
  const shown = useSheet(id, chosen ?? undefined, state.version);
  const sheet = shown.data;
  return (
    <main aria-label="Sheets" className="flex min-h-0 flex-col bg-strip">
      <div className="flex flex-wrap items-center gap-1.5 border-b border-rule bg-ground px-4 py-2">
        {sheets.map((held) => (
          <Button
            key={held.id}
            tone={held.id === chosen ? "chosen" : "plain"}
            aria-pressed={held.id === chosen}
            onClick={() => set({ sheet: held.id, selection: held.id })}
          >
            <b>{held.number}</b> {held.name}
          </Button>
        ))}
        <Button onClick={() => actions.find((action) => action.id === "add-sheet")?.run()}>Add a sheet</Button>
        {!(sheets.length > 1 && sheets.every((held) => held.placed?.length)) && (
          <Button tone="strong" disabled={saving} onClick={() => change({ kind: "usual" })}>
            Lay out the usual set
          </Button>
        )}
      </div>
      {message && (
        <div className="px-4 pt-2">
          <Note tone={message.tone}>{message.text}</Note>
        </div>
      )}
      <div className="grid min-h-0 grow place-items-center p-5">
        {sheets.length === 0 && (
          <Note tone="note">
            No sheet yet. Lay out the usual set (plans, four sides, two sections), or add one and place views on it.
          </Note>
        )}
        {shown.isLoading && sheets.length > 0 && <Note tone="note">Drawing the sheet…</Note>}
        {shown.error && <Note>{shown.error.message}</Note>}
        {sheet && sheets.length > 0 && <Paper id={id} sheet={sheet} />}
      </div>
    </main>
  );
}

function Paper({ id, sheet }: { id: string; sheet: SheetOut }) {
  const { state, commit } = useHeld();
  const paper = useRef<HTMLDivElement>(null);
  const [drag, setDrag] = useState<{ placed: string; dx: number; dy: number } | null>(null);
  const bind = useDrag(
    ({ args: [placed], movement: [dx, dy], last }) => {
      if (last) shift(placed, dx * mm(), -dy * mm());
      setDrag(last ? null : { placed, dx, dy });
    },
    { pointer: { keys: false } },
  );
  /** What a pixel of the screen is on the paper. */
  const mm = () => sheet.width / (paper.current?.clientWidth ?? 1);
  const source = `/api/projects/${id}/sheets/${sheet.id}/picture?dpi=${sheet.width > 600 ? 120 : 200}&version=${sheet.version}`;
  const document = state.project.sheets?.find((held) => held.id === sheet.id);

  function shift(placed: string, dx: number, dy: number) {
    if (!document || (dx === 0 && dy === 0)) return;
    const moved = (document.placed ?? []).map((view) =>
      view.id === placed
        ? { ...view, x: Math.round((view.x + dx) * 2) / 2, y: Math.round((view.y + dy) * 2) / 2 }
        : view,
    );
    commit([{ kind: "put_sheet", sheet: { ...document, placed: moved } }]);
  }

  return (
    <div
      ref={paper}
      className="relative max-h-full max-w-full border border-[#c9c1ae] bg-white"
      style={{
        aspectRatio: `${sheet.width} / ${sheet.height}`,
        width: `min(100%, calc((100vh - 190px) * ${sheet.width / sheet.height}))`,
      }}
    >
      <img
        src={source}
        alt={`Sheet ${sheet.number}, ${sheet.name}`}
        className="block h-full w-full select-none"
        draggable={false}
      />
      {sheet.placed.map((placed) => {
        const moved = drag?.placed === placed.id ? drag : null;
        return (
          <button
            key={placed.id}
            type="button"
            aria-label={`${placed.title} at ${placed.scale_name}; drag, or move with the arrow keys`}
            {...bind(placed.id)}
            className={`absolute cursor-move touch-none rounded-sm border border-dashed ${moved ? "border-line bg-line/10" : "border-transparent hover:border-line"}`}
            style={{
              left: `calc(${(placed.x0 / sheet.width) * 100}% + ${moved?.dx ?? 0}px)`,
              top: `calc(${((sheet.height - placed.y1) / sheet.height) * 100}% + ${moved?.dy ?? 0}px)`,
              width: `${((placed.x1 - placed.x0) / sheet.width) * 100}%`,
              height: `${((placed.y1 - placed.y0) / sheet.height) * 100}%`,
            }}
            onKeyDown={(event) => {
              const step: Record<string, [number, number]> = {
                ArrowLeft: [-5, 0],
                ArrowRight: [5, 0],
                ArrowUp: [0, 5],
                ArrowDown: [0, -5],
              };
              const by = step[event.key];
              if (by) {
                event.preventDefault();
                shift(placed.id, ...by);
              }
            }}
          />
        );
      })}
      {sheet.messages.length > 0 && (
        <div className="absolute inset-x-3 top-3 flex flex-col gap-1">
          {sheet.messages.map((held) => (
            <Note key={held.placed + held.message}>{held.message}</Note>
          ))}
        </div>
      )}
    </div>
  );
}
