import { useDrag } from "@use-gesture/react";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { around, type Frame, placeOf, type Size, zoomed } from "./frame";
import { useZoom } from "./useZoom";

type Point = readonly [number, number];

/** Nearer than this a drag is a click. */
const CLICK_PX = 4;

/** A pane that shows a drawing: wheel or two fingers bring it nearer, a drag moves it, a click means a place of it. */
export function usePane(points: readonly Point[], onClick: (place: Point, reach: number, target: Element) => void) {
  const pane = useRef<SVGSVGElement>(null);
  const [size, setSize] = useState<Size>({ width: 800, height: 600 });
  const [frame, setFrame] = useState<Frame | null>(null);

  useEffect(() => {
    const held = pane.current;
    if (!held) return;
    const watch = new ResizeObserver(() => setSize({ width: held.clientWidth, height: held.clientHeight }));
    watch.observe(held);
    return () => watch.disconnect();
  }, []);

  const fitted = useMemo(() => around(points, size), [points, size]);
  const at = frame ?? fitted;

  /** Pixels from the corner of the pane. */
  const spot = (x: number, y: number): Point => {
    const box = pane.current?.getBoundingClientRect();
    return [x - (box?.left ?? 0), y - (box?.top ?? 0)];
  };
  useZoom(pane, { held: at, zoomed: (from, by, x, y) => zoomed(from, size, x, y, by), set: setFrame });
  useDrag(
    ({ tap, xy, movement: [dx, dy], memo = at, touches, cancel, event }) => {
      if (touches > 1)
        cancel(); // two fingers zoom
      else if (tap) onClick(placeOf(at, size, ...spot(...xy)), 12 / at.k, event.target as Element);
      else setFrame({ ...memo, x: memo.x - dx / memo.k, y: memo.y + dy / memo.k });
      return memo;
    },
    { target: pane, filterTaps: true, tapsThreshold: CLICK_PX, pointer: { keys: false } },
  );

  /** Where a place of the drawing lies in the pane (px). */
  const toPane = ([x, y]: Point): Point => [(x - at.x) * at.k + size.width / 2, size.height / 2 - (y - at.y) * at.k];
  const fit = useCallback(() => setFrame(null), []);
  return {
    pane,
    transform: `translate(${size.width / 2 - at.x * at.k} ${size.height / 2 + at.y * at.k}) scale(${at.k} ${-at.k})`,
    k: at.k,
    toPane,
    fit,
  };
}
