import { useMemo } from "react";
import { UnderLines } from "../../actions/underLines";
import type { Drawing } from "../../api/client";
import { usePages } from "../../api/queries";
import { segmentsOf } from "../../drawing/backdropEnds";

const NONE: NonNullable<Drawing["backdrops"]> = [];

/** The lines under a drawing that are snapped to; none where nothing lies under it. */
export function useUnderLines(drawing: Drawing | undefined): UnderLines | null {
  const held = drawing?.backdrops ?? NONE;
  const pages = usePages(held);
  const key = `${held.map(({ id, place, box, snapped }) => [id, place, box, snapped]).join()} ${pages.map(({ dataUpdatedAt }) => dataUpdatedAt).join()}`;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key says when any of them has changed
  return useMemo(() => {
    const lines = held.flatMap((one, place) => {
      const page = pages[place]?.data;
      return one.snapped && page ? segmentsOf(one, page) : [];
    });
    return lines.length ? new UnderLines(lines) : null;
  }, [key]);
}
