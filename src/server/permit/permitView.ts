import type { PersonId } from "../../core/people/roles";
import { eq } from "drizzle-orm";
import { sampleWait_s } from "../../core/atmosphere/sampleWait";
import type { GasSheet } from "../../core/gear/gasSheet";
import { gearFault } from "../../core/gear/gear";
import {
  airState,
  instrumentsNeeded,
  isVentilated,
  namesOf,
  purgeState,
  sampleAt,
  unexplained,
  withoutCause,
} from "../../core/permit/air/airTests";
import { afterWatchOf } from "../../core/permit/afterwatch/afterWatchOf";
import { authorisedApart } from "../../core/rounds/authorisedApart";
import { extensionLimit } from "../../core/permit/life/extension";
import { approvalReasons, revalidationDue } from "../../core/permit/requirements/every";
import { purgeNeed_s } from "../../core/permit/requirements/entry";
import { watchersNeeded } from "../../core/permit/requirements/hotWork";
import { decisionOn } from "../../core/permit/requirements/clashDecisions";
import { dueUnder } from "../../core/permit/life/due";
import { inside, staysOf, talkDue_ms } from "../../core/permit/people/entries";
import { kindRule } from "../../core/permit/kinds/kinds";
import { logWords } from "../../core/permit/record/logWords";
import { mayAct } from "../../core/permit/life/permitLife";
import { isInspected } from "../../core/permit/record/clockSet";
import { copiesOf, entriesOf, lastOf, putInOf, signedBy } from "../../core/permit/record/permitLog";
import type { PermitAct, PermitLife } from "../../core/permit/record/permitTypes";
import { onPost, watchesOf } from "../../core/permit/people/posts";
import { asksOf } from "../../core/permit/requirements/requirements";
import { database, type Db } from "../db/database";
import { permits } from "../db/schema";
import type { Person } from "../people/signIn";
import { siteTime } from "../runtime/siteTime";
import { decoysFor } from "./decoys";
import { placesFor } from "./detectorActs";
import { detectorRows, sentOf } from "./detectorStore";
import { gasInstruments } from "../gear/gearStore";
import { permitNow } from "./permitFacts";
import { currentPlant } from "../plant/plantStore";
import { openPermits } from "./openPermits";
import { jobView } from "../job/jobView";

const waitOf = (sheet: GasSheet | null) => (sheet === null ? 0 : sampleWait_s(sheet));

export type PermitView = NonNullable<ReturnType<typeof permitView>>;

