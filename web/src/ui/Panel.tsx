import { Dialog, DialogPanel, DialogTitle } from "@headlessui/react";
import { X } from "lucide-react";
import { type ReactNode, useEffect, useRef } from "react";
import { Button } from "./Button";

interface Props {
  title: string;
  open: boolean;
  onClose: () => void;
  children: ReactNode;
}

/** By then a closed dialog has given the focus back. */
const RESTORED_MS = 60;

/** A panel over the right side of the screen; Escape or a click beside it closes it. */
export function Panel({ title, open, onClose, children }: Props) {
  const was = useRef(open);
  useEffect(() => {
    // The dialog gives the focus back to the action search, whose list would open over the drawing.
    const closed = was.current && !open;
    was.current = open;
    if (!closed) return;
    const later = window.setTimeout(() => document.getElementById("action-search")?.blur(), RESTORED_MS);
    return () => window.clearTimeout(later);
  }, [open]);
  return (
    <Dialog open={open} onClose={onClose} className="relative z-40">
      <div className="fixed inset-0 bg-ink/15" aria-hidden />
      <div className="fixed inset-y-0 right-0 flex">
        <DialogPanel className="flex w-[380px] flex-col border-l border-rule bg-ground">
          <div className="flex items-center justify-between border-b border-rule px-4 py-3">
            <DialogTitle className="text-[15px] font-semibold">{title}</DialogTitle>
            <Button aria-label="Close" onClick={onClose}>
              <X size={14} aria-hidden />
            </Button>
          </div>
          <div className="min-h-0 grow overflow-y-auto px-4 py-3">{children}</div>
        </DialogPanel>
      </div>
    </Dialog>
  );
}
