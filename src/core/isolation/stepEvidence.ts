import type { PersonId } from "../people/roles";
import { stepLabel, type PlannedStep } from "../procedure/steps";
import { readsAs } from "../requirement/proofRules";
import type { Refusal } from "../refusal/refusal";
import { accept, refuse, type Result } from "../refusal/result";
import { gearFault, type Gear, type GearKind } from "../gear/gear";
import { asksOf, GLOVES_ABOVE_V } from "./stepAsks";

/** What a person reports of a step: only what the step asks is looked at. */
export type StepReport = Readonly<
  Partial<{
    plate: string | null;
    lock: string | null;
    /** Volts, by pair of conductors. */
    readings: Readonly<Record<string, number>>;
    tester: string | null;
    /** The tester was proved on this unit, or on a known live source of this voltage. */
    provingUnit: string | null;
    knownSource: string | null;
    knownSource_V: number | null;
    provedBefore: boolean;
    provedAfter: boolean;
    gloves: string | null;
    /** In the unit of the step's limit, and the number of the instrument; how far it may be off the register says. */
    reading: number | null;
    instrument: string | null;
    tried: readonly string[];
    /** It started, or moved, when it was tried. */
    started: boolean;
    /** Earths by number: where each stands. */
    earths: Readonly<Record<string, string>>;
    locksCounted: number | null;
    peopleCounted: number | null;
    pressure_bar: number | null;
    held_min: number | null;
    lost_bar: number | null;
    words: string | null;
    photo: string | null;
  }>
>;

/** What is kept of it, beside the lock and the one reading. */
export type Evidence = Omit<StepReport, "plate" | "lock" | "reading" | "locksCounted" | "started"> &
  /** How far the instrument may be off, by the register at that moment. */
  Readonly<{
    error?: number | null;
    /** Only this isolation's lock came off: the point stays as it is for these. */
    stays?: readonly string[];
    /** Timed by a clock that was ahead: it is done again. */
    wrongClock?: boolean;
    /** The clock jumped ahead after it: a wait that runs from it is counted anew from then. */
    countedFrom_ms?: number;
  }>;

export type EvidenceFacts = Readonly<{
  gear: (kind: GearKind, number: string) => Gear | undefined;
  /** Where an earth stands now, in words; undefined when it is free. */
  earthStands: (number: string) => string | undefined;
  /** The job the isolation serves. */
  job: string | null;
  /** Earths that were applied at this face and are still there. */
  earthsAt: (face: string) => readonly string[];
  /** People who worked on the job and have to be counted. */
  crewSize: number;
  leakTest_min: number;
}>;

export type Judged = Readonly<{ reading: number | null; evidence: Evidence | null }>;

/**
 * Is what was reported good enough for this step? Answers what is kept. A missing, failing or doubtful reading refuses:
 * the tester must be proved before and after, every pair read, the instrument in date, and the reading with the
 * instrument's error on top still below the limit. Common practice, no source.
 */
