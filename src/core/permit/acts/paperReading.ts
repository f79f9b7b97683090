import { sampleWait_s } from "../../atmosphere/sampleWait";
import { accept, refuse, type Result } from "../../refusal/result";
import type { LogEntry } from "../record/permitLog";
import type { CommandOf, PermitFacts, PermitLife } from "../record/permitTypes";
import { decideBeginSample, decideRead } from "./gasActs";

type Command = CommandOf<"enter paper reading">;

/** What stood on paper longer than two shifts is no reading of this permit any more. */
const OLDEST_MS = 24 * 3_600_000;

/**
 * A reading that was drawn, waited for and written on paper while the server was down, and is typed in afterwards by whoever
 * sends it. It is decided as it would have been then, by the gas tester who read it, at the times on the paper: the wait, the
 * order of points and of gases, the instrument and its limits are asked as of any other.
 *
 * What is on record stays in its order. Of a reading older than the last thing on record nobody can say what it was worth by
 * then: it is kept and counts for nothing; if it was bad it counts, from that last moment on.
 */
export const paperActs = {
  "enter paper reading": (permit: PermitLife, command: Command, facts: PermitFacts): Result<PermitLife> => {
    const { drawn_ms, read_ms, reader, at_ms } = command;
    const no = paperFault(command, facts);
    if (no !== null) return refuse({ code: "paper order", why: no });
    if (!facts.rolesOf(reader).includes("gas tester")) {
      return refuse({ code: "not yours to do", act: `read the air (${facts.nameOf(reader)})`, needs: ["gas tester"] });
    }
    const last_ms = permit.log.at(-1)?.at_ms ?? -Infinity;
    const isOld = drawn_ms < last_ms;
    const byReader = { by: reader, roles: facts.rolesOf(reader), at_ms };
    const { point, instrument, reading } = command;
    const begun = decideBeginSample(
      permit,
      { ...byReader, type: "begin sample", point, instrument, at_ms: isOld ? last_ms : drawn_ms },
      facts,
    );
    if (!begun.ok) return begun;
    const sheet = facts.gasSheet(instrument);
    const wait_ms = sheet === null ? 0 : sampleWait_s(sheet) * 1000;
    if (read_ms - drawn_ms < wait_ms) {
      return refuse({ code: "read too early", point, wait_s: Math.ceil((wait_ms - (read_ms - drawn_ms)) / 1000) });
    }
    const asOf_ms = isOld ? last_ms + wait_ms : read_ms;
    const read = decideRead(begun.value, { ...byReader, type: "read", point, reading, at_ms: asOf_ms }, facts);
    if (!read.ok) return read;
    const typed = read.value.log.slice(permit.log.length).map((entry) => typedIn(entry, command, last_ms));
    const wasBad = typed.some((entry) => entry.type === "air" && entry.against.length > 0);
    if (!isOld || wasBad) return accept({ ...read.value, log: [...permit.log, ...typed] });
    const noted: LogEntry = {
      type: "air noted",
      at_ms,
      by: command.by,
      point,
      instrument,
      reading,
      drawn_ms,
      read_ms,
      reader,
    };
    return accept({ ...permit, log: [...permit.log, noted] });
  },
};

/** A line of the log as it is written down late: dated when it was so, never before what stands already, and by whom it was typed. */
function typedIn(entry: LogEntry, { at_ms, by }: Command, last_ms: number): LogEntry {
  if (entry.type === "stopped") return { ...entry, at_ms, by };
  const dated = { ...entry, at_ms: Math.min(at_ms, Math.max(last_ms, entry.at_ms)) };
  return dated.type === "air" && by !== null ? { ...dated, typed_ms: at_ms, typedBy: by } : dated;
}

/** Why these times cannot be; null when they can. */
function paperFault({ drawn_ms, read_ms, at_ms }: Command, { timeOf }: PermitFacts): string | null {
  if (drawn_ms >= read_ms)
    return `The sample was drawn at ${timeOf(drawn_ms)}, and read at ${timeOf(read_ms)}, not later`;
  if (read_ms > at_ms) return `It says that it was read at ${timeOf(read_ms)}, and it is ${timeOf(at_ms)} now`;
  if (drawn_ms < at_ms - OLDEST_MS) return `It was drawn more than a day ago, at ${timeOf(drawn_ms)}`;
  return null;
}
