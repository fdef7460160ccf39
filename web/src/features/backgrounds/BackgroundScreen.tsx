import { Dialog, DialogPanel, DialogTitle } from "@headlessui/react";
import { X } from "lucide-react";
import { type DragEvent, useEffect, useRef, useState } from "react";
import { useLayBackground } from "../../api/queries";
import { usePick } from "../../store";
import { Button } from "../../ui/Button";
import { FileButton } from "../../ui/FileButton";
import { Note } from "../../ui/Note";
import { useSearchLeft } from "../../ui/useSearchLeft";
import { useHeld } from "../../useProject";
import { BackgroundPane } from "./BackgroundPane";
import { BackgroundSide } from "./BackgroundSide";
import { ASKS, lyingEdit, ofBackground, type Point, type Way } from "./lying";

const TAKEN = ".dxf,.pdf,.svg,.png,.jpg,.jpeg";

/** Files under a view: laid there, scaled, turned and cropped by points that are pointed at. */
export function BackgroundScreen() {
  const { panel, under, set } = usePick("panel", "under", "set");
  const close = () => set({ panel: null, under: null, underFile: null });
  const open = panel === "backgrounds" && under !== null;
  useSearchLeft(open);
  return (
    <Dialog open={open} onClose={close} className="relative z-40">
      <div className="fixed inset-0 bg-ink/15" aria-hidden />
      <div className="fixed inset-0 p-5">
        <DialogPanel className="flex h-full flex-col overflow-hidden rounded-lg border border-rule bg-ground">
          {under && <Under key={under} view={under} onClose={close} />}
        </DialogPanel>
      </div>
    </Dialog>
  );
}

function Under({ view, onClose }: { view: string; onClose: () => void }) {
  const { id, state, bench, commit } = useHeld();
  const { underFile, set } = usePick("underFile", "set");
  const lay = useLayBackground(id, state.version);
  const [chosen, setChosen] = useState<string | null>(null);
  const [way, setWay] = useState<Way | null>(null);
  const [picked, setPicked] = useState<Point[]>([]);
  const [wrong, setWrong] = useState<string | null>(null);
  const [reason, setReason] = useState("");
  const drawing = bench.drawings.find((held) => held.name === view);
  const here = (state.project.backgrounds ?? []).filter((held) => held.view === view);
  const held = here.find((one) => one.id === chosen) ?? here.at(-1);
  const title = state.views.find(({ name }) => name === view)?.title ?? view;
  const turn = drawing?.kind === "plan" && drawing.look ? { dx: drawing.look[0], dy: drawing.look[1] } : null;

  const bring = (file: File) => {
    setWay(null);
    setWrong(null);
    lay.mutate(
      { file, view },
      {
        onSuccess: (answer) => {
          setChosen(answer.background);
          setReason(answer.reason);
        },
      },
    );
  };
  // A file that was dropped on the bench is laid as soon as the screen is open.
  const brought = useRef(false);
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, for the file that came
  useEffect(() => {
    if (!underFile || brought.current) return;
    brought.current = true;
    bring(underFile);
    set({ underFile: null });
  }, [underFile]);

  function begin(next: Way | null) {
    setWay(next === way ? null : next);
    setPicked([]);
    setWrong(null);
  }
  function done(points: Point[], also: Parameters<typeof lyingEdit>[4] = {}) {
    const edit = way && held && lyingEdit(way, held.id, points, turn, also);
    if (!edit) return;
    commit([edit], { done: () => begin(null), failed: (error) => setWrong(error.message) });
  }
  function pick(point: Point) {
    if (!way || picked.length >= ASKS[way].length) return;
    const points = [...picked, point];
    setPicked(points);
    done(points);
  }
  const drop = (event: DragEvent) => {
    event.preventDefault();
    event.stopPropagation();
    const file = event.dataTransfer.files[0];
    if (file) bring(file);
  };
  const asks = way && picked.length < ASKS[way].length ? ASKS[way][picked.length] : null;
  return (
    <>
      <header className="flex items-center justify-between border-b border-rule px-4 py-2.5">
        <DialogTitle className="text-[15px] font-semibold">Backgrounds of {title}</DialogTitle>
        <div className="flex gap-2">
          <FileButton
            label={here.length > 0 ? "One more file" : "Choose a file"}
            name="Background file"
            accept={TAKEN}
            tone={here.length > 0 ? "plain" : "strong"}
            onFile={bring}
          />
          <Button aria-label="Close" onClick={onClose}>
            <X size={14} aria-hidden />
          </Button>
        </div>
      </header>
      {/* biome-ignore lint/a11y/noStaticElementInteractions: files are dropped here; the button does the same by keyboard */}
      <div
        className="grid min-h-0 grow grid-cols-[minmax(0,1fr)_320px]"
        onDragOver={(event) => event.preventDefault()}
        onDrop={drop}
      >
        <div className="flex min-h-0 flex-col">
          <div className="relative min-h-0 grow">
            {drawing && (
              <BackgroundPane
                drawing={drawing}
                picked={way ? picked : null}
                onBackground={way !== null && ofBackground(way, picked.length)}
                onPick={pick}
              />
            )}
          </div>
          <p className="h-7 truncate border-t border-rule px-3 py-1.5 text-[12px] text-quiet" data-testid="asks">
            {asks ? `Click ${asks}.` : "The wheel brings the drawing nearer, a drag moves it."}
          </p>
        </div>
        <BackgroundSide
          here={here}
          held={held}
          way={way}
          picked={picked}
          reason={held?.id === chosen ? reason : ""}
          onChoose={(next) => {
            setChosen(next);
            begin(null);
          }}
          onWay={begin}
          onDone={(also) => done(picked, also)}
        >
          {lay.isPending && <Note tone="note">Reading the file…</Note>}
          {lay.error && <Note>{lay.error.message}</Note>}
          {wrong && <Note>{wrong}</Note>}
        </BackgroundSide>
      </div>
    </>
  );
}
