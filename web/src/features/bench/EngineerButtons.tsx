import { useState } from "react";
import { Button } from "../../ui/Button";
import { FileButton } from "../../ui/FileButton";
import { useHeld } from "../../useProject";

/** Sends the structural plan that is shown to the engineer, a simulated one, or reads an answer that came as a file. */
export function EngineerButtons({ view }: { view: string }) {
  const { state, change, saving } = useHeld();
  const [said, setSaid] = useState("");
  const open = (state.project.comments ?? []).filter((held) => held.view === view && held.status === "open").length;
  const ask = (answer?: string) =>
    change(
      { kind: "engineer", view, answer },
      { done: () => setSaid("answered"), failed: (error) => setSaid(error.message) },
    );
  return (
    <div className="flex shrink-0 items-center gap-1">
      <Button disabled={saving} onClick={() => ask()}>
        Send to the engineer
      </Button>
      <FileButton
        label="Read an answer"
        name="Answer of the engineer"
        accept=".json"
        disabled={saving}
        onFile={async (file) => ask(await file.text())}
      />
      <span role="status" aria-label="comments" className="text-[11px] text-quiet">
        {said === "answered" ? (open ? `${open} open` : "no comments are open") : said || (open ? `${open} open` : "")}
      </span>
    </div>
  );
}
