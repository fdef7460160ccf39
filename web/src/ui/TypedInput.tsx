import { type InputHTMLAttributes, useEffect, useLayoutEffect, useRef, useState } from "react";

type Rest = Omit<InputHTMLAttributes<HTMLInputElement>, "value" | "onChange" | "onBlur" | "onFocus" | "onKeyDown">;

interface Props extends Rest {
  /** What the service holds: it stands in the field while nothing is typed. */
  fact: string;
  /** When the fact came from the service; 0 while one of before stands in for it. */
  came: number;
  /** Enter was pressed, or the field was left with other text in it. */
  onEnter: (text: string) => void;
  /** Nothing that was typed counts: Escape, or a fact that has come. */
  onRestored: () => void;
  onTyped?: (text: string) => void;
}

/** A field whose text is sent as it is typed, and shows how it was read when the answer comes. */
export function TypedInput({ fact, came, onEnter, onRestored, onTyped, ...rest }: Props) {
  const [text, setText] = useState(fact);
  const typing = useRef(false);
  const input = useRef<HTMLInputElement>(null);
  const restored = useRef(onRestored);
  restored.current = onRestored;

  // Facts that arrive while one types in this field, of a change made before, must not take away what is typed.
  useEffect(() => {
    if (typing.current) return;
    setText(fact);
    restored.current();
  }, [fact]);
  // How a text was read is shown even where it changed nothing; one that was refused stays to be mended.
  const refused = rest["aria-invalid"];
  // biome-ignore lint/correctness/useExhaustiveDependencies: when facts come
  useEffect(() => {
    if (came && !typing.current && !refused) setText(fact);
  }, [came]);
  // What is put into the field that has the focus is selected as on coming to it: what is typed next takes its place.
  // biome-ignore lint/correctness/useExhaustiveDependencies: with every other text
  useLayoutEffect(() => {
    if (!typing.current && document.activeElement === input.current) input.current?.select();
  }, [text]);

  function enter(value: string) {
    typing.current = false;
    onEnter(value);
  }

  return (
    <input
      {...rest}
      ref={input}
      value={text}
      onChange={(event) => {
        typing.current = true;
        setText(event.target.value);
        onTyped?.(event.target.value);
      }}
      onFocus={(event) => event.target.select()}
      // What stands in the field is sent, not what was last drawn there.
      onBlur={({ currentTarget: { value } }) => {
        if (typing.current && value !== fact) enter(value);
      }}
      onKeyDown={(event) => {
        if (event.key === "Enter") enter(event.currentTarget.value);
        if (event.key !== "Escape") return;
        typing.current = false;
        setText(fact);
        onRestored();
      }}
    />
  );
}
