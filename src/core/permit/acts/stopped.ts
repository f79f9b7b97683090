import { inside } from "../people/entries";
import { kindRule } from "../kinds/kinds";
import type { LogEntry, StopCause } from "../record/permitLog";
import type { PermitCommand, PermitLife } from "../record/permitTypes";

/**
 * Acts after which work that went on stands, for what they say: every one of them is told of like a stop. Any other that is done
 * under live work leaves it live.
 */
export const MAY_STOP: ReadonlySet<PermitCommand["type"]> = new Set<PermitCommand["type"]>([
  "stop",
  "read",
  "enter paper reading",
  "end ventilation",
  "report fire",
  "audit",
  "decide clash",
]);

/** Work stops, and whoever is inside a space comes out. */
export function stopped(
  permit: PermitLife,
  at_ms: number,
  by: PermitCommand["by"],
  cause: StopCause,
  reason: string,
): PermitLife {
  const entry: LogEntry = {
    type: "stopped",
    at_ms,
    by,
    cause,
    reason,
    evacuate: kindRule(permit.details.kind).entryLog && (cause !== "clash" || inside(permit.log).length > 0),
  };
  return { ...permit, state: "suspended", log: [...permit.log, entry] };
}
