import { and, desc, eq, inArray } from "drizzle-orm";
import { peopleOn } from "../../core/permit/record/permitTypes";
import { inside } from "../../core/permit/people/entries";
import { PERMIT_KINDS, type PermitKind } from "../../core/permit/kinds/kinds";
import { PERMIT_STATES, type PermitState } from "../../core/permit/record/permitTypes";
import { lastOf } from "../../core/permit/record/permitLog";
import { onPost } from "../../core/permit/people/posts";
import { database } from "../db/database";
import { jobs, permits } from "../db/schema";
import { namesOf } from "../people/signIn";
import { permitsNow } from "./permitFacts";

export type RegisterFilter = Readonly<{ kind: string; state: string; find: string }>;

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

/** States in which somebody or something may still be out there. */
const OPEN: readonly PermitState[] = PERMIT_STATES.filter((state) => state !== "closed" && state !== "cancelled");

export const REGISTER_PAGE = 50;

/** The register, newest first. `open` stands for everything that is not over. */
export function permitRegister(filter: RegisterFilter, page: number, now_ms: number) {
  const db = database();
  const rows = db
    .select({ permit: permits, job: jobs })
    .from(permits)
    .innerJoin(jobs, eq(jobs.id, permits.jobId))
    .orderBy(desc(permits.number))
    .all();
  const nameOf = namesOf(db);
  const wanted = filter.find.trim().toLowerCase();
  const matching = rows.filter(({ permit, job }) => {
    const text = `${permit.number} ${job.number} ${job.title} ${permit.words} ${nameOf(permit.holderId)}`.toLowerCase();
    return (filter.kind === "" || permit.kind === filter.kind) && (wanted === "" || text.includes(wanted));
  });
  // What the clock does shows in the state: the open ones are asked as they stand now, the rest stays as it is.
  const now = new Map(
    permitsNow(
      db,
      matching.filter(({ permit }) => OPEN.includes(permit.state)).map(({ permit }) => permit.number),
      now_ms,
    ).map((one) => [one.now.number, one.now]),
  );
  const all: RegisterRow[] = matching
    .map(({ permit, job }) => {
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
    })
    .filter(
      ({ state }) => filter.state === "" || state === filter.state || (filter.state === "open" && OPEN.includes(state)),
    );
  return {
    rows: all.slice((page - 1) * REGISTER_PAGE, page * REGISTER_PAGE),
    found: all.length,
    kinds: PERMIT_KINDS,
    states: PERMIT_STATES,
    holding: [...now.values()]
      .flatMap((life) => [
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

/** Safeguards that do not work now: on the board until they are back. */
export function bypasses(now_ms: number) {
  const db = database();
  const numbers = db
    .select({ number: permits.number })
    .from(permits)
    .where(
      and(eq(permits.kind, "safeguard bypass"), inArray(permits.state, ["live", "suspended", "run out", "work done"])),
    )
    .all()
    .map(({ number }) => number);
  const nameOf = namesOf(db);
  return permitsNow(db, numbers, now_ms).flatMap(({ now }) =>
    now.details.kind === "safeguard bypass" && lastOf(now.log, "safeguard back") === undefined
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
