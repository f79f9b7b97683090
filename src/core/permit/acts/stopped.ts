import { inside } from "../people/entries";
import { kindRule } from "../kinds/kinds";
import type { LogEntry, StopCause } from "../record/permitLog";
import type { PermitCommand, PermitLife } from "../record/permitTypes";

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
