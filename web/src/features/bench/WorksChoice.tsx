import { type Show, showOf, showWith } from "../../actions/shown";
import { useHeld } from "../../useProject";

const WAYS: [Show["works"], string][] = [
  ["shown", "works told apart"],
  ["before", "before the works"],
  ["after", "after the works"],
];

/** Whether a view tells existing, new and removed apart, once something is not new. */
export function WorksChoice({ view }: { view: string }) {
  const { state, commit } = useHeld();
  if (!state.elements.some((element) => (element.state ?? "new") !== "new")) return null;
  return (
    <select
      aria-label={`Works in the ${view.startsWith("plan") ? "plan" : "view"}`}
      value={showOf(state.project, view).works}
      onChange={(event) => commit([showWith(state.project, view, { works: event.target.value as Show["works"] })])}
      className="pointer-events-auto h-7 shrink-0 rounded-md border border-rule bg-field px-1.5 text-[12px]"
    >
      {WAYS.map(([way, words]) => (
        <option key={way} value={way}>
          {words}
        </option>
      ))}
    </select>
  );
}
