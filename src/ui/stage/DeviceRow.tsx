"use client";

import { useEffect, useRef, type ReactNode } from "react";
import { shine, useShine } from "./shine";

/**
 * A device of the plan: its row opens to why it is there. Opened here it stands out in the drawing; touched in the drawing
 * it opens here.
 */
export function DeviceRow({ device, head, children }: { device: string; head: ReactNode; children: ReactNode }) {
  const isChosen = useShine().device === device;
  const row = useRef<HTMLDetailsElement>(null);
  useEffect(() => {
    if (isChosen) row.current?.scrollIntoView({ block: "nearest" });
  }, [isChosen]);
  return (
    <details
      ref={row}
      open={isChosen}
      className={`border-l-4 ${isChosen ? "border-accent bg-base-200" : "border-transparent"}`}
    >
      <summary
        className="flex min-h-10 cursor-pointer list-none items-center gap-3 py-1 pr-1 pl-2"
        onClick={(event) => {
          event.preventDefault();
          shine(isChosen ? null : { via: [], device });
        }}
      >
        {head}
      </summary>
      <div className="pr-2 pb-3 pl-2">{children}</div>
    </details>
  );
}
