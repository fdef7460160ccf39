import type { ReactNode } from "react";

/** A message in the place that it is about. */
export function Note({
  tone = "wrong",
  children,
  className = "",
}: {
  tone?: "wrong" | "note";
  children: ReactNode;
  className?: string;
}) {
  const look = tone === "wrong" ? "border-cut bg-[#fbeee9] text-[#7c2d20]" : "border-rule bg-field text-quiet";
  return (
    <div
      role={tone === "wrong" ? "alert" : "status"}
      className={`rounded-md border px-2.5 py-1.5 text-[12px] leading-snug ${look} ${className}`}
    >
      {children}
    </div>
  );
}
