import { type Show, showOf, showWith } from "../../actions/shown";
import { Select } from "../../ui/Select";
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
    <Select
      aria-label={`Works in the ${view.startsWith("plan") ? "plan" : "view"}`}
      value={showOf(state.project, view).works}
      onChange={(value) => commit([showWith(state.project, view, { works: value as Show["works"] })])}
      className="pointer-events-auto shrink-0"
    >
      {WAYS.map(([way, words]) => (
        <option key={way} value={way}>
          {words}
        </option>
      ))}
    </Select>
  );
}
