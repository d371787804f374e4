import { Popover, PopoverButton, PopoverPanel } from "@headlessui/react";
import { CircleHelp } from "lucide-react";
import type { ReactNode } from "react";

/** Help where the term stands. */
export function Help({ term, children }: { term: string; children: ReactNode }) {
  return (
    <Popover className="relative inline-block align-middle">
      <PopoverButton className="text-quiet p-0.5" aria-label={`What is “${term}”?`}>
        <CircleHelp size={15} aria-hidden />
      </PopoverButton>
      <PopoverPanel
        anchor="bottom start"
        className="border-line bg-sheet text-ink z-20 w-72 rounded-md border p-3 text-left text-sm font-normal shadow-lg"
      >
        <strong>{term}. </strong>
        {children}
      </PopoverPanel>
    </Popover>
  );
}
