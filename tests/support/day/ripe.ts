import { BEGUN } from "../../../src/core/isolation/held";
import { loadIsolation } from "../../../src/server/isolation/isolationStore";
import { heldNow } from "../siteRows";
import type { TestSite } from "../testSite";
import { SLOTS } from "./place";
import { acceptedBelow, isOver, jobAt, onPermit, permitsOf, type JobRow, type PermitRow } from "./rows";

/** What stands at a place: the job, its isolation, the permits that are not over. */
export type Standing = Readonly<{ slot: number; found: JobRow | null; open: readonly PermitRow[] }>;
type Ripe = (site: TestSite, standing: Standing) => boolean;

const inState =
  (...states: readonly string[]): Ripe =>
  (_, { open }) =>
    open.some(({ state }) => states.includes(state));
const stepsOf = (site: TestSite, { found }: Standing) =>
  found?.isolation ? (loadIsolation(site.db, found.isolation)?.life.steps ?? []) : [];
const openSteps = (site: TestSite, { found }: Standing) => (found?.isolation ? site.open(found.isolation) : []);
const hangs: Ripe = (site, { found }) => heldNow(site).some(({ isolation }) => isolation === found?.isolation);
const isPlanned: Ripe = (_, { found }) => found !== null && found.isolation === null;
const proved: Ripe = (site, standing) => stepsOf(site, standing).some(({ kind, done }) => kind === "prove" && done);

/**
 * Where there is something to do or to spoil. What has no entry finds something wherever an isolation stands. A model that
 * plays everything everywhere mostly asks for what is not there, and what is seldom is then never met.
 */
const RIPE: Readonly<Record<string, Ripe>> = {
  "approved and begun": isPlanned,
  "something that runs for a time": (site, standing) =>
    stepsOf(site, standing).some(({ kind, done, begun }) => BEGUN.has(kind) && !done && !begun),
  // Asked for first where nothing is.
  "a job withdrawn": (_, { found }) => found === null || found.isolation === null,
  "a permit brought on": inState("draft", "checked", "authorised", "issued"),
  "a permit brought to its end": inState("live", "run out", "watching", "work done"),
  "a proof that fails": proved,
  "proved again": proved,
  "a point swapped": (site, { found }) =>
    heldNow(site).some(({ isolation, tag }) => isolation === found?.isolation && (tag === "V-1" || tag === "V-5")),
  "a step before its turn": (site, standing) => openSteps(site, standing).length > 0,
  "planned anew": (site, standing) => openSteps(site, standing).length > 0,
  "a temporary de-isolation": hangs,
  "locks read again": hangs,
  "locks read by the crew": hangs,
  "something burned": inState("live", "suspended", "work done"),
  "an audit on the spot": inState("live"),
  "somebody would not sign": (_, { open }) => open.length > 0,
  "a lock that hangs elsewhere": (site, standing) => openSteps(site, standing).some(({ kind }) => kind === "lock"),
  "a draft sent back, changed or cancelled": inState("draft", "checked", "authorised", "issued"),
  "signed on with any lock": inState("live"),
  "signed off by anybody": (site, { open }) => open.some(({ permit }) => onPermit(site, permit).length > 0),
  "work stopped": inState("live"),
  "gone on by anybody": inState("live", "suspended"),
  "handed back in part": inState("live"),
  "closed at once": inState("work done", "watching"),
  "an end put later": (_, { slot, open }) =>
    SLOTS[slot]!.rules !== undefined && open.some(({ state }) => state === "live"),
  "put back and closed": (site, { found, open }) =>
    found !== null && open.length === 0 && isOver(site, found.jobId) > 0,
  "seen again by the new shift": inState("live", "suspended"),
  "one for another": (site, { open }) =>
    open.some(({ permit, state }) => state === "live" && onPermit(site, permit).length > 0),
  "accepted below the rules": (_, { slot, found }) => found !== null && SLOTS[slot]!.below !== undefined,
  "accepted for longer": (site, { found }) => found !== null && acceptedBelow(site, found.jobId) > 0,
  "a job closed too early": (_, { found }) => found !== null,
};
const somethingStands: Ripe = (_, { found }) => found?.isolation != null;

/** The first place from the one picked where there is something to do; null where there is none. */
export function ripeSlot(site: TestSite, what: string, picked: number): number | null {
  const ripe = RIPE[what] ?? somethingStands;
  for (let i = 0; i < SLOTS.length; i++) {
    const slot = (picked + i) % SLOTS.length;
    const found = jobAt(site, SLOTS[slot]!.place);
    if (ripe(site, { slot, found, open: found ? permitsOf(site, found.jobId) : [] })) return slot;
  }
  return null;
}

/** Of the permits at a place those that are ripe for it first. */
export function ripePermits(site: TestSite, what: string, standing: Standing): readonly PermitRow[] {
  const ripe = RIPE[what];
  const fit = ripe ? standing.open.filter((permit) => ripe(site, { ...standing, open: [permit] })) : [];
  return fit.length > 0 ? fit : standing.open;
}

/** What is seldom in a day is played more often than it happens: each kind of it is to be met a hundred times. */
export const OFTEN: Readonly<Record<string, number>> = {
  "a draft sent back, changed or cancelled": 22,
  "a step that cannot be done": 9,
  "a proof that fails": 12,
  "a point swapped": 4,
  "gone on by anybody": 4,
  "seen again by the new shift": 4,
  "locks read again": 7,
  "a job withdrawn": 8,
  "something that runs for a time": 10,
  "a permit brought on": 8,
  "approved and begun": 10,
  "a temporary de-isolation": 8,
  "work stopped": 4,
  "a lock off the box": 4,
  "planned anew": 4,
  "one for another": 7,
  "an audit on the spot": 4,
  "accepted below the rules": 13,
  "accepted for longer": 4,
  "an end put later": 8,
  "somebody would not sign": 3,
  "a job asked for otherwise": 4,
  "put back and closed": 12,
  "a step before its turn": 2,
  "the clock ahead": 5,
  "the shift handed over": 4,
  "another crew": 4,
  "another register": 3,
  "something burned": 8,
};
