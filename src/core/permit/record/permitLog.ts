import type { AirReading } from "../../atmosphere/airLimits";
import type { PersonId } from "../../people/roles";
import type { Post } from "../kinds/kinds";

/** Why work stopped for a while. */
export const STOP_CAUSES = [
  "stop-work",
  "area alarm",
  "weather",
  "clash",
  "gas",
  "silent detector",
  "pressure",
  "watch missing",
  "ventilation",
  "isolation",
  "requirement",
  "clock",
  "fire",
  "audit",
] as const;
export type StopCause = (typeof STOP_CAUSES)[number];

/** How an instrument senses what burns. */
export const SENSORS = ["catalytic", "infrared"] as const;
export type Sensor = (typeof SENSORS)[number];

/** Why a reading was bad, as somebody found it. */
export const BAD_AIR_CAUSES = ["source", "pocket", "instrument fault", "not found"] as const;
export type BadAirCause = (typeof BAD_AIR_CAUSES)[number];

/** What a reading that is within limits, but not as outside, comes from. */
export const ODD_AIR_CAUSES = ["humid", "warm", "drift", "gas"] as const;
export type OddAirCause = (typeof ODD_AIR_CAUSES)[number];

/** What somebody who does not work there looks at when they come to see whether a permit is lived as it is written. */
export const AUDIT_LOOKS = [
  "the copy at the work",
  "locks and tags",
  "people and their locks",
  "precautions",
  "watch and air",
] as const;
export type AuditLook = (typeof AUDIT_LOOKS)[number];
export const AUDIT_FINDINGS = ["as written", "not as written", "not asked here"] as const;
export type AuditFinding = (typeof AUDIT_FINDINGS)[number];

/** Acts of the life cycle that a person signs. */
export const SIGNED = [
  "check",
  "authorise",
  "approve",
  "issue",
  "accept",
  "resume",
  "go on",
  "revalidate",
  "hand back",
  "end watch",
  "inspect",
  "close",
  "cancel",
] as const;
export type Signed = (typeof SIGNED)[number];

/**
 * What happened under a permit, oldest first and never changed: its checks, air tests, watches, entries, breaks and stops.
 * Everything else that is said of a permit is read from it. `by` is the person; null for the clock or an instrument.
 */
export type LogEntry = Readonly<{ at_ms: number; by: PersonId | null }> &
  (
    | Readonly<{ type: "signed"; act: Signed; words?: string }>
    /** Back to a draft, with what has to be put right: what was signed and looked at before counts no more. */
    | Readonly<{ type: "sent back"; words: string }>
    /** The draft was written anew in these of its parts. */
    | Readonly<{ type: "changed"; what: readonly string[] }>
    | Readonly<{ type: "ran out" }>
    /** Its end put off, once; everybody who was on was asked. */
    | Readonly<{ type: "extended"; from_ms: number; to_ms: number; words: string; asked: readonly PersonId[] }>
    /** Called by name, each who is there by the record: who answered, and who did not. */
    | Readonly<{ type: "roll called"; seen: readonly PersonId[]; missing: readonly PersonId[] }>
    /** Handed back part done: what of the work is left. */
    | Readonly<{ type: "left to do"; words: string }>
    | Readonly<{ type: "stopped"; cause: StopCause; reason: string; evacuate: boolean }>
    /** Something that is asked was found done, by looking. */
    | Readonly<{ type: "ticked"; ask: string; words: string }>
    | Readonly<{ type: "clash decided"; clash: string; words: string; decision: "go on" | "wait"; reason: string }>
    | Readonly<{ type: "sample begun"; point: string; instrument: string; sensor: Sensor; wait_s: number }>
    | Readonly<{
        type: "air";
        point: string;
        instrument: string;
        reading: AirReading;
        against: readonly string[];
        /** When the sample was begun; missing in rows of before: as it was read. */
        drawn_ms?: number;
        /** Within limits, and not as outside air is. */
        explain?: readonly string[];
        /** Written on paper while the server was down, and typed in then. */
        typed_ms?: number;
        typedBy?: PersonId;
      }>
    /** Read and written on paper before something that is on record already: kept, and counted for nothing. */
    | Readonly<{
        type: "air noted";
        point: string;
        instrument: string;
        reading: AirReading;
        drawn_ms: number;
        read_ms: number;
        reader: PersonId;
      }>
    /** Something burned, however small: where, what, and how it was put out. */
    | Readonly<{ type: "fire reported"; where: string; what: string; out: string }>
    /** Somebody would not sign, write or answer what was asked of them. */
    | Readonly<{ type: "would not sign"; who: string; what: string; words: string }>
    | Readonly<{ type: "audited"; found: Readonly<Record<AuditLook, AuditFinding>>; words: string }>
    /** What a bad reading came from; an instrument fault is shown by a second instrument at the same point. */
    | Readonly<{ type: "cause found"; point: string; cause: BadAirCause; words: string }>
    | Readonly<{ type: "explained"; point: string; cause: OddAirCause; words: string }>
    /** What stands in for reading a gas that no instrument here sees. */
    | Readonly<{ type: "reading replaced"; gas: string; words: string }>
    | Readonly<{ type: "ventilation begun" }>
    | Readonly<{ type: "ventilation ended" }>
    /** Air blown at one place, where gas was found. */
    | Readonly<{ type: "flushed"; point: string; held_s: number }>
    | Readonly<{ type: "purge begun"; need_s: number }>
    | Readonly<{ type: "purge ended" }>
    /** Its blower was heard to stand: it is begun anew. */
    | Readonly<{ type: "purge broken" }>
    | Readonly<{ type: "post taken"; post: Post; person: PersonId }>
    /** `to` took it at the same moment; null only when nothing needs the post any more. */
    | Readonly<{ type: "post left"; post: Post; person: PersonId; to: PersonId | null }>
    | Readonly<{ type: "break begun" }>
    | Readonly<{ type: "break ended" }>
    | Readonly<{ type: "went in"; person: PersonId }>
    | Readonly<{ type: "came out"; person: PersonId }>
    | Readonly<{ type: "talked" }>
    | Readonly<{ type: "watch check"; due_ms: number; words: string }>
    | Readonly<{ type: "control room told"; who: string }>
    | Readonly<{ type: "final check"; words: string }>
    | Readonly<{ type: "copy hung"; copy: number; where: string; second: boolean }>
    | Readonly<{ type: "copy returned"; copy: number }>
    /** A cap, plug, blind or cover put in for this work. */
    | Readonly<{ type: "put in"; thing: number; what: string; where: string }>
    | Readonly<{ type: "taken out"; thing: number }>
    | Readonly<{ type: "safeguard back"; words: string }>
    /** A clock that was ahead by so much was set right: see clockSet. */
    | Readonly<{ type: "clock set"; back_s: number; words: string }>
  );

