import { Popover, PopoverButton, PopoverPanel } from "@headlessui/react";
import { ChevronLeft, ChevronRight, TriangleAlert, Waypoints } from "lucide-react";
import type { Schemas } from "../../api/client";
import { useJunctions } from "../../api/queries";
import { usePick } from "../../store";
import { Button } from "../../ui/Button";
import { useHeld } from "../../useProject";

type Group = Schemas["JunctionGroupOut"];

/** The details of the house, one after the other, and the list of its junctions. */
export function DetailBar() {
  const { detail, fill, set } = usePick("detail", "fill", "set");
  const { state } = useHeld();
  const details = state.project.details ?? [];
  const at = details.findIndex((held) => held.id === detail);
  const go = (to: number) => {
    const { id } = details[(to + details.length) % details.length];
    set({ detail: id, selection: id, fill: fill === "plan" ? "both" : fill });
  };
  return (
    <div className="pointer-events-auto flex flex-wrap items-center gap-1">
      {details.length > 0 && (
        <>
          <Button aria-label="The detail before" title="The detail before" onClick={() => go(at < 0 ? -1 : at - 1)}>
            <ChevronLeft size={14} aria-hidden />
          </Button>
          <span className="min-w-[52px] text-center text-[12px] tabular-nums text-quiet">
            {at < 0 ? `${details.length} in all` : `${at + 1} of ${details.length}`}
          </span>
          <Button aria-label="The next detail" title="The next detail" onClick={() => go(at + 1)}>
            <ChevronRight size={14} aria-hidden />
          </Button>
        </>
      )}
      <Popover>
        <PopoverButton className="inline-flex h-7 items-center gap-1.5 rounded-md border border-rule bg-paper px-2 text-[12.5px] hover:border-quiet">
          <Waypoints size={13} aria-hidden />
          Junctions
        </PopoverButton>
        <PopoverPanel
          as="section"
          aria-label="Junctions of the house"
          className="fixed bottom-[28px] right-0 top-[44px] z-30 flex w-[296px] flex-col border-l border-rule bg-ground text-[12.5px]"
        >
          {({ close }) => <Junctions close={close} />}
        </PopoverPanel>
      </Popover>
    </div>
  );
}

/** Junctions by kind, each group with how much there is of it and its detail; pointing at one lights up where it is. */
function Junctions({ close }: { close: () => void }) {
  const { state, change, saving } = useHeld();
  const { detail, fill, set } = usePick("detail", "fill", "set");
  const groups = useJunctions(state.id, state.version).data ?? [];
  const missing = groups.filter((group) => group.drawn && group.details.length === 0).length;
  const placed = new Set((state.project.sheets ?? []).flatMap((held) => (held.placed ?? []).map((one) => one.view)));
  const off = (state.project.details ?? []).filter((held) => !placed.has(`detail:${held.id}`)).length;
  const kinds = [...new Set(groups.map((group) => group.kind))];
  const light = (group: Group | null) => set({ lit: group ? ends(group) : [] });
  const open = (id: string) => {
    set({ detail: id, selection: id, fill: fill === "plan" ? "both" : fill });
    close();
  };
  return (
    <>
      <div className="border-b border-rule px-4 py-3">
        <h2 className="text-[14px] font-semibold">Junctions</h2>
        <p className="mt-0.5 text-[11.5px] text-quiet">Those that are built alike share one detail.</p>
        {missing > 0 && (
          <Button
            tone="strong"
            className="mt-2 w-full justify-center"
            disabled={saving}
            onClick={() => change({ kind: "details", keys: null })}
          >
            {missing === 1 ? "Draw the missing detail" : `Draw the details of this house (${missing})`}
          </Button>
        )}
      </div>
      {off > 0 && missing === 0 && (
        <div className="border-b border-rule px-4 py-2">
          <Button className="w-full justify-center" disabled={saving} onClick={() => change({ kind: "detail-sheets" })}>
            {off === 1 ? "Lay the detail on a sheet" : `Lay ${off} details on sheets`}
          </Button>
        </div>
      )}
      <div className="min-h-0 grow overflow-y-auto px-4 pb-3">
        {kinds.map((kind) => {
          const own = groups.filter((group) => group.kind === kind);
          return (
            <section key={kind} aria-label={own[0].many}>
              <h3 className="mt-3 text-[12px] font-semibold first-letter:uppercase">{own[0].many}</h3>
              <ul>
                {own.map((group) => (
                  <li
                    key={group.key}
                    className="flex items-center gap-2 rounded px-1 py-0.5 hover:bg-paper"
                    onPointerEnter={() => light(group)}
                    onPointerLeave={() => light(null)}
                  >
                    <span className="w-5 shrink-0 text-right tabular-nums text-quiet">{group.number}</span>
                    <span className="min-w-0 grow" title={ends(group).join(", ")}>
                      {group.pieces === 1 ? "1 place" : `${group.pieces} places`}
                      {group.size && <span className="font-mono text-quiet"> {group.size}</span>}
                      {group.built && <span className="block truncate text-[11px] text-quiet">{group.built}</span>}
                    </span>
                    {group.findings.length > 0 && (
                      <span
                        role="img"
                        aria-label={group.findings.map((found) => found.words).join("; ")}
                        title={group.findings.map((found) => found.words).join("\n")}
                        className="shrink-0 text-check"
                      >
                        <TriangleAlert size={13} aria-hidden />
                      </span>
                    )}
                    {group.details.map((id) => (
                      <Button
                        key={id}
                        tone={detail === id ? "chosen" : "plain"}
                        aria-pressed={detail === id}
                        title={`Detail ${named(state.project.details ?? [], id)}`}
                        onClick={() => open(id)}
                      >
                        {named(state.project.details ?? [], id).split(",")[0]}
                      </Button>
                    ))}
                    {group.drawn && group.details.length === 0 && (
                      <Button
                        disabled={saving}
                        aria-label={`Draw a detail of ${group.one} ${group.number}`}
                        onClick={() => change({ kind: "details", keys: [group.key] })}
                      >
                        Draw
                      </Button>
                    )}
                  </li>
                ))}
              </ul>
            </section>
          );
        })}
        {groups.length === 0 && <p className="py-3 text-quiet">Nothing meets yet. Draw the outer walls on the plan.</p>}
      </div>
    </>
  );
}

/** What meets at the junctions of a group: walls alone are too large a thing to point at an opening by. */
function ends(group: Group): string[] {
  return [...new Set(group.junctions.map((held) => held.elements[0]))];
}

function named(details: { id: string; name: string }[], id: string): string {
  return details.find((held) => held.id === id)?.name ?? "";
}
