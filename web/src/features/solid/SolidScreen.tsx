import { useEffect, useRef, useState } from "react";
import { useSolids } from "../../api/queries";
import { usePick } from "../../store";
import { Button } from "../../ui/Button";
import { Note } from "../../ui/Note";
import { useHeld } from "../../useProject";
import { Scene } from "./scene";

/** A drag that moves less than this (px) is a click. */
const CLICK = 4;

/** The house as a solid: turned with the pointer, elements selected by a click. */
export default function SolidScreen() {
  const { id, state } = useHeld();
  const { selection, also, set } = usePick("selection", "also", "set");
  const canvas = useRef<HTMLCanvasElement>(null);
  const scene = useRef<Scene | null>(null);
  const pressed = useRef({ x: 0, y: 0 });
  const [failed, setFailed] = useState(false);
  const solids = useSolids(id, state.version);

  useEffect(() => {
    const element = canvas.current;
    if (!element?.parentElement) return;
    let held: Scene;
    try {
      held = new Scene(element);
    } catch {
      setFailed(true);
      return;
    }
    scene.current = held;
    const watch = new ResizeObserver(([entry]) => held.resize(entry.contentRect.width, entry.contentRect.height));
    watch.observe(element.parentElement);
    return () => {
      watch.disconnect();
      held.dispose();
      scene.current = null;
    };
  }, []);

  useEffect(() => {
    if (solids.data) scene.current?.show(solids.data, new Set([selection, ...also].filter((one) => one !== null)));
  }, [solids.data, selection, also]);

  return (
    <main className="relative overflow-hidden bg-paper" aria-label="Solid view" aria-busy={solids.isFetching}>
      <canvas
        ref={canvas}
        className="absolute inset-0 block h-full w-full"
        data-groups={solids.data?.groups.length ?? 0}
        onPointerDown={(event) => {
          pressed.current = { x: event.clientX, y: event.clientY };
        }}
        onPointerUp={(event) => {
          const { x, y } = pressed.current;
          if (Math.hypot(event.clientX - x, event.clientY - y) > CLICK) return;
          const box = event.currentTarget.getBoundingClientRect();
          const across = ((event.clientX - box.left) / box.width) * 2 - 1;
          const up = 1 - ((event.clientY - box.top) / box.height) * 2;
          set({ selection: scene.current?.pick(across, up) ?? null });
        }}
      />
      <div className="absolute top-2 left-3 flex items-center gap-2">
        <h2 className="font-semibold text-[13px]">Solid view</h2>
        <Button onClick={() => scene.current?.look()}>See all of it</Button>
        <Button onClick={() => set({ solid: false })}>Back to the drawings</Button>
        <span className="ml-2 text-[12px] text-quiet">Drag to turn, wheel to come nearer, right button to shift.</span>
      </div>
      {(failed || solids.error) && (
        <div className="absolute top-14 left-3">
          <Note>{failed ? "This browser shows no solids: it has no WebGL." : solids.error?.message}</Note>
        </div>
      )}
    </main>
  );
}
