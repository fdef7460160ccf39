import { useEffect, useState } from "react";
import type { Annotation } from "../../actions/shown";
import { annotationOf, annotationWith, keyInWords, stringNamed } from "../../actions/shown";
import type { TextMark } from "../../api/client";
import { usePick } from "../../store";
import { Button } from "../../ui/Button";
import { Select } from "../../ui/Select";
import { useHeld } from "../../useProject";
import { useBench } from "./useBench";

/** Beside lettering that is selected: its text, and what else can be done with it. */
export function LetteringBar() {
  const {
    plan,
    view,
    viewport,
    panes,
    size: { width },
  } = useBench();
  const { state, views, commit, change: send } = useHeld();
  const { lettering, set } = usePick("lettering", "set");
  const { key, view: viewName } = lettering ?? { key: "", view: "" };
  const onPlan = plan?.name === viewName;
  const text = (onPlan ? plan : view?.name === viewName ? view : undefined)?.marks.find(
    (mark): mark is TextMark => mark.annotation === key && "text" in mark && "size" in mark,
  );
  const [typed, setTyped] = useState("");
  const [wanted, setWanted] = useState("");
  // biome-ignore lint/correctness/useExhaustiveDependencies: another figure, another length
  useEffect(() => setWanted(""), [key]);
  const held = annotationOf(state.project, viewName, key);
  // What a figure is besides is written after it.
  const own = held.mark && text ? text.text.slice(0, text.text.lastIndexOf(" ")) : text?.text;
  useEffect(() => setTyped(own ?? ""), [own]);
  if (!key || !text) return null;
  const top = (onPlan ? viewport.w : viewport.v) - text.y * viewport.k + 14;
  const change = (changes: Partial<Annotation>) => commit([annotationWith(state.project, viewName, key, changes)]);
  const plain = !held.dx && !held.dy && !held.text && held.rank === "usual" && !held.mark;
  const drawing = onPlan ? plan : view;
  const measure = () =>
    drawing &&
    send(
      {
        kind: "figure",
        view: viewName,
        key,
        text: wanted,
        scale: drawing.scale,
        look_deg: views.find((held) => held.name === viewName)?.look_deg,
      },
      {
        done: () => {
          setWanted("");
          set({ lettering: null });
        },
        failed: (error) => set({ message: { text: error.message, tone: "wrong" } }),
      },
    );
  const write = () => {
    if (typed !== own) change({ text: typed.trim() || null });
  };
  return (
    <section
      aria-label="Selected lettering"
      className="absolute z-20 flex items-center gap-1 rounded-md border border-line bg-paper p-1 shadow-sm"
      style={{
        left: Math.max(6, Math.min(viewport.u + text.x * viewport.k - 60, width - (stringNamed(key) ? 730 : 520))),
        top: onPlan ? Math.min(top, panes.planBottom - 44) : top,
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
      <Select
        aria-label="Where there is no room for all"
        value={held.rank}
        onChange={(rank) => change({ rank: rank as Annotation["rank"] })}
      >
        <option value="first">stays first</option>
        <option value="usual">ranks as usual</option>
        <option value="last">goes first</option>
      </Select>
      {stringNamed(key) && (
        <input
          aria-label="Make it this length"
          placeholder="make it…"
          title="What the figure runs to moves, so that it measures what you type"
          value={wanted}
          maxLength={60}
          onChange={(event) => setWanted(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === "Enter" && wanted.trim()) measure();
            if (event.key === "Escape") set({ lettering: null });
          }}
          className="h-7 w-[84px] rounded border border-rule bg-field px-1.5 font-mono text-[12.5px]"
        />
      )}
      {stringNamed(key) && (
        <Select
          aria-label="What the figure is besides"
          value={held.mark ?? ""}
          onChange={(mark) => change({ mark: (mark || null) as Annotation["mark"] })}
        >
          <option value="">as it is</option>
          <option value="minimum">at the least</option>
          <option value="maximum">at the most</option>
          <option value="hold">to be held</option>
          <option value="typical">typical</option>
          <option value="similar">similar</option>
        </Select>
      )}
      <Button disabled={plain} onClick={() => change({ dx: 0, dy: 0, text: null, rank: "usual", mark: null })}>
        As it was
      </Button>
    </section>
  );
}
