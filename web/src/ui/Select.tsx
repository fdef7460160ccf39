import { Listbox, ListboxButton, ListboxOption, ListboxOptions } from "@headlessui/react";
import { ChevronDown } from "lucide-react";
import { Children, Fragment, isValidElement, type ReactNode, type SyntheticEvent } from "react";

interface Props {
  "aria-label": string;
  value: string | number | undefined;
  onChange: (value: string) => void;
  className?: string;
  /** What stands there while nothing is chosen. */
  unchosen?: string;
  /** Its choices, as `option` elements. */
  children: ReactNode;
}

interface Choice {
  value: string;
  label: string;
  disabled: boolean;
}

type OptionProps = { value?: string | number; disabled?: boolean; children?: ReactNode };

/** The choices that `option` elements stand for, in fragments and lists too. */
function choicesOf(children: ReactNode): Choice[] {
  return Children.toArray(children).flatMap((child): Choice[] => {
    if (!isValidElement<OptionProps>(child)) return [];
    if (child.type === Fragment) return choicesOf(child.props.children);
    const label = Children.toArray(child.props.children).join("");
    return [{ value: String(child.props.value ?? label), label, disabled: Boolean(child.props.disabled) }];
  });
}

const LOOK =
  "flex h-7 items-center justify-between gap-1 rounded-md border border-rule bg-field px-2 text-left text-[12px] text-ink";

const stop = (event: SyntheticEvent) => event.stopPropagation();

/** What happens in a list is none of what the bench below it hears. */
const OWN = { onKeyDown: stop, onPointerDown: stop, onPointerMove: stop, onPointerUp: stop, onClick: stop };

/** One of some values, from a list: what is chosen on its button, the rest when it opens. */
export function Select({ "aria-label": label, value, onChange, className = "", unchosen, children }: Props) {
  const choices = choicesOf(children);
  const chosen = choices.find((choice) => choice.value === String(value ?? ""));
  return (
    <Listbox value={chosen?.value ?? ""} onChange={onChange}>
      <ListboxButton aria-label={label} data-value={chosen?.value ?? ""} className={`${LOOK} ${className}`}>
        <span className="truncate">{chosen?.label ?? unchosen ?? "choose"}</span>
        <ChevronDown size={13} className="shrink-0 text-quiet" aria-hidden />
      </ListboxButton>
      <ListboxOptions
        anchor={{ to: "bottom start", gap: 2 }}
        className="z-40 max-h-72 min-w-[var(--button-width)] overflow-auto rounded-md border border-rule bg-field py-1 outline-none!"
        {...OWN}
      >
        {choices.map((choice) => (
          <ListboxOption
            key={choice.value}
            value={choice.value}
            disabled={choice.disabled}
            data-value={choice.value}
            className="cursor-pointer whitespace-nowrap px-3 py-1 text-[12px] data-disabled:text-quiet data-focus:bg-line-soft data-selected:font-semibold"
          >
            {choice.label}
          </ListboxOption>
        ))}
      </ListboxOptions>
    </Listbox>
  );
}