/** A new entry, as it is put into the log. */
export type NewEntry = LogEntry extends infer E ? (E extends LogEntry ? Omit<E, "at_ms" | "by"> : never) : never;

/** The permit with new entries of this act in its log. */
export function withEntries<P extends Readonly<{ log: readonly LogEntry[] }>>(
  permit: P,
  act: Readonly<{ at_ms: number; by: PersonId | null }>,
  ...entries: NewEntry[]
): P {
  const { at_ms, by } = act;
  return { ...permit, log: [...permit.log, ...entries.map((entry) => ({ ...entry, at_ms, by }) as LogEntry)] };
}

type Of<T extends LogEntry["type"]> = Extract<LogEntry, { type: T }>;

export function entriesOf<T extends LogEntry["type"]>(log: readonly LogEntry[], ...types: T[]): Of<T>[] {
  return log.filter((entry): entry is Of<T> => (types as string[]).includes(entry.type));
}

export function lastOf<T extends LogEntry["type"]>(log: readonly LogEntry[], ...types: T[]): Of<T> | undefined {
  return entriesOf(log, ...types).at(-1);
}

/** What stands since the permit last became another: signatures and ticks of before were for other words. */
function sinceChanged(log: readonly LogEntry[]): readonly LogEntry[] {
  return log.slice(log.findLastIndex(({ type }) => type === "sent back" || type === "changed") + 1);
}

export function signedBy(log: readonly LogEntry[], act: Signed): Of<"signed"> | undefined {
  return entriesOf(sinceChanged(log), "signed")
    .filter((entry) => entry.act === act)
    .at(-1);
}

/** Was this found done by looking? The last tick counts. */
export function tickOf(log: readonly LogEntry[], ask: string): Of<"ticked"> | undefined {
  return entriesOf(sinceChanged(log), "ticked")
    .filter((entry) => entry.ask === ask)
    .at(-1);
}

/** What was written since everybody was last called out; all of it where nobody ever was. */
export function sinceEvacuated(log: readonly LogEntry[]): readonly LogEntry[] {
  return log.slice(log.findLastIndex((entry) => entry.type === "stopped" && entry.evacuate) + 1);
}

export type Copy = Readonly<{
  copy: number;
  where: string;
  second: boolean;
  hung_ms: number;
  returned_ms: number | null;
}>;

/** Paper copies by where they hang. */
export function copiesOf(log: readonly LogEntry[]): Copy[] {
  const back = new Map(entriesOf(log, "copy returned").map(({ copy, at_ms }) => [copy, at_ms]));
  return entriesOf(log, "copy hung").map(({ copy, where, second, at_ms }) => ({
    copy,
    where,
    second,
    hung_ms: at_ms,
    returned_ms: back.get(copy) ?? null,
  }));
}

export type PutIn = Readonly<{ thing: number; what: string; where: string; in_ms: number; out_ms: number | null }>;

/** Blinds, caps, plugs and covers put in under the permit. */
export function putInOf(log: readonly LogEntry[]): PutIn[] {
  const out = new Map(entriesOf(log, "taken out").map(({ thing, at_ms }) => [thing, at_ms]));
  return entriesOf(log, "put in").map(({ thing, what, where, at_ms }) => ({
    thing,
    what,
    where,
    in_ms: at_ms,
    out_ms: out.get(thing) ?? null,
  }));
}

/** What an audit found other than it is written. */
export function notAsWritten(found: Readonly<Record<AuditLook, AuditFinding>>): AuditLook[] {
  return AUDIT_LOOKS.filter((look) => found[look] === "not as written");
}
