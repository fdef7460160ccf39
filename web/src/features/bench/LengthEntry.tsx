import { useEffect, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { readLength } from "../../api/queries";

function shown(length: Schemas["Length"]) {
  return length.wrong ? { text: length.wrong, wrong: true } : { text: `= ${length.text}`, wrong: false };
}

interface Props {
  x: number;
  y: number;
  label: string;
  first: string;
  /** null for plain text. */
  units: "ft-in" | "mm" | null;
  onEnter: (text: string, mm: number) => void;
  onClose: () => void;
}

/** The field at the pointer: takes any unit and sums, and reads them back as they are typed. */
export function LengthEntry({ x, y, label, first, units, onEnter, onClose }: Props) {
  const [text, setText] = useState(first);
  const [read, setRead] = useState<{ text: string; wrong: boolean } | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const latest = useRef("");

  useEffect(() => input.current?.focus(), []);
  useEffect(() => {
    latest.current = text;
    if (!units || !text.trim()) return setRead(null);
    readLength(text, units).then(
      (length) => latest.current === text && setRead(shown(length)),
      (error: Error) => latest.current === text && setRead({ text: error.message, wrong: true }),
    );
  }, [text, units]);

  async function enter() {
    if (!text.trim()) return onClose();
    if (!units) return onEnter(text, 0);
    try {
      const length = await readLength(text, units);
      if (length.value == null) return setRead(shown(length));
      onEnter(text, length.value);
    } catch (error) {
      setRead({ text: error instanceof Error ? error.message : "not a length", wrong: true });
    }
  }

  return (
    <div
      className="absolute z-20 w-[270px] rounded-md border-[1.5px] border-line bg-field px-2.5 py-1.5"
      style={{ left: x, top: y }}
    >
      <label className="block text-[11px] text-quiet">
        {label}
        <span className="mt-0.5 flex items-baseline gap-2">
          <input
            ref={input}
            value={text}
            aria-label={label}
            aria-invalid={read?.wrong}
            onChange={(event) => setText(event.target.value)}
            onKeyDown={(event) => {
              event.stopPropagation();
              if (event.key === "Enter") void enter();
              if (event.key === "Escape") onClose();
            }}
            onBlur={onClose}
            className="w-full min-w-0 bg-transparent font-mono text-[14px] text-ink outline-none"
          />
          {read && !read.wrong && (
            <output className="whitespace-nowrap font-mono text-[12px] text-line">{read.text}</output>
          )}
        </span>
      </label>
      {read?.wrong && (
        <p role="alert" className="mt-1 text-[11.5px] leading-snug text-cut">
          {read.text}
        </p>
      )}
    </div>
  );
}
