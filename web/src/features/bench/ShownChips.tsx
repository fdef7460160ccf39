import { nameOf } from "../../actions/elements";
import { keyInWords, kindInWords, type Show, showOf, showWith } from "../../actions/shown";
import { Button } from "../../ui/Button";
import { useHeld } from "../../useProject";

/** What is hidden in this view, each brought back with a click. */
export function ShownChips() {
  const { state, viewName, commit } = useHeld();
  const show = showOf(state.project, viewName);
  const back = (changes: Partial<Show>) => () => commit([showWith(state.project, viewName, changes)]);
  const chips: { key: string; label: string; run: () => void }[] = [
    ...show.hidden.map((id) => ({
      key: id,
      label: `${nameOf(state, id)} is hidden`,
      run: back({ hidden: show.hidden.filter((held) => held !== id) }),
    })),
    ...show.kinds.map((kind) => ({
      key: kind,
      label: `${kindInWords(kind)}: hidden`,
      run: back({ kinds: show.kinds.filter((held) => held !== kind) }),
    })),
    ...show.annotations
      .filter((held) => held.hidden)
      .map((held) => ({
        key: held.key,
        label: `${keyInWords(held.key)} is hidden`,
        run: back({
          annotations: show.annotations.map((other) => (other === held ? { ...other, hidden: false } : other)),
        }),
      })),
  ];
  if (show.alone.length)
    chips.push({
      key: "alone",
      label: `only ${show.alone.map((id) => nameOf(state, id)).join(", ")}`,
      run: back({ alone: [] }),
    });
  if (!chips.length) return null;
  return (
    <ul aria-label="Hidden in this view" className="pointer-events-auto flex flex-wrap gap-1">
      {chips.map((chip) => (
        <li key={chip.key}>
          <Button title="Show it again" onClick={chip.run}>
            {chip.label}
          </Button>
        </li>
      ))}
      {chips.length > 2 && (
        <li>
          <Button
            onClick={back({
              hidden: [],
              kinds: [],
              alone: [],
              annotations: show.annotations.map((held) => ({ ...held, hidden: false })),
            })}
          >
            Show everything
          </Button>
        </li>
      )}
    </ul>
  );
}
