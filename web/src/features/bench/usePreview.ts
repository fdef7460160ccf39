import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { type Bench, type Edit, Refusal, type ViewWanted } from "../../api/client";
import { preview } from "../../api/queries";
import type { Trial } from "../../store";

type Wanted = { edits: Edit[]; entry?: Trial; draft: boolean };

/** A section line that rests so long (ms) while it is dragged is drawn whole. */
const REST = 150;

/** What section lines cut follows them at once; all else of it is drawn where they rest. */
function isDraft(edits: Edit[]): boolean {
  return edits.length > 0 && edits.every((edit) => edit.kind === "put_section");
}

/** Shows edits without keeping them: one request at a time, the latest edits win. */
export function usePreview(id: string, version: number, views: ViewWanted[], saving: boolean) {
  const client = useQueryClient();
  const [shown, setShown] = useState<Bench | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const waiting = useRef<Wanted | null>(null);
  const busy = useRef(false);
  const sequence = useRef(0);
  const place = useRef({ id, version, views, saving });
  place.current = { id, version, views, saving };

  const pump = useCallback(async () => {
    if (busy.current) return;
    busy.current = true;
    // While an edit is being kept its version is not known yet: what waits is shown on top of it, or falls away.
    while (waiting.current && !place.current.saving) {
      const wanted = waiting.current;
      waiting.current = null;
      const mine = ++sequence.current;
      try {
        const { id, version, views } = place.current;
        const bench = await preview(client, id, version, mine, wanted, views);
        if (mine === sequence.current) {
          setShown(bench);
          setWrong(null);
        }
        if (wanted.draft)
          setTimeout(() => {
            if (waiting.current || mine !== sequence.current) return;
            waiting.current = { ...wanted, draft: false };
            void pump();
          }, REST);
      } catch (error) {
        if (error instanceof Refusal && error.problem.status === 409)
          client.invalidateQueries({ queryKey: ["project", place.current.id] });
        if (mine === sequence.current) setWrong(error instanceof Error ? error.message : "That cannot be shown.");
      }
    }
    busy.current = false;
  }, [client]);

  const show = useCallback(
    (edits: Edit[]) => {
      waiting.current = { edits, draft: isDraft(edits) };
      void pump();
    },
    [pump],
  );
  const showEntry = useCallback(
    (entry: Trial) => {
      waiting.current = { edits: [], entry, draft: false };
      void pump();
    },
    [pump],
  );
  const clear = useCallback(() => {
    waiting.current = null;
    sequence.current += 1;
    setShown(null);
    setWrong(null);
  }, []);

  // biome-ignore lint/correctness/useExhaustiveDependencies: a new version or another view replaces what was previewed
  useEffect(() => clear(), [version, views, clear]);
  useEffect(() => {
    if (!saving) void pump();
  }, [saving, pump]);
  return { shown, wrong, show, showEntry, clear };
}
