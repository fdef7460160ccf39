import { useCallback, useEffect, useRef, useState } from "react";
import type { Bench, Edit, ViewWanted } from "../../api/client";
import { preview } from "../../api/queries";

/** Shows edits without keeping them: one request at a time, the latest edits win. */
export function usePreview(id: string, version: number, views: ViewWanted[]) {
  const [shown, setShown] = useState<Bench | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const waiting = useRef<Edit[] | null>(null);
  const busy = useRef(false);
  const sequence = useRef(0);
  const place = useRef({ id, version, views });
  place.current = { id, version, views };

  const pump = useCallback(async () => {
    if (busy.current) return;
    busy.current = true;
    while (waiting.current) {
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
        if (mine === sequence.current) setWrong(error instanceof Error ? error.message : "That cannot be shown.");
      }
    }
    busy.current = false;
  }, []);

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
  return { shown, wrong, show, clear };
}
