import { Popover, PopoverButton, PopoverPanel } from "@headlessui/react";
import { Plus } from "lucide-react";
import { useUsualPlaces } from "../../api/queries";
import { usePick } from "../../store";
import { Button } from "../../ui/Button";
import { useHeld } from "../../useProject";

/** The sections of the house and its wall sections, to be looked at. */
export function SectionBar() {
  const { section, set } = usePick("section", "set");
  const { state } = useHeld();
  const lines = state.project.sections ?? [];
  const strips = state.project.wall_sections ?? [];
  const chip = ({ id, name }: { id: string; name: string }, title: string, fill: "both" | "view") => (
    <Button
      key={id}
      tone={section === id ? "chosen" : "plain"}
      aria-pressed={section === id}
      title={title}
      onClick={() => set({ section: id, selection: id, fill })}
    >
      {name}
    </Button>
  );
  return (
    <div className="pointer-events-auto flex flex-wrap items-center gap-1">
      {lines.map((line) => chip(line, `Section ${line.name}`, "both"))}
      {lines.length + strips.length === 0 && (
        <span className="text-[12px] text-quiet">Choose Section line above, and draw it across the plan.</span>
      )}
      {strips.length > 0 && <span className="ml-2 text-[11px] text-quiet">walls</span>}
      {strips.map((strip) => chip(strip, `Wall section ${strip.name}`, "view"))}
      <Popover>
        <PopoverButton className="inline-flex h-7 items-center gap-1 rounded-md border border-rule bg-paper px-2 text-[12.5px] hover:border-quiet">
          <Plus size={13} aria-hidden />
          Wall sections
        </PopoverButton>
        <PopoverPanel
          as="section"
          anchor="bottom start"
          aria-label="Usual places of wall sections"
          className="z-30 mt-1 w-[340px] rounded-md border border-rule bg-ground p-2 text-[12.5px] shadow-lg"
        >
          {({ close }) => <UsualPlaces close={close} />}
        </PopoverPanel>
      </Popover>
    </div>
  );
}

/** Where a wall section would be usual, each with what it would show; or one where the drafter points. */
function UsualPlaces({ close }: { close: () => void }) {
  const { state, commit } = useHeld();
  const { set } = usePick("set");
  const places = useUsualPlaces(state.id, state.version);
  const found = places.data ?? [];
  const put = (chosen: typeof found) => {
    const last = chosen.at(-1)?.wall_section.id;
    commit(
      chosen.map(({ wall_section }) => ({ kind: "put_wall_section" as const, wall_section })),
      { done: () => last && set({ section: last, selection: last, fill: "view" }) },
    );
    close();
  };
  return (
    <>
      <button
        type="button"
        className="block w-full rounded px-2 py-1 text-left hover:bg-paper"
        onClick={() => {
          set({ tool: "wall-section", message: null, fill: "both" });
          close();
        }}
      >
        Where I click on the plan
      </button>
      <h3 className="mt-1 border-t border-rule px-2 pt-1.5 text-[11px] text-quiet">Usual places</h3>
      {found.map((place) => (
        <button
          key={place.wall_section.id}
          type="button"
          className="block w-full rounded px-2 py-1 text-left hover:bg-paper"
          onClick={() => put([place])}
        >
          {place.shows}
        </button>
      ))}
      {found.length > 1 && (
        <button
          type="button"
          className="block w-full rounded px-2 py-1 text-left font-semibold hover:bg-paper"
          onClick={() => put(found)}
        >
          All {found.length}
        </button>
      )}
      {places.isSuccess && found.length === 0 && (
        <p className="px-2 py-1 text-quiet">Every kind of outer wall has its wall section.</p>
      )}
    </>
  );
}
