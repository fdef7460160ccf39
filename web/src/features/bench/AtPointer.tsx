import type { SumTable } from "../../api/client";
import { usePick } from "../../store";
import { Note } from "../../ui/Note";
import { SumCard } from "../../ui/SumCard";
import { useHeld } from "../../useProject";
import { LengthEntry } from "./LengthEntry";
import type { Entry } from "./useBenchPointer";
import { LADDER, type Size } from "./viewport";

interface Props {
  /** The height that is pointed at, and whether on the ladder. */
  sum: SumTable | undefined;
  onLadder: boolean;
  wrong: string | null;
  /** What is read beside the pointer while something is dragged or drawn. */
  label: string | null;
  entry: Entry | null;
  closeEntry: () => void;
  size: Size;
}

/** What stands beside the pointer: it alone is drawn anew when the pointer moves. */
export function AtPointer({ sum, onLadder, wrong, label, entry, closeEntry, size }: Props) {
  const { at } = usePick("at");
  const { state } = useHeld();
  return (
    <>
      {sum && (
        <SumCard
          table={sum}
          x={place(onLadder ? LADDER + 12 : at.x + 18, size.width - 258)}
          y={place(at.y - 20, size.height - 40 - sum.rows.length * 18)}
        />
      )}
      {label && !entry && (
        <output
          className="pointer-events-none absolute z-10 whitespace-pre rounded border border-line bg-field px-1.5 py-0.5 font-mono text-[11.5px] text-line"
          style={{ left: at.x + 14, top: at.y + 12 }}
        >
          {label}
        </output>
      )}
      {wrong && (
        <div
          className="pointer-events-none absolute z-20 max-w-[300px]"
          style={{ left: place(at.x + 14, size.width - 310), top: place(at.y + 34, size.height - 70) }}
        >
          <Note>{wrong}</Note>
        </div>
      )}
      {entry && (
        <LengthEntry
          key={entry.key}
          x={place(at.x + 14, size.width - 284)}
          y={place(at.y + 14, size.height - 76)}
          label={entry.label}
          first={entry.first}
          units={entry.plain ? null : state.project.units}
          angles={entry.angles}
          second={entry.second}
          onEnter={entry.enter}
          onClose={closeEntry}
        />
      )}
    </>
  );
}

function place(value: number, most: number): number {
  return Math.max(6, Math.min(value, most));
}
