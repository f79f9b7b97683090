"use client";

import type { PlannedStep } from "../../core/procedure/steps";
import { asksOf } from "../../core/isolation/stepAsks";
import type { UnitSystem } from "../../core/units/units";
import { ActForm } from "../act/ActForm";
import { Tick } from "../act/Field";
import { OfferedNumbers } from "../act/OfferedNumbers";
import { sendAll } from "../offline/keptActs";
import { useKeptActs, useOnline } from "../offline/useKeptActs";
import { readingUnit } from "../text/reading";
import { ScanField } from "../act/ScanField";
import { EarthFields, LeakTestFields, PairFields, ReadingFields, Small, Ticks } from "../walk/EvidenceFields";
import { readReport } from "../walk/readReport";

const BUTTONS: Readonly<Partial<Record<PlannedStep["kind"], string>>> = {
  tell: "They know",
  stop: "Stopped",
  lock: "Locked and tagged",
  verify: "I looked: it is so",
  bleed: "Open and clear",
  restrain: "Restrained",
  "bar off": "Barred off, signs up",
  position: "Positioned and held",
  "take barriers away": "Barriers away",
  "run down": "Stands still",
  release: "Harmless",
  cool: "Cooled",
  inert: "Inerted",
  purge: "Purged, blower on",
  discharge: "Discharged and shorted",
  earth: "Earthed",
  "test air": "Tested",
  "stand in": "Done and kept up",
  "end stand-in": "Put back",
  "remove earth": "Earths off",
  "take short off": "Short off",
  "take pin out": "Pin out",
  prove: "Proved dead",
  "try start": "Tried, nothing moved",
  "close box": "Box closed",
  "open box": "Box open",
  clear: "All out",
  "count people": "All counted",
  guards: "Guards on",
  cap: "All ends closed",
  "leak test": "Tight",
  "walk line": "Field-verified",
  "tell all": "They know",
  "close bleed": "Closed",
  unlock: "Lock and tag off",
  start: "Started",
  watch: "Runs well",
  "test run": "Tested and stopped",
  "hand over": "Handed over",
};

type Props = Readonly<{
  isolation: string;
  step: PlannedStep;
  label: string;
  units: UnitSystem;
  /** Kept on the device without a network; null where only the server's word counts. */
  keep: Readonly<{ personId: string; personName: string; page: string }> | null;
  walker: Readonly<{ id: string }>;
  /** Words that may be put in by a touch. */
  offered?: readonly string[];
  /** The job that may be closed with the handing over; null where this person may not. */
  closes?: string | null;
  /** A proof that stands is done again instead. */
  again?: boolean;
}>;

/** What is asked of the person depends on the step: the same list that the decision goes by. */
export function StepForm({
  isolation,
  step,
  label,
  units,
  keep,
  walker,
  offered = [],
  closes = null,
  again = false,
}: Props) {
  // What this person did before and has not signed: one PIN signs it all, in the order in which it was done.
  const before = useKeptActs().filter(
    (act) => act.personId === walker.id && act.refusal === null && act.input.isolation === isolation,
  );
  const online = useOnline();
  const signsBefore = online && before.length > 0;
  const own = again ? "Proved dead again" : (BUTTONS[step.kind] ?? "Done");
  const mayClose = closes !== null && step.kind === "hand over";
  const asks = asksOf(step);
  const unit = asks.reading === null ? null : readingUnit(asks.reading.unit, units);
  const pressure = readingUnit("bar", units);
  const reported = (fields: FormData) =>
    readReport(fields, asks, { reading: unit?.toLimit, pressure: pressure.toLimit });
  return (
    <div className="mt-3">
      <ActForm
        act={again ? "step.prove-again" : "step.do"}
        label={again ? `again: ${label}` : label}
        fixed={{ isolation, step: step.id }}
        toInput={reported}
        pin
        compact
        button={signsBefore ? `${own}; sign all ${before.length + 1}` : own}
        first={signsBefore ? (pin) => sendAll(before, pin) : undefined}
        toRound={
          mayClose
            ? (fields) => ({
                round: "handed over and closed",
                entries: [
                  { type: "step.do", input: { isolation, step: step.id, ...reported(fields) } },
                  ...(fields.get("closes") === "on" ? [{ type: "job.close", input: { job: closes } }] : []),
                ],
              })
            : undefined
        }
        tone="strong"
        keep={keep ?? undefined}
        later={again ? undefined : "Done, sign later"}
        withPhoto
      >
        {asks.plate && <ScanField name="plate" label="Plate reads" scan="Scan the code on the plate" />}
        {asks.lock && <Small label="Lock number" name="lock" className="tag w-28" />}
        {asks.pairs.length > 0 && <PairFields pairs={asks.pairs} system_V={step.system_V ?? 0} />}
        {asks.reading !== null && unit !== null && (
          <ReadingFields symbol={unit.symbol} instrument={asks.reading.instrument} />
        )}
        {asks.opening_m !== null && (
          <Small
            label="What holds the door while it is let go"
            name="words"
            className="w-72 max-w-full"
            maxLength={500}
          />
        )}
        {asks.ways.length > 0 && (
          <>
            <Ticks name="tried" legend="Tried" options={asks.ways} />
            <Ticks name="started" legend="Or" options={["It started, or moved"]} />
          </>
        )}
        {asks.earths !== null && (
          <EarthFields places={[step.subject, ...(step.entrances ?? [])]} applying={asks.earths === "apply"} />
        )}
        {asks.locksCounted && (
          <Small label="Locks on the box" name="locksCounted" inputMode="numeric" className="num w-24" />
        )}
        {asks.peopleCounted && (
          <Small label="People counted" name="peopleCounted" inputMode="numeric" className="num w-24" />
        )}
        {asks.leakTest && <LeakTestFields pressure={pressure.symbol} />}
        {asks.words !== null && <Small label={asks.words} name="words" className="w-72 max-w-full" maxLength={500} />}
        {asks.words !== null && <OfferedNumbers name="words" numbers={offered} />}
        {mayClose && (
          <Tick name="closes" label={`Every permit of ${closes} is closed and nothing is left open: close it`} />
        )}
        {(asks.lock || step.kind === "bleed" || step.kind === "earth") && (
          <label className="flex flex-col gap-1 text-sm">
            <span>Picture, if wanted</span>
            <input
              name="photo"
              type="file"
              accept="image/*"
              capture="environment"
              className="file-input w-60 max-w-full"
            />
          </label>
        )}
      </ActForm>
    </div>
  );
}