export function judgeReport(
  step: PlannedStep,
  report: StepReport,
  by: Readonly<{ person: PersonId; at_ms: number }>,
  facts: EvidenceFacts,
): Result<Judged> {
  const asks = asksOf(step);
  const label = stepLabel(step);
  const faultOf = (kind: GearKind, number: string, needs_V?: number) =>
    gearFault(facts.gear(kind, number), { kind, number, at_ms: by.at_ms, job: facts.job, needs_V });
  const missing = (what: string) => refuse({ code: "reading missing", step: label, what });
  const photo = report.photo ? { photo: report.photo } : {};
  const keep = (evidence: Evidence, reading: number | null = null): Result<Judged> =>
    accept({ reading, evidence: { ...evidence, ...photo } });

  if (asks.pairs.length > 0) return voltages(step, report, faultOf, missing, keep);
  if (asks.reading !== null) {
    const { most, unit, instrument: kind } = asks.reading;
    const reading = report.reading ?? null;
    if (reading === null || !Number.isFinite(reading)) return missing(`the reading in ${unit}`);
    const words = given(report.words);
    if (asks.words !== null && words === null) return missing(asks.words.toLowerCase());
    if (kind === null) {
      return tooHigh(label, reading, 0, most, unit) ?? keep(asks.words === null ? {} : { words }, reading);
    }
    const read = instrumentOf(kind, report, faultOf, missing, facts);
    if (!read.ok) return read;
    const { instrument, error } = read.value;
    return (
      tooHigh(label, reading, error, most, unit) ??
      notZero(label, reading, error, unit) ??
      doorMayFly(label, reading, error, asks.opening_m, words) ??
      keep({ instrument, error, ...(asks.opening_m === null || words === null ? {} : { words }) }, reading)
    );
  }
  if (asks.ways.length > 0) {
    if (report.started) return refuse({ code: "it started", step: label });
    const left = asks.ways.filter((way) => !report.tried?.includes(way));
    return left.length > 0 ? refuse({ code: "ways not tried", step: label, left }) : keep({ tried: asks.ways });
  }
  if (asks.earths === "apply") return earthsOn(step, report, faultOf, missing, facts, keep);
  if (asks.earths === "remove") {
    const on = facts.earthsAt(step.subject);
    const off = Object.keys(report.earths ?? {});
    const left = on.filter((number) => !off.includes(number));
    const strange = off.filter((number) => !on.includes(number));
    return left.length + strange.length > 0
      ? refuse({ code: "earths differ", step: label, left, strange })
      : keep({ earths: report.earths });
  }
  if (asks.peopleCounted) {
    const counted = report.peopleCounted ?? null;
    if (counted === null) return missing("how many people you counted");
    return counted === facts.crewSize ? keep({ peopleCounted: counted }) : refuse({ code: "people differ", counted });
  }
  if (asks.leakTest) return leakTest(label, report, faultOf, missing, facts, keep);
  if (asks.words !== null) {
    const words = given(report.words);
    return words === null ? missing(asks.words.toLowerCase()) : keep({ words });
  }
  return accept({ reading: null, evidence: report.photo ? photo : null });
}

type FaultOf = (kind: GearKind, number: string, needs_V?: number) => Refusal | null;
type Missing = (what: string) => Result<Judged>;
type Keep = (evidence: Evidence, reading?: number | null) => Result<Judged>;

/** Tester proved, every pair, tester proved again. */
function voltages(
  step: PlannedStep,
  report: StepReport,
  faultOf: FaultOf,
  missing: Missing,
  keep: Keep,
): Result<Judged> {
  const label = stepLabel(step);
  const { most, unit } = step.limit!;
  const tester = given(report.tester);
  if (tester === null) return missing("the number of the tester");
  const unitNumber = given(report.provingUnit);
  const source = given(report.knownSource);
  const fault =
    faultOf("voltage tester", tester, step.system_V) ??
    (unitNumber === null ? null : faultOf("proving unit", unitNumber)) ??
    glovesFault(step, report, faultOf);
  if (fault) return refuse(fault);
  if (unitNumber === null && source === null) return missing("what the tester was proved on");
  if (unitNumber === null && !((report.knownSource_V ?? 0) > most)) {
    return missing("the voltage of the known live source");
  }
  if (!report.provedBefore || !report.provedAfter) return refuse({ code: "tester not proved", step: label });
  const readings: Record<string, number> = {};
  for (const pair of asksOf(step).pairs) {
    const value = report.readings?.[pair];
    if (value === undefined || !Number.isFinite(value)) return missing(`the reading ${pair} in ${unit}`);
    readings[pair] = value;
  }
  const worst = Math.max(...Object.values(readings).map(Math.abs));
  const fail = tooHigh(label, worst, 0, most, unit);
  if (fail) return fail;
  return keep(
    {
      readings,
      tester,
      provedBefore: true,
      provedAfter: true,
      ...(unitNumber === null
        ? { knownSource: source, knownSource_V: report.knownSource_V }
        : { provingUnit: unitNumber }),
      ...(given(report.gloves) === null ? {} : { gloves: given(report.gloves) }),
    },
    worst,
  );
}

function glovesFault(step: PlannedStep, report: StepReport, faultOf: FaultOf): Refusal | null {
  const gloves = given(report.gloves);
  if (gloves !== null) return faultOf("insulating gloves", gloves, step.system_V);
  return (step.system_V ?? 0) > GLOVES_ABOVE_V
    ? { code: "reading missing", step: stepLabel(step), what: "the number of the insulating gloves" }
    : null;
}

