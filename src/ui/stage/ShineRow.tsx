"use client";

import type { ReactNode } from "react";
import { shine, useShine } from "./shine";

/** A row whose route shines in the drawing while it is pressed in; its button says so to those who do not see it. */
export function ShineRow({ via, name, children }: { via: readonly string[]; name: string; children: ReactNode }) {
  const shown = useShine().via;
  const isShown = shown.length > 0 && shown.join(" ") === via.join(" ");
  return (
    <tr className={`border-base-300 border-t ${isShown ? "bg-base-200" : ""}`}>
      {children}
      <td className="w-11 align-top">
        <button
          type="button"
          aria-pressed={isShown}
          aria-label={`Show in the drawing: ${name}`}
          title="Show in the drawing"
          className="btn btn-ghost btn-square"
          onClick={() => shine(isShown ? null : { via, device: null })}
        >
          <svg aria-hidden viewBox="0 0 16 16" className="size-4">
            <circle
              cx="8"
              cy="8"
              r="4.5"
              style={{ fill: isShown ? "var(--glow)" : "none", stroke: "currentColor" }}
              strokeWidth="1.5"
            />
          </svg>
        </button>
      </td>
    </tr>
  );
}
