import type { PersonId, Role } from "../people/roles";
import { accept, refuse, type Result } from "../refusal/result";

/**
 * All work in an area, or on the whole site, is stopped by one act; everybody who was on, on post or inside is looked for and
 * ticked off. Work goes on permit by permit once the muster is closed, and it is closed when everybody was seen.
 */
export type Muster = Readonly<{
  number: string;
  /** Empty for the whole site. */
  area: string;
  reason: string;
  by: PersonId;
  at_ms: number;
  people: readonly MusterPerson[];
  /** The last of each person counts: `taken back` by whoever was mistaken. */
  seen: readonly Seen[];
  closed: Readonly<{ by: PersonId; at_ms: number }> | null;
}>;

export type MusterPerson = Readonly<{
  person: PersonId;
  /** Permits they were on, on post or inside under. */
  permits: readonly string[];
  /** Of these, the one under which they were inside; null for most. */
  inside: string | null;
}>;

export type Seen = Readonly<{ person: PersonId; by: PersonId; at_ms: number; isSeen: boolean }>;

/** Who says that it is over. Whoever sees somebody may tick them off. */
export const CLOSE_MUSTERS: readonly Role[] = ["coordinator", "issuer"];

/** A muster stops work in an area: its own, or any where it is for the whole site. Work that is nowhere known may be in it. */
export function covers(muster: Pick<Muster, "area" | "closed">, area: string): boolean {
  return muster.closed === null && (muster.area === "" || area === "" || area === muster.area);
}

export function seenOf(muster: Muster, person: PersonId): Seen | null {
  const last = muster.seen.filter((one) => one.person === person).at(-1);
  return last?.isSeen ? last : null;
}

/** Who has not been seen, those inside first. */
export function missing(muster: Muster): readonly MusterPerson[] {
  const left = muster.people.filter(({ person }) => seenOf(muster, person) === null);
  return [...left.filter(({ inside }) => inside !== null), ...left.filter(({ inside }) => inside === null)];
}

type By = Readonly<{ by: PersonId; at_ms: number }>;

/** Somebody was seen, or was not and it was said in error. */
export function tick(
  muster: Muster,
  { by, at_ms, person, isSeen }: By & Readonly<{ person: PersonId; isSeen: boolean }>,
): Result<Muster> {
  if (muster.closed !== null) return refuse({ code: "already done", what: `Muster ${muster.number}` });
  if (!muster.people.some((one) => one.person === person)) {
    return refuse({ code: "unknown", what: `person of muster ${muster.number}`, name: person });
  }
  if ((seenOf(muster, person) !== null) === isSeen) {
    return refuse({ code: "already done", what: isSeen ? "Seeing them" : "Taking it back" });
  }
  return accept({ ...muster, seen: [...muster.seen, { person, by, at_ms, isSeen }] });
}

/** It is over only when everybody has been seen. */
export function close(muster: Muster, { by, at_ms }: By, nameOf: (person: PersonId) => string): Result<Muster> {
  if (muster.closed !== null) return refuse({ code: "already done", what: `Muster ${muster.number}` });
  const left = missing(muster);
  if (left.length > 0) return refuse({ code: "not all seen", people: left.map(({ person }) => nameOf(person)) });
  return accept({ ...muster, closed: { by, at_ms } });
}
