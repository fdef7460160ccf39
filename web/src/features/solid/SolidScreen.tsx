import { Canvas } from "@react-three/fiber";
import { Component, type ReactNode, useMemo, useState } from "react";
import { useSolids } from "../../api/queries";
import { usePick } from "../../store";
import { Button } from "../../ui/Button";
import { Note } from "../../ui/Note";
import { useHeld } from "../../useProject";
import { Eye, House } from "./House";

/** The house as a solid: turned with the pointer, elements selected by a click. */
export default function SolidScreen() {
  const { id, state } = useHeld();
  const { selection, also, set } = usePick("selection", "also", "set");
  const [round, setRound] = useState(0);
  const { data, error, isFetching } = useSolids(id, state.version);
  const chosen = useMemo(() => new Set([selection, ...also].filter((one) => one !== null)), [selection, also]);
  return (
    <main
      className="relative overflow-hidden bg-paper"
      aria-label="Solid view"
      aria-busy={isFetching}
      data-groups={data?.groups.length ?? 0}
    >
      <WithoutSolids>
        <Canvas
          className="absolute! inset-0"
          frameloop="demand"
          camera={{ fov: 35, near: 10, far: 1e6 }}
          flat
          onPointerMissed={() => set({ selection: null })}
        >
          {data && (
            <>
              <Eye solids={data} round={round} />
              <House solids={data} chosen={chosen} onPick={(element) => set({ selection: element })} />
            </>
          )}
        </Canvas>
      </WithoutSolids>
      <div className="absolute top-2 left-3 flex items-center gap-2">
        <h2 className="font-semibold text-[13px]">Solid view</h2>
        <Button onClick={() => setRound((n) => n + 1)}>See all of it</Button>
        <Button onClick={() => set({ solid: false })}>Back to the drawings</Button>
        <span className="ml-2 text-[12px] text-quiet">Drag to turn, wheel to come nearer, right button to shift.</span>
      </div>
      {error && (
        <div className="absolute top-14 left-3">
          <Note>{error.message}</Note>
        </div>
      )}
    </main>
  );
}

/** What is shown where a browser cannot draw solids. */
class WithoutSolids extends Component<{ children: ReactNode }, { failed: boolean }> {
  override state = { failed: false };

  static getDerivedStateFromError() {
    return { failed: true };
  }

  override render() {
    if (!this.state.failed) return this.props.children;
    return (
      <div className="absolute top-14 left-3">
        <Note>This browser shows no solids: it has no WebGL.</Note>
      </div>
    );
  }
}