/** One permit with its job and its people, as it stands at this moment; null when there is no such permit. */
export function permitView(number: string, now_ms: number) {
  const db = database();
  const permit = openPermits(db, now_ms).find((one) => one.row.number === number) ?? permitNow(db, number, now_ms);
  if (permit === null) return null;
  const { row, facts, now: life } = permit;
  const view = jobView(permit.job(), now_ms);
  if (view === null) return null;
  const nameOf = facts.nameOf as (id: string) => string;
  const context = { permit: life, facts, now_ms };
  const { details, log } = life;
  const rule = kindRule(details.kind);
  const isEntry = rule.entryLog;
  const every_min = facts.profile.airRetest_min;
  // How long a point takes, by the slowest instrument that anybody may take.
  const [anySheet = null] = gasInstruments(db)
    .flatMap(({ sheet, withdrawn }) => (sheet === null || withdrawn ? [] : [sheet]))
    .sort((a, b) => waitOf(b) - waitOf(a));
  const named = <T extends Readonly<{ person: string }>>(one: T) => ({ ...one, name: nameOf(one.person) });
  const next = db.select({ number: permits.number }).from(permits).where(eq(permits.previous, number)).all();
  const sent = new Map(detectorRows(db).map((one) => [one.id, sentOf(one)]));
  return {
    life,
    nameOf: (id: string | null) => (id === null ? "the clock" : nameOf(id)),
    number: life.number,
    kind: details.kind,
    kindWords: rule.words,
    details,
    state: life.state,
    runOut: life.state === "run out",
    previous: row.previous,
    next: next.map((one) => one.number),
    words: row.words,
    hazards: row.hazards,
    precautions: row.precautions,
    validFrom_ms: life.validFrom_ms,
    validTo_ms: life.validTo_ms,
    holder: nameOf(life.holder),
    holderId: life.holder as string,
    issuer: life.issuer ? nameOf(life.issuer) : null,
    closedBy: life.closedBy ? nameOf(life.closedBy) : null,
    plantRevision: row.plantRevision,
    ruleProfile: row.ruleProfile,
    engineVersion: row.engineVersion,
    signOns: life.signOns.map((signOn) => ({
      ...signOn,
      name: nameOf(signOn.person),
      personId: signOn.person as string,
    })),
    pointsToLock: facts.pointsToLock,
    minor: facts.minor,
    /** A permit of other work where this person is on now. */
    atOtherWork: (id: string) => facts.atOtherWork(id as PersonId),
    places: facts.places,
    decoys: decoysFor(currentPlant(db), facts.places),
    stale: facts.stale,
    asks: asksOf(context),
    approval: approvalReasons(context),
    /** Why the desk authorises it apart from its issue on the spot; null where one signature there may be both. */
    authorisedApart: life.state === "checked" ? authorisedApart(context) : null,
    isApproved: signedBy(log, "approve") !== undefined,
    isInspected: isInspected(log),
    sentBack: sentBackOf(life, nameOf),
    stop: life.state === "suspended" ? (lastOf(log, "stopped", "break begun", "break ended") ?? null) : null,
    clashes: facts.clashes.map((clash) => ({
      ...clash,
      decided: decisionOn(clash, [...log, ...facts.decidedElsewhere]) ?? null,
    })),
    zone: facts.zone,
    air: rule.air
      ? {
          state: airState(facts, log, { every_min, now_ms, entry: isEntry }),
          samples: [...(facts.coverPoint === null ? [] : [facts.coverPoint]), ...facts.testPoints].flatMap((point) => {
            const sample = sampleAt(log, point);
            return sample === null ? [] : [{ point, ...sample }];
          }),
          gases: namesOf(facts),
          asked: facts.gases.map((one) => ({
            ...one,
            replaced: entriesOf(log, "reading replaced").some(({ gas }) => gas === one.gas),
          })),
          cover: facts.coverPoint,
          coverRead: entriesOf(log, "air").some(({ point }) => point === facts.coverPoint),
          insidePoints: facts.insidePoints,
          needed: instrumentsNeeded(facts.testPoints.length, anySheet, waitOf(anySheet), every_min),
          unexplained: unexplained(facts, log, isEntry),
          withoutCause: withoutCause(log),
          limits: facts.airLimits,
          instruments: gasInstruments(db).map((one) => ({
            number: one.number,
            fault:
              one.sheet === null
                ? "sheet missing"
                : (gearFault(one, { ...one, at_ms: now_ms, job: view.number, toRead: true })?.code ?? null),
          })),
          every_min,
        }
      : null,
    purge:
      details.kind === "confined space entry"
        ? {
            need_s: purgeNeed_s(details, facts.gases),
            ...purgeState(log),
            ventilated: isVentilated(log),
          }
        : null,
    isAnyoneInside: inside(log).length > 0,
    post: rule.post,
    posted: onPost(log).map(named),
    watches: watchesOf(log).map(named),
    watchersNeeded: details.kind === "hot work" ? watchersNeeded(details) : 1,
    entry: isEntry
      ? {
          inside: inside(log).map(named),
          stays: staysOf(log).map(named),
          most: details.kind === "confined space entry" ? details.most : 0,
          talkDue_ms: details.kind === "confined space entry" ? talkDue_ms(log, details.talk_min) : null,
        }
      : null,
    afterWatch: afterWatchOf(life, facts, now_ms),
    copies: copiesOf(log),
    putIn: putInOf(log),
    detectors: facts.detectors.map((detector) => ({
      ...detector,
      sent: sent.get(detector.id) ?? null,
    })),
    detectorPlaces: placesFor(details),
    freeDetectors: rule.air || details.kind === "pressure test" ? freeDetectors(db) : [],
    due: dueUnder(context),
    revalidation: revalidationDue(context),
    /** The latest end that an extension may give, or why it may not be extended. */
    extension: extensionLimit(life, facts),
    story: log.map((entry) => ({
      at_ms: entry.at_ms,
      by: entry.by === null ? "" : nameOf(entry.by),
      type: entry.type,
      words: logWords(entry, nameOf, siteTime, rule.alone),
    })),
    inPlace: permit
      .others()
      .flatMap((one) => one.permit.faces.filter((face) => face.known).map((face) => ({ permit: one.number, ...face }))),
    job: view,
  };
}

/** May this person do this act now, by the table? What else is asked, the server says when they do it. */
export function mayDo(permit: PermitView, person: Person, type: PermitAct["type"]): boolean {
  const command = { type, by: person.id, roles: person.roles };
  return mayAct(permit.life, command, { nameOf: (id) => id, timeOf: siteTime }) === null;
}

/** Ids of the detectors in the store. */
function freeDetectors(db: Db): string[] {
  return detectorRows(db)
    .filter(({ permit }) => permit === null)
    .map(({ id }) => id);
}

/** Why a draft came back; null where it did not, or was changed since. */
function sentBackOf({ state, log }: PermitLife, nameOf: (id: string) => string) {
  const last = lastOf(log, "sent back", "changed");
  if (state !== "draft" || last?.type !== "sent back") return null;
  return { at_ms: last.at_ms, by: nameOf(last.by ?? ""), words: last.words };
}
