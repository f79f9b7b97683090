/** One alarm as a screen shows it. */
export type ShownAlarm = Readonly<{
  /** Its row in the ledger; null where the line told it and the server was not heard yet, or nothing could be written. */
  seq: number | null;
  subject: string;
  level: number;
  /** For how long nobody has answered; null while that is short. */
  words: string | null;
  answeredBy: string | null;
}>;

export type AlarmsKnown = Readonly<{
  list: readonly ShownAlarm[];
  /** What was seen on this tab, by key: a level more is another key. */
  seen: readonly string[];
  mayAnswer: boolean;
}>;

/** What the server says stands. */
export type AlarmsSaid = Readonly<{
  mayAnswer: boolean;
  again_ms: number | null;
  alarms: readonly (ShownAlarm & Readonly<{ seq: number }>)[];
}>;

export const NOTHING: AlarmsKnown = { list: [], seen: [], mayAnswer: false };

/** What this tab kept; of another version, or damaged, it is as nothing, and the server is asked anyway. */
export function readKnown(kept: unknown): AlarmsKnown {
  if (typeof kept !== "object" || kept === null || !("list" in kept) || !("seen" in kept)) return NOTHING;
  const { list, seen } = kept;
  if (!Array.isArray(list) || !Array.isArray(seen)) return NOTHING;
  return { ...NOTHING, list: list.filter(isShown), seen: seen.filter((one) => typeof one === "string") };
}

function isShown(one: unknown): one is ShownAlarm {
  if (typeof one !== "object" || one === null) return false;
  const { seq, subject, level, words, answeredBy } = one as Record<keyof ShownAlarm, unknown>;
  const isText = (text: unknown) => text === null || typeof text === "string";
  return (
    (seq === null || typeof seq === "number") &&
    typeof subject === "string" &&
    typeof level === "number" &&
    isText(words) &&
    isText(answeredBy)
  );
}

const PERMIT = /^P-\d+$/;

/** What it is seen by: once it has become more it is to be seen again. */
export function keyOf({ seq, subject, level, answeredBy }: ShownAlarm): string {
  return `${seq ?? subject} ${answeredBy === null ? level : "answered"}`;
}

/** Told on the line, before the server is asked. */
export function tellAlarm(known: AlarmsKnown, subject: string): AlarmsKnown {
  const told: ShownAlarm = { seq: null, subject, level: 0, words: null, answeredBy: null };
  const others = known.list.filter((one) => one.seq !== null || one.subject !== subject);
  return { ...known, list: [...others, told], seen: known.seen.filter((key) => key !== keyOf(told)) };
}

/** The server's word counts for permits; of what it could not write down it knows nothing, and that stays until it is seen. */
export function mergeAlarms(known: AlarmsKnown, { alarms, mayAnswer }: AlarmsSaid): AlarmsKnown {
  const unwritten = known.list.filter((one) => one.seq === null && !PERMIT.test(one.subject));
  const list = [...alarms, ...unwritten];
  const keys = new Set(list.map(keyOf));
  // Seen as the line told it, before the server's list came: it is the same alarm.
  const told = alarms.filter((one) => known.seen.includes(keyOf({ ...one, seq: null }))).map(keyOf);
  return { list, seen: [...new Set([...known.seen.filter((key) => keys.has(key)), ...told])], mayAnswer };
}

export function seeAlarms(known: AlarmsKnown, keys: readonly string[]): AlarmsKnown {
  return { ...known, seen: [...new Set([...known.seen, ...keys])] };
}

/** What the band shows: what nobody here has seen, what is unanswered before what somebody answered. */
export function unseen({ list, seen }: AlarmsKnown): readonly ShownAlarm[] {
  const left = list.filter((one) => !seen.includes(keyOf(one)));
  return [
    ...left.filter(({ answeredBy }) => answeredBy === null),
    ...left.filter(({ answeredBy }) => answeredBy !== null),
  ];
}
