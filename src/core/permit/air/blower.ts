import type { LogEntry } from "../record/permitLog";
import type { PermitFacts, PermitLife } from "../record/permitTypes";
import { keeps } from "./airRules";
import { isVentilated, purgeState } from "./airTests";

/** What the blowers that report by themselves say against the air they give; null while each says that it runs. */
export function blowerFault({ detectors }: Pick<PermitFacts, "detectors">): string | null {
  const faults = detectors
    .filter(({ kind }) => kind === "blower")
    .flatMap(({ id, against, silent }) => (silent ? [`${id} is silent`] : against.map((one) => `${id}: ${one}`)));
  return faults.length === 0 ? null : faults.join("; ");
}

/**
 * The permit with it written down that the blower stands, where one that reports by itself says so or says nothing: a purge
 * that ran is broken, what was purged and read before is worth nothing after it, and whoever turns it on again says so. Also
 * before anybody is inside.
 */
export function heardBlower(permit: PermitLife, facts: Pick<PermitFacts, "detectors">, now_ms: number): PermitLife {
  if (!keeps("blower heard") || blowerFault(facts) === null) return permit;
  const by = { at_ms: now_ms, by: null };
  const said: LogEntry[] = [
    ...(isVentilated(permit.log) ? [{ type: "ventilation ended" as const, ...by }] : []),
    ...(purgeState(permit.log).running ? [{ type: "purge broken" as const, ...by }] : []),
  ];
  return said.length === 0 ? permit : { ...permit, log: [...permit.log, ...said] };
}