/** Earths by number, each in date and free, one at every way in or at the face itself. */
function earthsOn(
  step: PlannedStep,
  report: StepReport,
  faultOf: FaultOf,
  missing: Missing,
  facts: EvidenceFacts,
  keep: Keep,
): Result<Judged> {
  const label = stepLabel(step);
  const earths = Object.entries(report.earths ?? {});
  if (earths.length === 0) return missing("the numbers of the earths and where each stands");
  for (const [number, place] of earths) {
    if (place.trim() === "") return missing(`where earth ${number} stands`);
    const fault = faultOf("portable earth", number);
    if (fault) return refuse(fault);
    const where = facts.earthStands(number);
    if (where !== undefined) return refuse({ code: "earth in use", number, where });
  }
  const places = earths.map(([, place]) => place.trim());
  const bare = places.includes(step.subject)
    ? []
    : (step.entrances ?? []).filter((entrance) => !places.includes(entrance));
  return bare.length > 0 ? refuse({ code: "not between earths", step: label, bare }) : keep({ earths: report.earths });
}

/**
 * The numbered instrument that was read, in date, and how far it may be off by the register. Zero without one is no proof:
 * a needle that looks like nothing hides what it cannot show.
 */
function instrumentOf(
  kind: GearKind,
  report: StepReport,
  faultOf: FaultOf,
  missing: Missing,
  facts: EvidenceFacts,
): Result<{ instrument: string; error: number }> {
  const instrument = given(report.instrument);
  if (instrument === null) {
    const asked = missing(`the number of the ${kind}`);
    if (asked.ok) throw new Error("what is missing is refused");
    return asked;
  }
  const fault = faultOf(kind, instrument);
  if (fault) return refuse(fault);
  const error = facts.gear(kind, instrument)?.error ?? null;
  if (error === null || !(error >= 0)) return refuse({ code: "gear error unknown", kind, number: instrument });
  return accept({ instrument, error });
}

/** Pressure, time and what was lost: no more than the gauge could be off. */
function leakTest(
  label: string,
  report: StepReport,
  faultOf: FaultOf,
  missing: Missing,
  facts: EvidenceFacts,
  keep: Keep,
): Result<Judged> {
  const read = instrumentOf("pressure gauge", report, faultOf, missing, facts);
  if (!read.ok) return read;
  const { instrument, error } = read.value;
  const { pressure_bar: pressure, held_min: held, lost_bar: lost } = report;
  if (!(typeof pressure === "number" && pressure > 0)) return missing("the test pressure in bar");
  if (!(typeof held === "number" && held >= 0)) return missing("how long it was held, in minutes");
  if (!(typeof lost === "number")) return missing("the pressure lost in bar");
  if (held < facts.leakTest_min)
    return refuse({ code: "held too short", step: label, held, least: facts.leakTest_min });
  // A gauge that may be off by more than a hundredth of the pressure cannot show a leak that matters. Common practice.
  if (error > pressure / 100) return refuse({ code: "gauge too coarse", step: label, error, pressure });
  if (Math.abs(lost) > error) return refuse({ code: "leaks", step: label, lost, error });
  return keep({ pressure_bar: pressure, held_min: held, lost_bar: lost, instrument, error });
}

function tooHigh(label: string, reading: number, error: number, limit: number, unit: string) {
  if (Math.abs(reading) + error <= limit) return null;
  return refuse({ code: "reading not safe", step: label, reading, error, limit, unit });
}

/** A gauge that surely shows something is not at zero, however little it is. */
function notZero(label: string, reading: number, error: number, unit: string) {
  if (unit !== "bar" || readsAs({ expected: 0, reading, error })) return null;
  return refuse({ code: "not zero", step: label, reading, error, unit });
}

/** What a person holds back at a door without a tool, in N: the weight of some 25 kg. Common practice, no source. */
const HELD_BY_HAND_N = 250;

/**
 * A gauge at zero may hide as much as it may be off, and on a wide door that throws whoever lets it go: then what holds it is written
 * down, or a finer gauge is read. F = P·π/4·d², the reading's own error on top.
 */
function doorMayFly(label: string, reading: number, error: number, opening_m: number | null, words: string | null) {
  if (opening_m === null || words !== null) return null;
  const hidden = Math.abs(reading) + error;
  const force_N = hidden * 1e5 * (Math.PI / 4) * opening_m ** 2;
  return force_N <= HELD_BY_HAND_N
    ? null
    : refuse({ code: "door may fly", step: label, hidden, opening_m, force_N: Math.ceil(force_N) });
}

function given(text: string | null | undefined): string | null {
  const bare = text?.trim() ?? "";
  return bare === "" ? null : bare;
}
