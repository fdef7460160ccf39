import { type PointerEvent, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { around, type Frame, placeOf, type Size, zoomed } from "./frame";

type Point = readonly [number, number];

/** A pane that shows a drawing: the wheel brings it nearer, a drag moves it, a click means a place of it. */
export function usePane(points: readonly Point[], onClick: (place: Point, reach: number, target: Element) => void) {
  const pane = useRef<SVGSVGElement>(null);
  const [size, setSize] = useState<Size>({ width: 800, height: 600 });
  const [frame, setFrame] = useState<Frame | null>(null);
  const drag = useRef<{ x: number; y: number; frame: Frame; moved: boolean } | null>(null);

  useEffect(() => {
    const held = pane.current;
    if (!held) return;
    const watch = new ResizeObserver(() => setSize({ width: held.clientWidth, height: held.clientHeight }));
    watch.observe(held);
    return () => watch.disconnect();
  }, []);

  const fitted = useMemo(() => around(points, size), [points, size]);
  const at = frame ?? fitted;

  // React listens to wheels passively; the page must not scroll with the drawing.
  useEffect(() => {
    const held = pane.current;
    if (!held) return;
    const turn = (event: WheelEvent) => {
      event.preventDefault();
      const box = held.getBoundingClientRect();
      const by = Math.exp(-event.deltaY * 0.0015);
      setFrame((now) => zoomed(now ?? fitted, size, event.clientX - box.left, event.clientY - box.top, by));
    };
    held.addEventListener("wheel", turn, { passive: false });
    return () => held.removeEventListener("wheel", turn);
  }, [fitted, size]);

  function onPointerDown(event: PointerEvent<SVGSVGElement>) {
    drag.current = { x: event.clientX, y: event.clientY, frame: at, moved: false };
  }
  function onPointerMove(event: PointerEvent<SVGSVGElement>) {
    const from = drag.current;
    if (!from) return;
    const [dx, dy] = [event.clientX - from.x, event.clientY - from.y];
    if (!from.moved && Math.hypot(dx, dy) < 4) return;
    from.moved = true;
    setFrame({ ...from.frame, x: from.frame.x - dx / from.frame.k, y: from.frame.y + dy / from.frame.k });
  }
  function onPointerUp(event: PointerEvent<SVGSVGElement>) {
    const from = drag.current;
    drag.current = null;
    if (!from || from.moved) return;
    const box = event.currentTarget.getBoundingClientRect();
    onClick(placeOf(at, size, event.clientX - box.left, event.clientY - box.top), 12 / at.k, event.target as Element);
  }

  /** Where a place of the drawing lies in the pane (px). */
  const toPane = ([x, y]: Point): Point => [(x - at.x) * at.k + size.width / 2, size.height / 2 - (y - at.y) * at.k];
  const fit = useCallback(() => setFrame(null), []);
  return {
    pane,
    events: { onPointerDown, onPointerMove, onPointerUp },
    transform: `translate(${size.width / 2 - at.x * at.k} ${size.height / 2 + at.y * at.k}) scale(${at.k} ${-at.k})`,
    k: at.k,
    toPane,
    fit,
  };
}
