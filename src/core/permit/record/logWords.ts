import type { AirReading } from "../../atmosphere/airLimits";
import { clockWords } from "./clockSet";
import { notAsWritten, type LogEntry } from "./permitLog";
import type { PersonId } from "../../people/roles";

const ACTS: Readonly<Record<Extract<LogEntry, { type: "signed" }>["act"], string>> = {
  check: "Checked",
  authorise: "Authorised",
  approve: "Approved for safety",
  issue: "Issued on the spot",
  accept: "Accepted",
  resume: "Work goes on",
  "go on": "Work goes on after the break",
  revalidate: "Revalidated",
  "hand back": "Handed back",
  "end watch": "Watch ended",
  inspect: "Inspected",
  close: "Closed",
  cancel: "Cancelled",
};

const ALONE: Readonly<Partial<typeof ACTS>> = { accept: "Begun, alone", close: "Ended" };

/** "O₂ 20.9 %, flammable 0 %, carbon monoxide 3 ppm": as it stands on a display. */
export function readingWords({ oxygen, flammable, toxics }: AirReading): string {
  const percent = (fraction: number | null) =>
    fraction === null ? "not read" : `${Number((fraction * 100).toFixed(2))} %`;
  return [
    `O₂ ${percent(oxygen)}`,
    `flammable ${percent(flammable)}`,
    ...toxics.map(
      ({ gas, fraction }) => `${gas} ${fraction === null ? "not read" : `${Number((fraction * 1e6).toFixed(1))} ppm`}`,
    ),
  ].join(", ");
}

/** One line of a permit's log, for people. */
export function logWords(
  entry: LogEntry,
  nameOf: (id: PersonId) => string,
  timeOf: (at_ms: number) => string,
  /** By the short route one person begins and ends it: nobody accepted or closed anything. */
  isAlone = false,
): string {
  switch (entry.type) {
    case "signed":
      return `${(isAlone && ALONE[entry.act]) || ACTS[entry.act]}${entry.words ? `: ${entry.words}` : ""}`;
    case "sent back":
      return `Sent back, a draft again: ${entry.words}`;
    case "changed":
      return `The draft was changed: ${entry.what.join(", ")}`;
    case "ran out":
      return "Ran out: everybody stops";
    case "extended":
      return `Extended from ${timeOf(entry.from_ms)} to ${timeOf(entry.to_ms)}${entry.asked.length > 0 ? `, still on: ${entry.asked.map(nameOf).join(", ")}` : ", nobody on"}. ${entry.words}`;
    case "roll called":
      return entry.missing.length === 0
        ? `The roll was called: all ${entry.seen.length} answered`
        : `The roll was called: ${entry.seen.length} answered, and not ${entry.missing.map(nameOf).join(", ")}`;
    case "left to do":
      return `Part done. Left to do: ${entry.words}`;
    case "stopped":
      return `${entry.evacuate ? "Stopped, everybody out" : "Stopped"} (${entry.cause}): ${entry.reason}`;
    case "ticked":
      return `Looked at ${entry.ask}${entry.words ? `: ${entry.words}` : ""}`;
    case "clash decided":
      return `${entry.words} ${entry.decision === "go on" ? "Both go on" : "This one waits"}: ${entry.reason}`;
    case "sample begun":
      return `Sample begun at ${entry.point} with ${entry.instrument}`;
    case "air":
      return `${entry.point}: ${readingWords(entry.reading)}${entry.against.length > 0 ? `. Against: ${entry.against.join(", ")}` : ""}${entry.typedBy === undefined ? "" : `. Written on paper, typed in at ${timeOf(entry.typed_ms!)} by ${nameOf(entry.typedBy)}`}`;
    case "air noted":
      return `${entry.point}, read on paper at ${timeOf(entry.read_ms)} by ${nameOf(entry.reader)} with ${entry.instrument}, typed in late and counted for nothing: ${readingWords(entry.reading)}`;
    case "fire reported":
      return `Fire at ${entry.where}: ${entry.what}. Put out: ${entry.out}`;
    case "would not sign":
      return `${entry.who} would not ${entry.what}: ${entry.words}`;
    case "audited": {
      const wrong = notAsWritten(entry.found);
      return `${wrong.length === 0 ? "Looked at on the spot, all as written" : `Looked at on the spot, not as written: ${wrong.join(", ")}`}${entry.words ? `. ${entry.words}` : ""}`;
    }
    case "cause found":
      return `Bad air at ${entry.point} came from: ${entry.cause}. ${entry.words}`;
    case "explained":
      return `Air at ${entry.point}: ${entry.cause}. ${entry.words}`;
    case "reading replaced":
      return `In place of reading ${entry.gas}: ${entry.words}`;
    case "ventilation begun":
      return "The blower runs for those inside";
    case "ventilation ended":
      return "The blower stands";
    case "flushed":
      return `Blown out at ${entry.point} for ${entry.held_s} s`;
    case "purge begun":
      return `Purge begun, for ${Math.ceil(entry.need_s / 60)} min`;
    case "purge broken":
      return "The blower stood while it was purged: the purge is begun anew";
    case "purge ended":
      return "Purge ended";
    case "post taken":
      return `${nameOf(entry.person)} on duty, ${entry.post}`;
    case "post left":
      return `${nameOf(entry.person)} off post${entry.to === null ? "" : `, ${nameOf(entry.to)} stays on it`}`;
    case "break begun":
      return "Break begun";
    case "break ended":
      return "Break ended";
    case "went in":
      return `${nameOf(entry.person)} in`;
    case "came out":
      return `${nameOf(entry.person)} out`;
    case "talked":
      return "Spoken to, answered";
    case "watch check":
      return `Look due at ${timeOf(entry.due_ms)}: ${entry.words}`;
    case "control room told":
      return `Control room told: ${entry.who}`;
    case "final check":
      return `Final check: ${entry.words}`;
    case "copy hung":
      return `${entry.second ? "Second copy" : "Copy"} ${entry.copy} hangs ${entry.where}`;
    case "copy returned":
      return `Copy ${entry.copy} back`;
    case "put in":
      return `${entry.what} put in at ${entry.where}`;
    case "taken out":
      return `Thing ${entry.thing} taken out`;
    case "safeguard back":
      return `Safeguard back: ${entry.words}`;
    case "clock set":
      return `${clockWords(entry).replace(/^t/, "T")}: what was proved, read, purged or watched before is done again`;
  }
}
