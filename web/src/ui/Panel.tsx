import { Dialog, DialogPanel, DialogTitle } from "@headlessui/react";
import { X } from "lucide-react";
import type { ReactNode } from "react";
import { Button } from "./Button";
import { useSearchLeft } from "./useSearchLeft";

interface Props {
  title: string;
  open: boolean;
  onClose: () => void;
  children: ReactNode;
}

/** A panel over the right side of the screen; Escape or a click beside it closes it. */
export function Panel({ title, open, onClose, children }: Props) {
  useSearchLeft(open);
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
