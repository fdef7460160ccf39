import { useEffect, useState } from "react";
import type { Annotation } from "../../actions/shown";
import { annotationOf, annotationWith, keyInWords } from "../../actions/shown";
import type { TextMark } from "../../api/client";
import { usePick } from "../../store";
import { Button } from "../../ui/Button";
import { useHeld } from "../../useProject";
import { useBench } from "./useBench";

/** Beside lettering that is selected: its text, and what else can be done with it. */
export function LetteringBar() {
  const {
    view,
    viewport,
    size: { width },
  } = useBench();
  const { state, viewName, commit } = useHeld();
  const { lettering: key, set } = usePick("lettering", "set");
  const text = view?.marks.find(
    (mark): mark is TextMark => mark.annotation === key && "text" in mark && "size" in mark,
  );
  const [typed, setTyped] = useState("");
  useEffect(() => setTyped(text?.text ?? ""), [text?.text]);
  if (!key || !text) return null;
  const held = annotationOf(state.project, viewName, key);
  const change = (changes: Partial<Annotation>) => commit([annotationWith(state.project, viewName, key, changes)]);
  const plain = !held.dx && !held.dy && !held.text;
  const write = () => {
    if (typed !== text.text) change({ text: typed.trim() || null });
  };
  return (
    <section
      aria-label="Selected lettering"
      className="absolute z-20 flex items-center gap-1 rounded-md border border-line bg-paper p-1 shadow-sm"
      style={{
        left: Math.max(6, Math.min(viewport.u + text.x * viewport.k - 60, width - 420)),
        top: viewport.v - text.y * viewport.k + 14,
      }}
    >
      <input
        aria-label={`Text of ${keyInWords(key)}`}
        value={typed}
        maxLength={400}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={write}
        onKeyDown={(event) => {
          if (event.key === "Enter") write();
          if (event.key === "Escape") set({ lettering: null });
        }}
        className="h-7 w-[150px] rounded border border-rule bg-field px-1.5 text-[12.5px]"
      />
      <Button
        onClick={() =>
          commit([annotationWith(state.project, viewName, key, { hidden: true })], {
            done: () => set({ lettering: null }),
          })
        }
      >
        Hide
      </Button>
      <Button disabled={plain} onClick={() => change({ dx: 0, dy: 0, text: null })}>
        As it was
      </Button>
    </section>
  );
}
