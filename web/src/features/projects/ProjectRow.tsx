import { type FormEvent, useState } from "react";
import type { Schemas } from "../../api/client";
import { useChangeProject, useCopyProject } from "../../api/queries";
import { Button } from "../../ui/Button";
import { Note } from "../../ui/Note";

type Item = Schemas["ProjectItem"];

/** A project in the list: opened by its name; copied, renamed, archived, taken along as a file. */
export function ProjectRow({ project, onOpen }: { project: Item; onOpen: (id: string) => void }) {
  const copy = useCopyProject();
  const change = useChangeProject();
  const [name, setName] = useState<string | null>(null);
  const wrong = copy.error ?? change.error;

  function rename(event: FormEvent) {
    event.preventDefault();
    if (name?.trim()) change.mutate({ id: project.id, name: name.trim() }, { onSuccess: () => setName(null) });
  }

  return (
    <li className="px-4 py-2.5">
      <div className="flex items-center gap-3">
        <img
          src={`/api/projects/${project.id}/picture?version=${project.version}`}
          alt={`${project.name} from the south`}
          loading="lazy"
          width={86}
          height={60}
          className="h-[60px] w-[86px] shrink-0 rounded border border-rule bg-paper"
        />
        {name === null ? (
          <button
            type="button"
            onClick={() => onOpen(project.id)}
            className="flex min-w-0 grow items-baseline justify-between gap-3 rounded text-left hover:text-line"
          >
            <span className={`truncate text-[14px] font-semibold ${project.archived ? "text-quiet" : ""}`}>
              {project.name}
              {project.archived && <span className="ml-2 text-[12px] font-normal">archived</span>}
            </span>
            <span className="whitespace-nowrap font-mono text-[11.5px] text-quiet">
              changed{" "}
              {new Date(`${project.changed}Z`).toLocaleString(undefined, { dateStyle: "short", timeStyle: "short" })}
            </span>
          </button>
        ) : (
          <form onSubmit={rename} className="flex min-w-0 grow gap-1.5">
            <input
              // biome-ignore lint/a11y/noAutofocus: the form opens where one has just asked for it
              autoFocus
              aria-label={`New name of ${project.name}`}
              maxLength={120}
              value={name}
              onChange={(event) => setName(event.target.value)}
              onKeyDown={(event) => event.key === "Escape" && setName(null)}
              className="h-7 min-w-0 grow rounded-md border border-rule bg-field px-2 text-[13px]"
            />
            <Button type="submit" tone="strong">
              Keep
            </Button>
            <Button onClick={() => setName(null)}>Cancel</Button>
          </form>
        )}
        <Button aria-label={`Rename ${project.name}`} onClick={() => setName(project.name)}>
          Rename
        </Button>
        <Button aria-label={`Copy ${project.name}`} disabled={copy.isPending} onClick={() => copy.mutate(project.id)}>
          Copy
        </Button>
        <a
          href={`/api/projects/${project.id}/file`}
          download={`${project.name}.deepsection.json`}
          aria-label={`File of ${project.name}`}
          className="inline-flex h-7 items-center rounded-md border border-rule bg-paper px-2.5 text-[12.5px] hover:border-quiet"
        >
          File
        </a>
        <Button
          aria-label={`${project.archived ? "Restore" : "Archive"} ${project.name}`}
          onClick={() => change.mutate({ id: project.id, archived: !project.archived })}
        >
          {project.archived ? "Restore" : "Archive"}
        </Button>
      </div>
      {wrong && <Note className="mt-1.5">{wrong.message}</Note>}
    </li>
  );
}
