import { useEffect, useRef } from "react";

/** By then a closed dialog has given the focus back. */
const RESTORED_MS = 60;

/** A dialog that closes gives the focus back to the action search, whose list would open over the drawing: it is left. */
export function useSearchLeft(open: boolean) {
  const was = useRef(open);
  useEffect(() => {
    const closed = was.current && !open;
    was.current = open;
    if (!closed) return;
    const later = window.setTimeout(() => document.getElementById("action-search")?.blur(), RESTORED_MS);
    return () => window.clearTimeout(later);
  }, [open]);
}
