import { useGesture } from "@use-gesture/react";
import { type RefObject, useRef } from "react";

interface Zoom<T> {
  /** What is looked through now. */
  held: T;
  /** It, brought so much nearer, with one pixel of the pane staying where it is. */
  zoomed: (from: T, by: number, x: number, y: number) => T;
  set: (next: T) => void;
  /** Two fingers have come down: what the first of them began is void. */
  pinched?: () => void;
}

/** The wheel, or two fingers, bring what a pane shows nearer; the page stays as large as it is. */
export function useZoom<T>(pane: RefObject<Element | null>, { held, zoomed, set, pinched }: Zoom<T>) {
  // Wheels may turn more than once before a picture is drawn.
  const latest = useRef(held);
  latest.current = held;
  const to = (from: T, by: number, x: number, y: number) => {
    const box = pane.current?.getBoundingClientRect();
    latest.current = zoomed(from, by, x - (box?.left ?? 0), y - (box?.top ?? 0));
    set(latest.current);
  };
  useGesture(
    {
      onWheel: ({ event, last }) => {
        // It is told once more where it ends; with two fingers on a touchpad it is a pinch.
        if (last || event.ctrlKey) return;
        event.preventDefault();
        to(latest.current, Math.exp(-event.deltaY * 0.0015), event.clientX, event.clientY);
      },
      onPinch: ({ origin, movement: [by], memo = latest.current, event }) => {
        event.preventDefault();
        pinched?.();
        to(memo, by, ...origin);
        return memo;
      },
    },
    { target: pane, eventOptions: { passive: false } },
  );
}
