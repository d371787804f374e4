import { Dialog as HeadlessDialog, DialogBackdrop, DialogPanel, DialogTitle } from "@headlessui/react";
import type { ReactNode } from "react";

interface Props {
  title: string;
  open: boolean;
  wide?: boolean;
  onClose: () => void;
  children: ReactNode;
}

export function Dialog({ title, open, wide, onClose, children }: Props) {
  return (
    <HeadlessDialog open={open} onClose={onClose} className="relative z-30">
      <DialogBackdrop className="fixed inset-0 bg-black/40" />
      <div className="fixed inset-0 flex items-start justify-center overflow-y-auto p-6">
        <DialogPanel
          className={`bg-sheet mt-10 w-full rounded-lg p-5 shadow-xl ${wide ? "max-w-3xl" : "max-w-md"}`}
        >
          <DialogTitle className="text-xl">{title}</DialogTitle>
          <div className="mt-3">{children}</div>
        </DialogPanel>
      </div>
    </HeadlessDialog>
  );
}
