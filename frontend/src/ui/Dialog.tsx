import { Dialog as HeadlessDialog, DialogBackdrop, DialogPanel, DialogTitle } from "@headlessui/react";
import type { ReactNode } from "react";

interface Props {
  title: string;
  open: boolean;
  wide?: boolean;
  onClose: () => void;
  /** What is pressed at the end; it stays in view, however long the rest is. */
  footer?: ReactNode;
  children: ReactNode;
}

export function Dialog({ title, open, wide, onClose, footer, children }: Props) {
  return (
    <HeadlessDialog open={open} onClose={onClose} className="relative z-30">
      <DialogBackdrop className="fixed inset-0 bg-black/40" />
      <div className="fixed inset-0 flex items-start justify-center overflow-y-auto px-3 py-6 sm:px-6">
        <DialogPanel
          className={`bg-sheet mt-4 flex max-h-[calc(100dvh-4rem)] w-full flex-col rounded-lg shadow-xl ${wide ? "max-w-3xl" : "max-w-md"}`}
        >
          <DialogTitle className="px-5 pt-5 text-xl">{title}</DialogTitle>
          {/* It scrolls by itself, so it can be reached by keyboard. */}
          {/* eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex */}
          <div className="overflow-auto px-5 pt-3 pb-5" tabIndex={footer ? 0 : undefined}>
            {children}
          </div>
          {footer && <div className="border-line border-t px-5 py-3">{footer}</div>}
        </DialogPanel>
      </div>
    </HeadlessDialog>
  );
}
