import type React from "react";
import { useEffect, useRef, useState } from "react";
import type { Angle } from "../../actions/walls";
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
  /** Whether an angle may be typed beside the length. */
  angles?: boolean;
  /** What a second length beside the first one means. */
  second?: string;
  onEnter: (text: string, mm: number, angle?: Angle, second?: number) => void;
  onClose: () => void;
  /** A length that reads well, before it is entered. */
  onTry?: (text: string) => void;
}

/** Two lengths in one text, as plans give the size of a room: 30' x 20'. */
const BOTH = /^(.+?)\s*[x×]\s*(.+)$/iu;

/** 30 and -45 count from the right of the sheet, counter-clockwise; +30 and +-45 from the last wall. */
function readAngle(text: string): Angle | null | "wrong" {
  const plain = text.trim();
  if (!plain) return null;
  const relative = plain.startsWith("+");
  const degrees = Number(plain.slice(relative ? 1 : 0).replace(/°|deg$/u, ""));
  return Number.isFinite(degrees) && Math.abs(degrees) <= 360 ? { degrees, relative } : "wrong";
}

/** The field at the pointer: takes any unit and sums, and reads them back as they are typed. */
export function LengthEntry({ x, y, label, first, units, angles, second, onEnter, onClose, onTry }: Props) {
  const [text, setText] = useState(first);
  const [read, setRead] = useState<{ text: string; wrong: boolean } | null>(null);
  const [angle, setAngle] = useState("");
  const [other, setOther] = useState("");
  const [busy, setBusy] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const latest = useRef("");
  const tried = useRef(onTry);
  tried.current = onTry;

  useEffect(() => input.current?.focus(), []);
  useEffect(() => {
    latest.current = text;
    // Two lengths at once are read one by one, when they are entered.
    if (!units || !text.trim() || (second && BOTH.test(text))) return setRead(null);
    readLength(text, units).then(
      (length) => {
        if (latest.current !== text) return;
        setRead(shown(length));
        if (!length.wrong && text !== first) tried.current?.(text);
      },
      (error: Error) => latest.current === text && setRead({ text: error.message, wrong: true }),
    );
  }, [text, units, first, second]);

  async function enter() {
    if (!text.trim()) return onClose();
    if (!units) return onEnter(text, 0);
    setBusy(true);
    try {
      const both = second ? BOTH.exec(text) : null;
      const length = await readLength(both ? both[1] : text, units);
      if (length.value == null) return setRead(shown(length));
      const beside = both ? both[2] : other;
      const deep = second && beside.trim() ? await readLength(beside, units) : null;
      if (deep && deep.value == null) return setRead(shown(deep));
      if (deep) return onEnter(text, length.value, undefined, deep.value ?? undefined);
      const turned = readAngle(angle);
      if (turned === "wrong")
        return setRead({
          text: "An angle is degrees between -360 and 360; begin with + to turn from the last wall.",
          wrong: true,
        });
      onEnter(text, length.value, turned ?? undefined);
    } catch (error) {
      setRead({ text: error instanceof Error ? error.message : "not a length", wrong: true });
    } finally {
      setBusy(false);
    }
  }

  /** Tab goes round among what is typed here: no key that is meant for the drawing lands in another field. */
  function round(event: React.KeyboardEvent<HTMLDivElement>) {
    event.preventDefault();
    const inputs = [...event.currentTarget.querySelectorAll("input")];
    const at = inputs.indexOf(document.activeElement as HTMLInputElement);
    inputs[(at + (event.shiftKey ? -1 : 1) + inputs.length) % inputs.length]?.focus();
  }

  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: Enter and Escape count in either field
    <div
      className="absolute z-20 w-[270px] rounded-md border-[1.5px] border-line bg-field px-2.5 py-1.5"
      style={{ left: x, top: y }}
      onBlur={(event) => !event.currentTarget.contains(event.relatedTarget) && onClose()}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === "Enter") void enter();
        if (event.key === "Escape") onClose();
        if (event.key === "Tab") round(event);
      }}
    >
      <label className="block text-[11px] text-quiet">
        {label}
        <span className="mt-0.5 flex items-baseline gap-2">
          <input
            ref={input}
            value={text}
            readOnly={busy}
            aria-label={label}
            aria-invalid={read?.wrong}
            onChange={(event) => setText(event.target.value)}
            className="w-full min-w-0 bg-transparent font-mono text-[14px] text-ink outline-none"
          />
          {read && !read.wrong && (
            <output className="whitespace-nowrap font-mono text-[12px] text-line">{read.text}</output>
          )}
        </span>
      </label>
      {second && (
        <label className="mt-1 block border-t border-rule pt-1 text-[11px] text-quiet">
          {second}
          <input
            value={other}
            readOnly={busy}
            aria-label={second}
            onChange={(event) => setOther(event.target.value)}
            className="mt-0.5 w-full min-w-0 bg-transparent font-mono text-[14px] text-ink outline-none"
          />
        </label>
      )}
      {angles && (
        <label className="mt-1 flex items-baseline gap-2 border-t border-rule pt-1 text-[11px] text-quiet">
          angle, degrees
          <input
            value={angle}
            aria-label="angle of this wall"
            placeholder="30, or +30 from the last wall"
            onChange={(event) => setAngle(event.target.value)}
            className="min-w-0 grow bg-transparent font-mono text-[12.5px] text-ink outline-none"
          />
        </label>
      )}
      {read?.wrong && (
        <p role="alert" className="mt-1 text-[11.5px] leading-snug text-cut">
          {read.text}
        </p>
      )}
    </div>
  );
}
