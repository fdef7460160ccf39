import { useMemo } from "react";
import type { Drawing } from "../../api/client";
import { usePages } from "../../api/queries";
import { segmentsOf } from "../../drawing/backdropEnds";
import { DrawingView } from "../../drawing/DrawingView";
import { snapped } from "../../drawing/frame";
import { usePane } from "../../drawing/usePane";
import type { Point } from "./lying";

interface Props {
  drawing: Drawing;
  /** What was pointed at so far; none where nothing is asked for. */
  picked: readonly Point[] | null;
  /** Whether the next point is one of the background, or of the house. */
  onBackground: boolean;
  onPick: (point: Point) => void;
}

/** The view with what lies under it: points of both are pointed at. */
export function BackgroundPane({ drawing, picked, onBackground, onPick }: Props) {
  const backdrops = drawing.backdrops ?? [];
  const pages = usePages(backdrops);
  const under = useMemo(
    () =>
      backdrops.flatMap((held, place): Point[] => {
        const page = pages[place]?.data;
        const [a, b, c, d, e, f] = held.place;
        const [x0, y0, x1, y1] = held.box;
        const corners = [
          [x0, y0],
          [x1, y0],
          [x1, y1],
          [x0, y1],
        ].map(([x, y]): Point => [a * x + c * y + e, b * x + d * y + f]);
        return page ? [...corners, ...segmentsOf(held, page).flat()] : corners;
      }),
    [backdrops, pages],
  );
  const house = useMemo(
    () =>
      drawing.marks.flatMap((mark): Point[] => {
        if (!("part" in mark) || !mark.part) return [];
        const held = "rings" in mark ? mark.rings.flat() : "path" in mark ? mark.path : [];
        return held.map(([x, y]): Point => [x, y]);
      }),
    [drawing],
  );
  const [bx0, by0, bx1, by1] = drawing.bounds ?? [0, 0, 1, 1];
  const shown = useMemo(
    (): Point[] => [
      ...(drawing.marks.length
        ? ([
            [bx0, by0],
            [bx1, by1],
          ] as Point[])
        : []),
      ...under.slice(0, 4),
    ],
    [drawing, under, bx0, by0, bx1, by1],
  );
  const { pane, transform, toPane, k } = usePane(shown, (place, reach) => {
    if (picked) onPick(snapped(onBackground ? under : house, place, reach));
  });
  return (
    <svg
      ref={pane}
      role="img"
      aria-label={`${drawing.title} with what lies under it`}
      className={`h-full w-full touch-none bg-paper ${picked ? "cursor-crosshair" : "cursor-default"}`}
      style={{ "--k": k, "--pen": 1, isolation: "isolate" } as React.CSSProperties}
    >
      <g transform={transform}>
        <DrawingView drawing={drawing} id="bg" k={k} />
      </g>
      {(picked ?? []).map(toPane).map(([x, y], place) => (
        <g
          // biome-ignore lint/suspicious/noArrayIndexKey: points are told apart by their order
          key={place}
          className="pointer-events-none"
        >
          <circle cx={x} cy={y} r={5} className="fill-none stroke-cut" strokeWidth={2} />
          <text x={x + 9} y={y - 6} className="fill-cut text-[12px] font-semibold">
            {place + 1}
          </text>
        </g>
      ))}
    </svg>
  );
}
