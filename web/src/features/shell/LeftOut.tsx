import { useClient } from "../../store";
import { Button } from "../../ui/Button";
import { Note } from "../../ui/Note";
import { useHeld } from "../../useProject";

/** The code of findings about what could not be built or drawn. */
const LEFT_OUT = "left-out";

/** What could not be built and is left out of the drawings, and the way back to where everything could. */
export function LeftOut() {
  const { bench, change, saving } = useHeld();
  const set = useClient((held) => held.set);
  const found = bench.findings.filter((finding) => finding.code === LEFT_OUT);
  if (!found.length) return null;
  const [first] = found;
  return (
    <div className="absolute top-14 left-1/2 z-20 -translate-x-1/2">
      <Note className="flex max-w-[640px] items-center gap-2">
        <span>
          {first.message}
          {found.length > 1 && ` (and ${found.length - 1} more)`}
        </span>
        {first.element !== "project" && <Button onClick={() => set({ selection: first.element })}>Show it</Button>}
        <Button disabled={saving} onClick={() => change({ kind: "back", version: null })}>
          Back to the last that draws
        </Button>
      </Note>
    </div>
  );
}
