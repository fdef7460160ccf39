import type { ButtonHTMLAttributes, ReactNode } from "react";

interface Props extends ButtonHTMLAttributes<HTMLButtonElement> {
  tone?: "plain" | "strong" | "chosen";
  children: ReactNode;
}

const TONES = {
  plain: "border-rule bg-paper text-ink hover:border-quiet",
  strong: "border-ink bg-ink text-paper hover:bg-[#3a4046]",
  chosen: "border-line bg-line text-paper",
};

export function Button({ tone = "plain", className = "", children, ...rest }: Props) {
  return (
    <button
      type="button"
      className={`inline-flex h-7 items-center gap-1.5 whitespace-nowrap rounded-md border px-2.5 text-[12.5px] disabled:opacity-45 ${TONES[tone]} ${className}`}
      {...rest}
    >
      {children}
    </button>
  );
}
