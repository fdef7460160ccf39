import { type FormEvent, useState } from "react";
import { useCreateProject, useImportProject, useProjects } from "../../api/queries";
import { Button } from "../../ui/Button";
import { FileButton } from "../../ui/FileButton";
import { Note } from "../../ui/Note";
import { ProjectRow } from "./ProjectRow";

export function ProjectList({ onOpen }: { onOpen: (id: string) => void }) {
  const projects = useProjects();
  const create = useCreateProject();
  const bring = useImportProject();
  const [name, setName] = useState("");
  const [units, setUnits] = useState<"ft-in" | "mm">("ft-in");
  const [tradition, setTradition] = useState<"timber" | "masonry">("timber");
  const [ground, setGround] = useState<"slab" | "joists">("slab");
  const [archived, setArchived] = useState(false);
  const all = projects.data ?? [];
  const away = all.filter((project) => project.archived).length;
  const shown = all.filter((project) => archived || !project.archived);

  function submit(event: FormEvent) {
    event.preventDefault();
    create.mutate({ name: name.trim(), units, tradition, ground }, { onSuccess: (state) => onOpen(state.id) });
  }

  return (
    <main className="mx-auto flex h-full max-w-[880px] flex-col gap-8 overflow-auto px-6 py-12">
      <header>
        <h1 className="text-[26px] font-semibold">Deep Section</h1>
        <p className="mt-1 max-w-[60ch] text-quiet">
          Say where things stand, how high, and of what they are made. The elevations, sections and sheets follow.
        </p>
      </header>
      <section aria-labelledby="new">
        <h2 id="new" className="mb-2 text-[15px] font-semibold">
          Start a project
        </h2>
        <form onSubmit={submit} className="flex flex-wrap items-end gap-3 rounded-md border border-rule bg-paper p-4">
          <label className="flex grow flex-col gap-1 text-[12px] text-quiet">
            Name
            <input
              required
              maxLength={120}
              value={name}
              onChange={(event) => setName(event.target.value)}
              className="h-8 rounded-md border border-rule bg-field px-2 text-[13px] text-ink"
            />
          </label>
          <fieldset className="flex gap-1">
            <legend className="mb-1 text-[12px] text-quiet">Built of</legend>
            <Button
              tone={tradition === "timber" ? "chosen" : "plain"}
              aria-pressed={tradition === "timber"}
              onClick={() => setTradition("timber")}
            >
              Timber frame
            </Button>
            <Button
              tone={tradition === "masonry" ? "chosen" : "plain"}
              aria-pressed={tradition === "masonry"}
              onClick={() => {
                setTradition("masonry");
                setUnits("mm");
                setGround("slab");
              }}
            >
              Masonry
            </Button>
          </fieldset>
          <fieldset className="flex gap-1">
            <legend className="mb-1 text-[12px] text-quiet">Drawn in</legend>
            <Button
              tone={units === "ft-in" ? "chosen" : "plain"}
              aria-pressed={units === "ft-in"}
              disabled={tradition === "masonry"}
              onClick={() => setUnits("ft-in")}
            >
              Feet and inches
            </Button>
            <Button
              tone={units === "mm" ? "chosen" : "plain"}
              aria-pressed={units === "mm"}
              onClick={() => setUnits("mm")}
            >
              Millimetres
            </Button>
          </fieldset>
          <fieldset className="flex gap-1">
            <legend className="mb-1 text-[12px] text-quiet">Lowest floor</legend>
            <Button
              tone={ground === "slab" ? "chosen" : "plain"}
              aria-pressed={ground === "slab"}
              onClick={() => setGround("slab")}
            >
              Slab on the ground
            </Button>
            <Button
              tone={ground === "joists" ? "chosen" : "plain"}
              aria-pressed={ground === "joists"}
              disabled={tradition === "masonry"}
              onClick={() => setGround("joists")}
            >
              Joists over a crawl space
            </Button>
          </fieldset>
          <Button type="submit" tone="strong" className="ml-auto" disabled={!name.trim() || create.isPending}>
            Start drawing
          </Button>
        </form>
        {create.error && <Note className="mt-2">{create.error.message}</Note>}
      </section>
      <section aria-labelledby="held">
        <div className="mb-2 flex items-center justify-between">
          <h2 id="held" className="text-[15px] font-semibold">
            Projects here
          </h2>
          <FileButton
            label="Import a project file"
            name="Project file"
            accept=".json,application/json"
            onFile={(file) => bring.mutate(file, { onSuccess: (state) => onOpen(state.id) })}
          />
        </div>
        {bring.error && <Note className="mb-2">{bring.error.message}</Note>}
        {projects.isLoading && <Note tone="note">Fetching the projects…</Note>}
        {projects.error && (
          <Note>
            {projects.error.message}{" "}
            <button type="button" className="underline" onClick={() => projects.refetch()}>
              Try again
            </button>
          </Note>
        )}
        {projects.data?.length === 0 && <Note tone="note">No project yet. Name one above and start drawing.</Note>}
        <ul className="divide-y divide-rule rounded-md border border-rule bg-paper empty:hidden">
          {shown.map((project) => (
            <ProjectRow key={project.id} project={project} onOpen={onOpen} />
          ))}
        </ul>
        {away > 0 && (
          <Button className="mt-3" aria-pressed={archived} onClick={() => setArchived(!archived)}>
            {archived ? "Hide archived projects" : `Show archived projects (${away})`}
          </Button>
        )}
      </section>
    </main>
  );
}
