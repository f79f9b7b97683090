import type { NotHeld } from "../../core/refusal/notHeld";
import { dueOfPermit, inOrder, type DueItem } from "../../core/board/dueList";
import type { ConflictRow, DueRow } from "../../core/board/rows";
import type { SharedPoint } from "../../core/conflict/search";
import type { SiteTracks } from "../../core/board/tracks";
import type { Area } from "../../core/plant/plant";
import { database, type Db } from "../db/database";
import { writesOn } from "../db/statements";
import { openJobs, type OpenJob } from "../job/openJobs";
import { namesOf, type Person } from "../people/signIn";
import { openPermits } from "../permit/openPermits";
import { currentPlant } from "../plant/plantStore";
import { conflictRow } from "./conflictRow";
import { conflictsNow } from "./conflicts";
import { siteTracks } from "./siteTracks";
import { spotOfWork, spotsOf } from "../plant/spots";

const HOUR_MS = 3_600_000;
/** What the board shows about the moment that is looked at. */
const BEFORE_MS = 12 * HOUR_MS;
const AFTER_MS = 24 * HOUR_MS;
/** What falls due later is not listed yet. */
const DUE_WITHIN_MS = 8 * HOUR_MS;
/** Jobs that begin later are on the list of jobs, not among what is due. */
const PLANNED_WITHIN_MS = 24 * HOUR_MS;
const DUE_MOST = 200;
const LISTED_MOST = 200;

export type BoardPage = Readonly<{
  window: Readonly<{ from_ms: number; to_ms: number }>;
  areas: readonly Area[];
  tracks: SiteTracks;
  due: readonly DueRow[];
  conflicts: readonly ConflictRow[];
  openJobs: number;
  /** Open jobs whose points nobody has approved: what they will stop is not known. */
  unplanned: number;
  shared: readonly SharedPoint[];
  hasPlant: boolean;
  alarms: readonly Readonly<{ number: string; why: NotHeld }>[];
}>;

/** What is the same for whoever looks. */
type Site = Readonly<{
  window: BoardPage["window"];
  views: readonly OpenJob[];
  tracks: SiteTracks;
  conflicts: ReturnType<typeof conflictsNow>;
}>;
type Kept = Readonly<{ site: Site; at_ms: number; middle: string; writes: number }>;

/** Kept with the connection, as the look at the permits is: pages are bundled apart. */
const KEPT = Symbol.for("heavy-lantern.site-picture");
/** A picture this old is as good as one of now. Whatever changes makes a new one. */
const GOOD_FOR_MS = 1000;

/** One look at the site for all who look at the same moment within a second, while nothing changes. */
function siteAbout(db: Db, middle_ms: number, now_ms: number): Site {
  const kept = (db.$client as Db["$client"] & { [KEPT]?: Kept })[KEPT];
  const middle = middle_ms === now_ms ? "now" : String(middle_ms);
  const writes = writesOn(db.$client);
  const age_ms = now_ms - (kept?.at_ms ?? -Infinity);
  if (kept?.writes === writes && kept.middle === middle && age_ms >= 0 && age_ms < GOOD_FOR_MS) return kept.site;
  const window = { from_ms: middle_ms - BEFORE_MS, to_ms: middle_ms + AFTER_MS };
  const views = openJobs(db, now_ms);
  const underWay = new Set(views.filter((view) => view.isUnderWay).map(({ number }) => number));
  const site: Site = {
    window,
    views,
    tracks: siteTracks(window, now_ms, db, underWay),
    conflicts: conflictsNow(db, now_ms),
  };
  (db.$client as Db["$client"] & { [KEPT]?: Kept })[KEPT] = { site, at_ms: now_ms, middle, writes };
  return site;
}

/**
 * The site about a moment, for one person: what is drawn, what is due, what would go wrong. `middle_ms` may be any moment; what
 * is due is always of now. Cost: a bounded number of queries; linear in what is open; little for the next who looks.
 */
