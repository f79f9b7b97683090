import { and, asc, count, desc, eq, or, sql } from "drizzle-orm";
import { placeOf } from "../../core/listed";
import { peopleOn } from "../../core/permit/record/permitTypes";
import { inside } from "../../core/permit/people/entries";
import { PERMIT_KINDS, type PermitKind } from "../../core/permit/kinds/kinds";
import { PERMIT_STATES, type PermitState } from "../../core/permit/record/permitTypes";
import { lastOf } from "../../core/permit/record/permitLog";
import { onPost } from "../../core/permit/people/posts";
import { byNumber } from "../db/byNumber";
import { isAmong, isNoneOf } from "../db/isAmong";
import { database } from "../db/database";
import { jobs, people, permits } from "../db/schema";
import { namesOf } from "../people/signIn";
import { openPermits } from "./openPermits";

/** By what the register can be put in order. */
export const REGISTER_SORTS = ["number", "kind", "holder", "from", "until"] as const;
export type RegisterSort = (typeof REGISTER_SORTS)[number];

const SORTED_BY = {
  number: byNumber(permits.number),
  kind: permits.kind,
  holder: people.name,
  from: permits.validFrom,
  until: permits.validTo,
} as const satisfies Readonly<Record<RegisterSort, unknown>>;

export type RegisterFilter = Readonly<{
  kind: string;
  state: string;
  find: string;
  /** By number from the last where it is not said. */
  sort?: RegisterSort;
  down?: boolean;
}>;

export type RegisterRow = Readonly<{
  number: string;
  kind: PermitKind;
  state: PermitState;
  job: string;
  title: string;
  words: string;
  holder: string;
  validFrom_ms: number;
  validTo_ms: number;
  on: number;
  previous: string | null;
}>;

/** States in which nothing happens any more, and the clock moves nothing. */
const OVER: readonly [PermitState, ...PermitState[]] = ["closed", "cancelled"];

export const REGISTER_PAGE = 50;

/**
 * The register, a page of it; a page too far is the last. `open` stands for everything that is not over. What is open is asked as it stands now, for
 * the clock may have moved it; of what is over only the page that is shown is read.
 */
export function permitRegister(filter: RegisterFilter, page: number, now_ms: number) {
  const db = database();
  const nameOf = namesOf(db);
  const wanted = matching(filter);
  const matchingOpen = new Set(
    db
      .select({ number: permits.number })
      .from(permits)
      .innerJoin(jobs, eq(jobs.id, permits.jobId))
      .innerJoin(people, eq(people.id, permits.holderId))
      .where(and(isNoneOf(permits.state, OVER), wanted))
      .all()
      .map(({ number }) => number),
  );
  const openNow = openPermits(db, now_ms).filter(({ now }) => matchingOpen.has(now.number));
  const shownOpen = openNow.filter(
    ({ now: { state } }) =>
      filter.state === "" || state === filter.state || (filter.state === "open" && !OVER.includes(state)),
  );
  const over =
    filter.state === "open"
      ? undefined
      : and(
          isAmong(
            permits.state,
            OVER.filter((state) => filter.state === "" || state === filter.state),
          ),
          wanted,
        );
  const isShown = or(
    isAmong(
      permits.number,
      shownOpen.map(({ now }) => now.number),
    ),
    over,
  );
  const found =
    db
      .select({ n: count() })
      .from(permits)
      .innerJoin(jobs, eq(jobs.id, permits.jobId))
      .innerJoin(people, eq(people.id, permits.holderId))
      .where(isShown)
      .get()?.n ?? 0;
  const place = placeOf(found, page, REGISTER_PAGE);
  const { sort = "number", down = true } = filter;
  const rows = db
    .select({ permit: permits, job: { number: jobs.number, title: jobs.title } })
    .from(permits)
    .innerJoin(jobs, eq(jobs.id, permits.jobId))
    .innerJoin(people, eq(people.id, permits.holderId))
    .where(isShown)
    .orderBy(down ? desc(SORTED_BY[sort]) : asc(SORTED_BY[sort]), desc(byNumber(permits.number)))
    .limit(REGISTER_PAGE)
    .offset(place.from)
    .all();
  const now = new Map(openNow.map((one) => [one.now.number, one.now]));
  return {
    rows: rows.map(({ permit, job }): RegisterRow => {
      const life = now.get(permit.number);
      return {
        number: permit.number,
        kind: permit.kind,
        state: life?.state ?? permit.state,
        job: job.number,
        title: job.title,
        words: permit.words,
        holder: nameOf(life?.holder ?? permit.holderId),
        validFrom_ms: permit.validFrom,
        validTo_ms: permit.validTo,
        on: life ? peopleOn(life).length : 0,
        previous: permit.previous,
      };
    }),
    found,
    page: place.page,
    pages: place.pages,
    kinds: PERMIT_KINDS,
    states: PERMIT_STATES,
    holding: openNow
      .flatMap(({ now: life }) => [
        { who: nameOf(life.holder), what: "holds", permit: life.number, rank: 0 },
        ...onPost(life.log).map(({ person, post }) => ({
          who: nameOf(person),
          what: post,
          permit: life.number,
          rank: 1,
        })),
        ...inside(life.log).map(({ person }) => ({
          who: nameOf(person),
          what: "inside",
          permit: life.number,
          rank: 2,
        })),
        ...peopleOn(life).map(({ person, lock }) => ({
          who: nameOf(person),
          what: `on, lock ${lock}`,
          permit: life.number,
          rank: 3,
        })),
      ])
      .sort((a, b) => (a.who === b.who ? a.rank - b.rank : a.who < b.who ? -1 : 1)),
  };
}

/** Kind and words: in the permit's number and work, its job, its holder; upper and lower case alike in every language. */
function matching({ kind, find }: RegisterFilter) {
  const words = find.trim().toLowerCase();
  const isKind = PERMIT_KINDS.find((one) => one === kind);
  return and(
    kind === "" ? undefined : isKind ? eq(permits.kind, isKind) : sql`0`,
    words === ""
      ? undefined
      : sql`instr(folded(${permits.number} || ' ' || ${jobs.number} || ' ' || ${jobs.title} || ' ' || ${permits.words} || ' ' || ${people.name}), ${words}) > 0`,
  );
}

const BYPASSING: readonly PermitState[] = ["live", "suspended", "run out", "work done"];

/** Safeguards that do not work now: on the board until they are back. */
export function bypasses(now_ms: number) {
  const db = database();
  const nameOf = namesOf(db);
  return openPermits(db, now_ms).flatMap(({ now }) =>
    now.details.kind === "safeguard bypass" &&
    BYPASSING.includes(now.state) &&
    lastOf(now.log, "safeguard back") === undefined
      ? [
          {
            permit: now.number,
            safeguard: now.details.safeguard,
            owner: nameOf(now.details.owner),
            compensation: now.details.compensation,
            until_ms: now.details.until_ms,
            overdue: now_ms > now.details.until_ms,
            state: now.state,
          },
        ]
      : [],
  );
}
