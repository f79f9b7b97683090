import type { DueMark, DueWhat } from "../../core/board/dueList";

type Row = Readonly<{ what: DueWhat; at: string; words: string; inside: number }>;

const WORDS: Readonly<Record<DueWhat, (row: Row) => string>> = {
  ends: () => "Permit ends",
  retest: () => "Read the air again",
  revalidate: () => "Revalidate for the shift",
  look: () => "Look after hot work",
  "watch ends": () => "Watch without a break ends",
  call: () => "Communication check",
  "inside, stopped": ({ inside }) => `${inside} inside though the work is stopped: out first`,
  "bad air": ({ at }) => `Bad air at ${at}: find the cause`,
  "silent detector": ({ at }) => `${at} sends nothing`,
  stopped: ({ at }) => `Work stopped: ${at}`,
  expired: () => "Permit expired: stop work, sign off",
  "next act": ({ words }) => words,
  conflict: ({ words }) => words,
};

export function dueWords(row: Row): string {
  return WORDS[row.what](row);
}

export const MARK_WORDS: Readonly<Record<DueMark, string>> = {
  inside: "inside",
  gas: "gas",
  stopped: "stopped",
  permit: "permit",
  watch: "watch",
  isolation: "isolation",
  conflict: "conflict",
  plan: "plan",
};
