import type { How } from "../../request/jobFile";

export const PERMIT_KINDS = [
  "general",
  "hot work",
  "confined space entry",
  "line break",
  "electrical work",
  "work at height",
  "pressure test",
  "safeguard bypass",
  "minor isolation",
] as const;
export type PermitKind = (typeof PERMIT_KINDS)[number];

export const POSTS = ["fire watch", "attendant"] as const;
/** A post that is never left empty while the work lasts: the next is on before the last is off. */
export type Post = (typeof POSTS)[number];

/** What a kind adds to the one life that all permits share. */
export type KindRule = Readonly<{
  kind: PermitKind;
  /** What it permits, in a few words. */
  words: string;
  longest_h: number;
  /** The work stands on an isolation that is proven. */
  isolation: boolean;
  /** The isolation must have been planned for people meeting the face so; null: any way. */
  plannedFor: How | null;
  post: Post | null;
  /** Air is tested before, after each break, and at each revalidation. */
  air: boolean;
  /** Somebody stays and watches after the work has ended. */
  afterWatch: boolean;
  /** People go in and out by a log of their own. */
  entryLog: boolean;
  /** One person, who hung the one lock, begins and ends it alone: nobody issues it, and nobody else comes on. */
  alone: boolean;
  /** Ids of what must be true, see requirements. */
  asks: readonly string[];
}>;

/** The kinds that somebody writes; the short route has a form of its own. */
export const WRITTEN_KINDS = PERMIT_KINDS.filter((kind) => kind !== "minor isolation");

/** Asked of every kind. */
const EVERY = [
  "muster",
  "isolation",
  "accepted",
  "stand-ins",
  "hazards",
  "other permits",
  "approval",
  "copies",
  "revalidation",
  "clashes",
];
const SHIFT_h = 12;

const rule = (kind: PermitKind, words: string, more: Partial<KindRule> & Pick<KindRule, "asks">): KindRule => ({
  kind,
  words,
  longest_h: SHIFT_h,
  isolation: true,
  plannedFor: null,
  post: null,
  air: false,
  afterWatch: false,
  entryLog: false,
  alone: false,
  ...more,
  asks: [...EVERY, ...more.asks],
});

/** The kinds as data. Longest times: one long shift, and a day for hot work, common practice. */
export const KIND_RULES: Readonly<Record<PermitKind, KindRule>> = {
  general: rule("general", "Work that no other kind covers", { asks: [] }),
  "hot work": rule("hot work", "Flame, sparks or heat that can light something", {
    longest_h: 24,
    post: "fire watch",
    air: true,
    afterWatch: true,
    asks: [
      "planned for",
      "zone",
      "floor",
      "screens",
      "cylinders",
      "extinguisher",
      "after-watch class",
      "watch",
      "watch ready",
      "edge detector",
      "gases seen",
      "air",
      "explained",
      "cause",
    ],
  }),
  "confined space entry": rule("confined space entry", "Going into a space with the body or the head", {
    plannedFor: "enter",
    post: "attendant",
    air: true,
    entryLog: true,
    asks: [
      "planned for",
      "positive",
      "cleaned",
      "cooled",
      "purge",
      "rescue",
      "rescue kit",
      "cover",
      "lights",
      "ladder",
      "no cylinders",
      "intake",
      "watch",
      "talk",
      "detector",
      "gases seen",
      "first test",
      "ventilated",
      "air",
      "corners",
      "explained",
      "cause",
    ],
  }),
  "line break": rule("line break", "Opening a line or a vessel that has held something", {
    plannedFor: "open",
    asks: ["planned for", "first flange", "dead legs", "spill"],
  }),
  "electrical work": rule("electrical work", "Work on or beside conductors", {
    asks: ["gloves", "earths", "test alone", "screens to live", "instrument windings", "live reason"],
  }),
  "work at height": rule("work at height", "Work from which a person can fall", {
    asks: ["harness", "drop zone", "height rescue"],
  }),
  "pressure test": rule("pressure test", "Filling with pressure to see that it holds", {
    asks: ["test energy", "keep out", "relief", "whip checks", "test gauge", "live gauge"],
  }),
  "safeguard bypass": rule("safeguard bypass", "A safeguard that does not work for a while", {
    longest_h: 24 * 7,
    isolation: false,
    asks: ["bypass owner", "compensation"],
  }),
  "minor isolation": {
    ...rule("minor isolation", "One machine behind one lock, by one person, within a shift", { asks: [] }),
    alone: true,
    // No copy hangs and no shift changes: the lock and its tag hang at the machine, and it ends with the shift.
    asks: ["muster", "isolation", "accepted", "minor", "hazards", "clashes"],
  },
};

export function kindRule(kind: PermitKind): KindRule {
  return KIND_RULES[kind];
}
