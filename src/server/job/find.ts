import { asc, desc, like, or, sql } from "drizzle-orm";
import { byNumber } from "../db/byNumber";
import { database } from "../db/database";
import { gear, jobs, people, permits } from "../db/schema";
import { searchRegister } from "../plant/register";

export type Found = Readonly<{
  what: "job" | "permit" | "item" | "person" | "lock";
  name: string;
  words: string;
  href: string;
}>;

/** So many of each kind are listed: whoever has more types another letter. */
const MOST_EACH = 12;

/**
 * What a few letters may mean: numbers and titles of jobs and permits, tags and names of the plant, people, locks. An exact
 * number or tag comes first. Cost: one look through each of five tables.
 */
export function find(text: string): Found[] {
  const sought = text.trim();
  if (sought === "") return [];
  const db = database();
  const part = `%${sought.replaceAll(/[\\%_]/g, "\\$&").toLowerCase()}%`;
  const has = (column: Parameters<typeof like>[0]) => sql`folded(${column}) LIKE ${part} ESCAPE '\\'`;
  const jobsFound = db
    .select({ number: jobs.number, title: jobs.title, state: jobs.state })
    .from(jobs)
    .where(or(has(jobs.number), has(jobs.title)))
    .orderBy(desc(byNumber(jobs.number)))
    .limit(MOST_EACH)
    .all()
    .map(({ number, title, state }) => ({
      what: "job" as const,
      name: number,
      words: state === "open" ? title : `${title} (${state})`,
      href: `/jobs/${number}`,
    }));
  const permitsFound = db
    .select({ number: permits.number, words: permits.words })
    .from(permits)
    .where(has(permits.number))
    .orderBy(desc(byNumber(permits.number)))
    .limit(MOST_EACH)
    .all()
    .map(({ number, words }) => ({ what: "permit" as const, name: number, words, href: `/permits/${number}` }));
  const items = searchRegister(sought, 1)
    .rows.slice(0, MOST_EACH)
    .map(({ tag, name }) => ({
      what: "item" as const,
      name: tag,
      words: name,
      href: `/plant/${encodeURIComponent(tag)}`,
    }));
  const persons = db
    .select({ name: people.name, roles: people.roles, active: people.active })
    .from(people)
    .where(or(has(people.name), has(people.signIn)))
    .orderBy(asc(people.name))
    .limit(MOST_EACH)
    .all()
    .map(({ name, roles, active }) => ({
      what: "person" as const,
      name,
      words: active ? roles.join(", ") : "signs in no more",
      href: `/people#${encodeURIComponent(name)}`,
    }));
  const locks = db
    .select({ number: gear.number })
    .from(gear)
    .where(sql`${gear.kind} = 'lock' AND ${has(gear.number)}`)
    .orderBy(asc(gear.number))
    .limit(MOST_EACH)
    .all()
    .map(({ number }) => ({
      what: "lock" as const,
      name: number,
      words: "where it hangs, whose it is",
      href: `/locks?lock=${encodeURIComponent(number)}`,
    }));
  const isExact = ({ name }: Found) => name.toLowerCase() === sought.toLowerCase();
  const all = [...jobsFound, ...permitsFound, ...items, ...locks, ...persons];
  return [...all.filter(isExact), ...all.filter((one) => !isExact(one))];
}
