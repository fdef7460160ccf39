import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from "@headlessui/react";
import { useState } from "react";
import { usePick } from "../../store";
import { Button } from "../../ui/Button";
import { type Action, useActions } from "../../useActions";
import { useHeld } from "../../useProject";

const UNREACHED = {
  unsaved: "server not reached; the last change is not saved",
  unread: "server not reached; what you see was saved",
};

export function TopStrip({ reach, onLeave }: { reach: "reached" | "unsaved" | "unread"; onLeave: () => void }) {
  const { state, saving } = useHeld();
  const { set } = usePick("set");
  const actions = useActions();
  const undo = actions.find((action) => action.id === "undo");
  const redo = actions.find((action) => action.id === "redo");
  const offline = reach !== "reached";
  const saved = offline ? UNREACHED[reach] : saving ? "saving…" : "all changes saved";
  return (
    <header className="col-span-3 flex items-center gap-3 border-b border-rule px-4">
      <button type="button" onClick={onLeave} className="rounded text-[15px] font-semibold" title="All projects">
        Deep Section
      </button>
      <span className="h-5 w-px bg-rule" />
      <button
        type="button"
        className="max-w-[200px] truncate rounded text-[13.5px]"
        onClick={() => set({ selection: null })}
        title="Project particulars"
      >
        {state.project.name}
      </button>
      <span
        role="status"
        aria-label="saved state"
        className={`text-[12px] ${offline ? "text-cut" : saving ? "text-quiet" : "text-fine"}`}
      >
        {saved}
      </span>
      <div className="flex grow justify-center">
        <Search actions={actions} />
      </div>
      <Button disabled={!undo} onClick={() => undo?.run()} title={undo?.label ?? "Nothing to undo"}>
        Undo
      </Button>
      <Button disabled={!redo} onClick={() => redo?.run()} title={redo?.label ?? "Nothing to redo"}>
        Redo
      </Button>
      <Button onClick={() => set({ panel: "history" })}>History</Button>
      <Button tone="strong" onClick={() => set({ step: "Sheets" })}>
        Sheets and files
      </Button>
    </header>
  );
}

function Search({ actions }: { actions: Action[] }) {
  const [query, setQuery] = useState("");
  const wanted = query.toLowerCase().split(/\s+/).filter(Boolean);
  const found = actions
    .filter((action) => wanted.every((word) => action.label.toLowerCase().includes(word)))
    .slice(0, 12);
  return (
    <Combobox<Action | null>
      immediate
      value={null}
      onChange={(action) => {
        setQuery("");
        // Once the list has closed and given the focus back: a panel that opens must not return it to the search.
        window.setTimeout(() => {
          (document.activeElement as HTMLElement | null)?.blur();
          action?.run();
        });
      }}
      onClose={() => setQuery("")}
    >
      <div className="relative w-[300px]">
        <ComboboxInput
          id="action-search"
          aria-label="Find an action, level, side, sheet"
          placeholder="Find an action, level, side, sheet"
          autoComplete="off"
          className="h-7 w-full rounded-full border border-rule bg-paper px-3 pr-8 text-[12.5px] placeholder:text-quiet"
          displayValue={() => query}
          onChange={(event) => setQuery(event.target.value)}
        />
        <kbd className="pointer-events-none absolute right-3 top-1 font-mono text-[12px] text-quiet">/</kbd>
        <ComboboxOptions className="absolute z-30 mt-1 max-h-[340px] w-full overflow-auto rounded-md border border-rule bg-field py-1 empty:hidden">
          {found.map((action) => (
            <ComboboxOption
              key={action.id}
              value={action}
              className="cursor-pointer px-3 py-1.5 text-[12.5px] data-focus:bg-line-soft"
            >
              {action.label}
            </ComboboxOption>
          ))}
        </ComboboxOptions>
      </div>
    </Combobox>
  );
}
