import { usePick } from "../../store";

export function StatusLine() {
  const { hint, snapped, position } = usePick("hint", "snapped", "position");
  return (
    <footer className="col-span-3 grid grid-cols-[1fr_auto_1fr] items-center gap-4 border-t border-rule bg-strip px-4 text-[12px]">
      <span aria-live="polite" className="truncate" data-testid="hint">
        {hint}
      </span>
      <span className="text-line" data-testid="snapped">
        {snapped}
      </span>
      <span className="text-right font-mono text-[11.5px] text-quiet">{position}</span>
    </footer>
  );
}
