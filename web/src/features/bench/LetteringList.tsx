import { type Annotation, annotationWith, keyInWords, showOf, tidied } from "../../actions/shown";
import type { Drawing, State } from "../../api/client";
import { usePick } from "../../store";
import { Button } from "../../ui/Button";
import { useHeld } from "../../useProject";

/** What became of one piece of lettering, in words. */
function fate(held: Annotation): string {
  const words = [
    held.hidden && "hidden",
    (held.dx || held.dy) && "moved",
    held.text && "reworded",
    held.rank === "first" && "stays first",
    held.rank === "last" && "goes first",
    held.mark && `marked ${held.mark}`,
  ].filter(Boolean);
  return words.join(", ");
}

/** The lettering of a view that is not as the view writes it, what found no room, and its notes. */
export function LetteringList({ drawing }: { drawing: Drawing }) {
  const { state, commit } = useHeld();
  const { set } = usePick("set");
  const shown = showOf(state.project, drawing.name);
  const changed = shown.annotations;
  const left = drawing.left_out ?? [];
  const notes = (state.project.notes ?? []).filter((note) => note.view === drawing.name);
  const moved = changed.some((held) => held.dx || held.dy) || shown.strings.some((held) => held.away);
  const put = notes.some((note) => note.offset);
  if (!changed.length && !left.length && !moved && !put)
    return notes.length ? <Notes notes={notes} drawing={drawing} /> : null;
  const textOf = (held: Annotation) =>
    held.text ??
    drawing.marks.find(
      (mark): mark is Extract<Drawing["marks"][number], { size?: number; text: string }> =>
        "text" in mark && mark.annotation === held.key,
    )?.text ??
    keyInWords(held.key);
  return (
    <section aria-label="Changed lettering" className="mb-2 border-b border-rule pb-2">
      <div className="mb-1 flex items-center">
        <h3 className="grow font-semibold">Changed or left out</h3>
        <Button
          disabled={!moved && !put}
          title="Put all that was moved back where it reads best"
          onClick={() => commit([tidied(drawing.name)])}
        >
          Tidy this view
        </Button>
      </div>
      <ul>
        {changed.map((held) => (
          <li key={held.key} className="flex items-center gap-1 py-[1px]">
            <button
              type="button"
              className="min-w-0 grow truncate text-left hover:text-line"
              onClick={() => set({ lettering: { view: drawing.name, key: held.key } })}
            >
              {textOf(held)}
            </button>
            <span className="text-[11px] text-quiet">{fate(held)}</span>
            <button
              type="button"
              aria-label={`${textOf(held)} as it was`}
              className="rounded px-1 text-[11px] text-quiet hover:text-line"
              onClick={() =>
                commit([
                  annotationWith(state.project, drawing.name, held.key, {
                    dx: 0,
                    dy: 0,
                    text: null,
                    hidden: false,
                    rank: "usual",
                    mark: null,
                  }),
                ])
              }
            >
              as it was
            </button>
          </li>
        ))}
        {left.map(([key, text]) => (
          <li key={key} className="flex gap-1 py-[1px]">
            <span className="min-w-0 grow truncate">{text}</span>
            <span className="text-[11px] text-quiet">no room at this scale</span>
          </li>
        ))}
      </ul>
      {notes.length > 0 && <Notes notes={notes} drawing={drawing} />}
    </section>
  );
}

interface NotesProps {
  notes: NonNullable<State["project"]["notes"]>;
  drawing: Drawing;
}

/** The notes of a view; those that lost what they point at say so, and each can be tied to something else. */
function Notes({ notes, drawing }: NotesProps) {
  const { tying, set } = usePick("tying", "set");
  const lost = new Set(
    drawing.marks.flatMap((mark) => ("feature" in mark && mark.feature === "lost" ? mark.part : [])),
  );
  return (
    <section aria-label="Notes of the view" className="mt-1">
      <h3 className="font-semibold">Notes</h3>
      <ul>
        {notes.map((note) => (
          <li key={note.id} className="flex items-center gap-1 py-[1px]">
            <button
              type="button"
              className="min-w-0 grow truncate text-left hover:text-line"
              onClick={() => set({ selection: note.id, also: [] })}
            >
              {note.text}
            </button>
            {lost.has(note.id) && <span className="text-[11px] text-cut">lost its place</span>}
            <button
              type="button"
              aria-label={`Tie ${note.text} to something else`}
              aria-pressed={tying === note.id}
              className="rounded px-1 text-[11px] text-quiet hover:text-line"
              onClick={() => set({ tool: "note", tying: note.id, selection: note.id, also: [] })}
            >
              {lost.has(note.id) ? "tie again" : "tie elsewhere"}
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
