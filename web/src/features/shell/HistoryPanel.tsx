import { type FormEvent, useState } from "react";
import type { Schemas } from "../../api/client";
import { useHistory, useNamePoint } from "../../api/queries";
import { usePick } from "../../store";
import { Button } from "../../ui/Button";
import { Note } from "../../ui/Note";
import { Panel } from "../../ui/Panel";
import { useHeld } from "../../useProject";

type Item = Schemas["HistoryItem"];

/** What was done, in words: any point can be named, and gone back to; nothing in between is lost. */
export function HistoryPanel() {
  const { panel, set } = usePick("panel", "set");
  return (
    <Panel title="History" open={panel === "history"} onClose={() => set({ panel: null })}>
      <Points />
    </Panel>
  );
}

function Points() {
  const { id, state, change } = useHeld();
  const found = useHistory(id, state.version);
  const [naming, setNaming] = useState<number | null>(null);
  if (found.isLoading) return <Note tone="note">Fetching the history…</Note>;
  if (found.error) return <Note>{found.error.message}</Note>;
  return (
    <ol aria-label="What was done" className="flex flex-col">
      {found.data?.map((item) => (
        <li key={item.version} className="border-b border-rule py-2">
          <div className="flex items-baseline justify-between gap-2">
            <span className="text-[13px]">
              {item.mark && <b className="mr-1.5 text-line">{item.mark}</b>}
              {item.words}
            </span>
            <time className="whitespace-nowrap font-mono text-[11px] text-quiet">{when(item.made)}</time>
          </div>
          {naming === item.version ? (
            <NameForm item={item} onDone={() => setNaming(null)} />
          ) : (
            <div className="mt-1 flex gap-1.5">
              {item.version === state.version ? (
                <span className="text-[12px] text-quiet">this is what you see</span>
              ) : (
                <Button onClick={() => change({ kind: "back", version: item.version })}>Go back here</Button>
              )}
              <Button onClick={() => setNaming(item.version)}>{item.mark ? "Rename" : "Name this point"}</Button>
            </div>
          )}
        </li>
      ))}
    </ol>
  );
}

function NameForm({ item, onDone }: { item: Item; onDone: () => void }) {
  const { id } = useHeld();
  const name = useNamePoint(id);
  const [text, setText] = useState(item.mark ?? "");
  function submit(event: FormEvent) {
    event.preventDefault();
    name.mutate({ version: item.version, mark: text.trim() || null }, { onSuccess: onDone });
  }
  return (
    <form onSubmit={submit} className="mt-1 flex gap-1.5">
      <input
        // biome-ignore lint/a11y/noAutofocus: the form opens where one has just asked for it
        autoFocus
        aria-label="Name of this point"
        maxLength={120}
        value={text}
        onChange={(event) => setText(event.target.value)}
        className="h-7 min-w-0 grow rounded-md border border-rule bg-field px-2 text-[12.5px]"
      />
      <Button type="submit" tone="strong">
        Keep
      </Button>
      <Button onClick={onDone}>Cancel</Button>
    </form>
  );
}

function when(made: string): string {
  return new Date(`${made}Z`).toLocaleString(undefined, { dateStyle: "short", timeStyle: "short" });
}
