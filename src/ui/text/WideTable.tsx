import type { ReactNode } from "react";

/** A table that may be wider than the screen: it scrolls in its own frame, by keyboard too. */
export function WideTable({ label, children }: { label: string; children: ReactNode }) {
  return (
    <div role="region" aria-label={label} tabIndex={0} className="overflow-x-auto">
      {children}
    </div>
  );
}