export function boardPage(person: Person, middle_ms: number, now_ms: number): BoardPage {
  const db = database();
  const plant = currentPlant(db);
  const { window, views, tracks, conflicts: all } = siteAbout(db, middle_ms, now_ms);
  const nameOf = namesOf(db);
  const conflicts = all.found.slice(0, LISTED_MOST).map((one) => conflictRow(one, nameOf, person.units));
  return {
    window,
    areas: plant?.plant.areas ?? [],
    tracks,
    due: dueRows(person, views, conflicts, nameOf, now_ms),
    conflicts,
    openJobs: views.length,
    unplanned: all.unplanned,
    shared: all.shared.slice(0, LISTED_MOST),
    hasPlant: plant !== null,
    alarms: views.flatMap(({ number, planFault }): BoardPage["alarms"] =>
      planFault === null ? [] : [{ number, why: planFault }],
    ),
  };
}

function dueRows(
  person: Person,
  views: readonly OpenJob[],
  conflicts: readonly ConflictRow[],
  nameOf: (id: string) => string,
  now_ms: number,
): DueRow[] {
  const db = database();
  const plant = currentPlant(db);
  const spot = spotsOf(plant);
  const viewOf = new Map(views.map((view) => [view.number, view]));
  const rows: { item: DueItem; row: DueRow }[] = [];
  const add = (item: DueItem, more: Pick<DueRow, "href" | "area" | "words" | "title">) => {
    const { people, roles, ...rest } = item;
    rows.push({
      item,
      row: {
        ...rest,
        ...more,
        key: [item.what, item.about, item.at, item.due_ms ?? ""].join(" "),
        who: people.length > 0 ? [...new Set(people.map(nameOf))] : roles,
        isMine: people.includes(person.id),
        isOfMyCraft: people.includes(person.id) || roles.some((role) => person.roles.includes(role)),
      },
    });
  };
  for (const { now, facts, row, job } of openPermits(db, now_ms)) {
    const view = viewOf.get(job());
    const places = view?.places ?? [];
    const { area } = spotOfWork(plant, spot, now.details, places);
    const title = view?.title ?? row.words;
    for (const item of dueOfPermit({ permit: now, facts, now_ms }, DUE_WITHIN_MS)) {
      add(item, { href: `/permits/${now.number}`, area, words: "", title });
    }
  }
  for (const view of views) {
    const { next } = view;
    // Who is at work is on the picture, and what falls due under their permit is listed: nothing waits for anybody.
    // A permit that is stopped or has expired is listed by itself.
    if (next !== null && next.urgent && next.stage === "permits") continue;
    if (next !== null && !next.urgent && view.permits.some(({ state }) => state === "live")) continue;
    if (next === null || (!view.hasIsolation && view.windowFrom_ms > now_ms + PLANNED_WITHIN_MS)) continue;
    add(
      {
        what: "next act",
        mark: !view.hasIsolation ? "plan" : next.stage === "permits" ? "permit" : "isolation",
        about: view.number,
        at: "",
        due_ms: !view.hasIsolation ? view.windowFrom_ms : view.windowTo_ms,
        isOverdue: next.urgent,
        inside: 0,
        roles: next.who,
        people: [],
      },
      {
        href: `/jobs/${view.number}/${next.stage}`,
        area: spot(view.places[0] ?? "").area,
        words: next.words,
        title: view.title,
      },
    );
  }
  for (const conflict of conflicts) {
    if (conflict.decided !== null || conflict.isOfHands || conflict.from_ms > now_ms + PLANNED_WITHIN_MS) continue;
    const view = viewOf.get(conflict.of);
    add(
      {
        what: "conflict",
        mark: "conflict",
        about: conflict.of,
        at: conflict.id,
        due_ms: Math.max(conflict.from_ms, now_ms),
        isOverdue: conflict.from_ms <= now_ms,
        inside: 0,
        roles: ["coordinator", "issuer"],
        people: [],
      },
      { href: "#conflicts", area: spot(view?.places[0] ?? "").area, words: conflict.words, title: "" },
    );
  }
  const rowOf = new Map(rows.map(({ item, row }) => [item, row]));
  return inOrder(rows.map(({ item }) => item))
    .slice(0, DUE_MOST)
    .map((item) => rowOf.get(item)!);
}
