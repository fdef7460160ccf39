import { useState } from "react";
import type { Kind } from "../../actions/openings";
import { newId } from "../../actions/types";
import { useProjectState, useProjects } from "../../api/queries";
import { usePick } from "../../store";
import { Button } from "../../ui/Button";
import { Note } from "../../ui/Note";
import { Panel } from "../../ui/Panel";
import { Select } from "../../ui/Select";
import { useHeld } from "../../useProject";

/** Copies a make-up, a kind or a saved wall of another project into this one. */
export function MakeUpPanel() {
  const { panel, set } = usePick("panel", "set");
  return (
    <Panel
      title="Import a make-up, a kind or a saved wall"
      open={panel === "make-ups"}
      onClose={() => set({ panel: null })}
    >
      <Choices onDone={() => set({ panel: null })} />
    </Panel>
  );
}

/** A kind under an id of its own, and another name where its name is taken. */
function copyOf(kind: Kind, held: Kind[]): Kind {
  const taken = held.map((own) => own.name);
  let name = kind.name;
  for (let n = 2; taken.includes(name); n++) name = `${kind.name} ${n}`;
  return { ...kind, id: newId("kind"), name };
}

function Choices({ onDone }: { onDone: () => void }) {
  const { id, state, change, commit } = useHeld();
  const projects = useProjects();
  const [from, setFrom] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const [sought, setSought] = useState("");
  const fits = (held: { name: string }) => held.name.toLowerCase().includes(sought.trim().toLowerCase());
  const other = useProjectState(from);
  const others = (projects.data ?? []).filter((project) => project.id !== id);
  if (projects.data && others.length === 0) return <Note tone="note">There is no other project to take one from.</Note>;
  return (
    <div className="flex flex-col gap-3">
      <div className="text-[12px] text-quiet">
        From project
        <Select
          aria-label="From project"
          value={from ?? ""}
          onChange={(value) => setFrom(value || null)}
          className="mt-1 h-8! w-full"
        >
          <option value="">choose one</option>
          {others.map((project) => (
            <option key={project.id} value={project.id}>
              {project.name}
            </option>
          ))}
        </Select>
      </div>
      {from && (
        <input
          aria-label="Find by name"
          placeholder="find by name"
          value={sought}
          onChange={(event) => setSought(event.target.value)}
          className="h-8 rounded-md border border-rule bg-field px-2 text-[13px]"
        />
      )}
      {other.error && <Note>{other.error.message}</Note>}
      {wrong && <Note>{wrong}</Note>}
      <ul className="flex flex-col gap-1.5">
        {from &&
          other.data?.project.make_ups?.filter(fits).map((held) => (
            <li key={held.id} className="flex items-center justify-between gap-2 border-b border-rule py-1.5">
              <span className="text-[13px]">
                {held.name} <span className="text-[11.5px] text-quiet">{held.layers.length} layers</span>
              </span>
              <Button
                aria-label={`Copy ${held.name}`}
                onClick={() =>
                  change(
                    { kind: "make-up", project: from, make_up: held.id },
                    { done: onDone, failed: (error) => setWrong(error.message) },
                  )
                }
              >
                Copy
              </Button>
            </li>
          ))}
        {from &&
          other.data?.project.saved_walls?.filter(fits).map((held) => (
            <li key={held.id} className="flex items-center justify-between gap-2 border-b border-rule py-1.5">
              <span className="text-[13px]">
                {held.name} <span className="text-[11.5px] text-quiet">saved wall</span>
              </span>
              <Button
                aria-label={`Copy ${held.name}`}
                onClick={() =>
                  change(
                    { kind: "saved-wall", project: from, saved_wall: held.id },
                    { done: onDone, failed: (error) => setWrong(error.message) },
                  )
                }
              >
                Copy
              </Button>
            </li>
          ))}
        {from &&
          other.data?.project.kinds?.filter(fits).map((held) => (
            <li key={held.id} className="flex items-center justify-between gap-2 border-b border-rule py-1.5">
              <span className="text-[13px]">
                {held.number} {held.name} <span className="text-[11.5px] text-quiet">kind of {held.unit}</span>
              </span>
              <Button
                aria-label={`Copy ${held.number} ${held.name}`}
                onClick={() =>
                  commit([{ kind: "put_kind", design: copyOf(held, state.project.kinds ?? []) }], {
                    done: onDone,
                    failed: (error) => setWrong(error.message),
                  })
                }
              >
                Copy
              </Button>
            </li>
          ))}
      </ul>
    </div>
  );
}
