import type { ReactNode } from "react";

/** A box that scrolls sideways by itself, also by keyboard, so that the page does not. */
export function Sideways({ label, children }: { label: string; children: ReactNode }) {
  return (
    // It scrolls by itself, so it can be reached by keyboard.
    // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex
    <div className="overflow-x-auto" role="region" aria-label={label} tabIndex={0}>
      {children}
    </div>
  );
}
