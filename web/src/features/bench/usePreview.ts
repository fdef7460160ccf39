import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { type Bench, type Edit, Refusal, type ViewWanted } from "../../api/client";
import { preview } from "../../api/queries";

/** Shows edits without keeping them: one request at a time, the latest edits win. */
export function usePreview(id: string, version: number, views: ViewWanted[], saving: boolean) {
  const client = useQueryClient();
  const [shown, setShown] = useState<Bench | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const waiting = useRef<Edit[] | null>(null);
  const busy = useRef(false);
  const sequence = useRef(0);
  const place = useRef({ id, version, views, saving });
  place.current = { id, version, views, saving };

  const pump = useCallback(async () => {
    if (busy.current) return;
    busy.current = true;
    // While an edit is being kept its version is not known yet: what waits is shown on top of it, or falls away.
    while (waiting.current && !place.current.saving) {
      const edits = waiting.current;
      waiting.current = null;
      const mine = ++sequence.current;
      try {
        const { id, version, views } = place.current;
        const bench = await preview(id, version, mine, edits, views);
        if (mine === sequence.current) {
          setShown(bench);
          setWrong(null);
        }
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
      waiting.current = edits;
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
  return { shown, wrong, show, clear };
}
