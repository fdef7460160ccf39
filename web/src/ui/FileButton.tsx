import { useRef } from "react";
import { Button } from "./Button";

interface Props {
  /** What is on the button, and what the field is called. */
  label: string;
  name: string;
  /** The endings of files that are taken. */
  accept: string;
  tone?: "plain" | "strong";
  disabled?: boolean;
  onFile: (file: File) => void;
}

/** A button that asks for a file. */
export function FileButton({ label, name, accept, tone = "plain", disabled = false, onFile }: Props) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button tone={tone} disabled={disabled} onClick={() => input.current?.click()}>
        {label}
      </Button>
      <input
        ref={input}
        type="file"
        accept={accept}
        aria-label={name}
        className="hidden"
        onChange={(event) => {
          const next = event.target.files?.[0];
          if (next) onFile(next);
          event.target.value = "";
        }}
      />
    </>
  );
}
