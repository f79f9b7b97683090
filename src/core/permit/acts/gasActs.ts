import { sampleWait_s } from "../../atmosphere/sampleWait";
import { accept, refuse, type Result } from "../../refusal/result";
import {
  airState,
  blindTo,
  causeOf,
  drawsAt,
  isVentilated,
  judgeReading,
  purgeState,
  sampleAt,
  shownBy,
} from "../air/airTests";
import { keeps } from "../air/airRules";
import { blowerFault } from "../air/blower";
import { MOST_BENDS, purgeNeed_s } from "../requirements/entry";
import { inside } from "../people/entries";
import { kindRule } from "../kinds/kinds";
import { sameNumber } from "../../gear/gear";
import { withEntries } from "../record/permitLog";
import { stopped } from "./stopped";
import type { GasSheet } from "../../gear/gasSheet";
import type { CommandOf, PermitFacts, PermitLife } from "../record/permitTypes";
import { entriesOf, lastOf } from "../record/permitLog";

/** Air, point by point: drawn, waited for, read; what was bad or odd accounted for; pockets blown out; the space purged. */
export const gasActs = {
  "begin sample": decideBeginSample,
  read: decideRead,

  "find cause": (permit: PermitLife, command: CommandOf<"find cause">) => {
    const { point, cause, words } = command;
    const bad = entriesOf(permit.log, "air").findLast((entry) => entry.point === point && entry.against.length > 0);
    if (bad === undefined || causeOf(permit.log, bad) !== undefined) return refuse({ code: "no bad reading", point });
    if (cause === "instrument fault") {
      const second = entriesOf(permit.log, "air").some(
        (entry) =>
          entry.point === point &&
          entry.at_ms > bad.at_ms &&
          entry.against.length === 0 &&
          !sameNumber(entry.instrument, bad.instrument),
      );
      if (!second) return refuse({ code: "second instrument needed", point });
    }
    if (cause === "not found" && !(command.roles as readonly string[]).includes("issuer"))
      return refuse({ code: "issuer decides", point });
    return accept(withEntries(permit, command, { type: "cause found", point, cause, words }));
  },

  explain: (permit: PermitLife, command: CommandOf<"explain">) => {
    const { point, cause, words } = command;
    const odd = entriesOf(permit.log, "air").findLast((entry) => entry.point === point);
    if ((odd?.explain ?? []).length === 0) return refuse({ code: "nothing odd", point });
    if (cause === "drift") {
      // A second instrument that shows the same is no drift; one that shows outside air is read last, and nothing is odd.
      return refuse({ code: "second instrument needed", point });
    }
    return accept(withEntries(permit, command, { type: "explained", point, cause, words }));
  },

  "replace reading": (permit: PermitLife, command: CommandOf<"replace reading">, facts: PermitFacts) => {
    const { gas, words } = command;
    const asked = facts.gases.find((one) => one.gas === gas && !one.seen);
    if (asked === undefined) return refuse({ code: "unknown", what: "gas that no instrument here sees", name: gas });
    if (command.by === permit.holder) return refuse({ code: "one's own permit" });
    return accept(withEntries(permit, command, { type: "reading replaced", gas, words }));
  },

  flush: (permit: PermitLife, command: CommandOf<"flush">, facts: PermitFacts) => {
    const bad = entriesOf(permit.log, "air").findLast(({ point }) => point === command.point);
    if (!bad || bad.against.length === 0) return refuse({ code: "no pocket", point: command.point });
    const within = inside(permit.log).map(({ person }) => facts.nameOf(person));
    if (within.length > 0) return refuse({ code: "still inside", people: within });
    if (command.held_s < FLUSH_LEAST_s) {
      return refuse({ code: "flush too short", held_s: command.held_s, least_s: FLUSH_LEAST_s });
    }
    return accept(withEntries(permit, command, { type: "flushed", point: command.point, held_s: command.held_s }));
  },

  "begin purge": (permit: PermitLife, command: CommandOf<"begin purge">, facts: PermitFacts) => {
    const { details } = permit;
    if (details.kind !== "confined space entry") return noAir(permit);
    const within = inside(permit.log).map(({ person }) => facts.nameOf(person));
    if (within.length > 0) return refuse({ code: "still inside", people: within });
    if (keeps("bends") && details.bends > MOST_BENDS.purge) {
      return refuse({ code: "too many bends", bends: details.bends, most: MOST_BENDS.purge, to: "blow it out" });
    }
    const fault = keeps("blower heard") ? blowerFault(facts) : null;
    if (fault !== null) return refuse({ code: "blower stands", why: fault });
    const need_s = purgeNeed_s(details, facts.gases);
    if (need_s === null) return refuse({ code: "purge never ends", space: details.space });
    return accept(withEntries(permit, command, { type: "purge begun", need_s }));
  },

  "end purge": (permit: PermitLife, command: CommandOf<"end purge">) => {
    const { running, ready_ms } = purgeState(permit.log);
    if (!running) return refuse({ code: "no purge", permit: permit.number });
    if (command.at_ms < ready_ms!) {
      return refuse({ code: "purge too short", wait_s: Math.ceil((ready_ms! - command.at_ms) / 1000) });
    }
    return accept(withEntries(permit, command, { type: "purge ended" }));
  },

  "begin ventilation": (permit: PermitLife, command: CommandOf<"begin ventilation">, facts: PermitFacts) => {
    const { details } = permit;
    if (details.kind !== "confined space entry") return noAir(permit);
    if (isVentilated(permit.log)) return refuse({ code: "already done", what: "Ventilating" });
    if (purgeState(permit.log).running) return refuse({ code: "purging", permit: permit.number });
    const fault = keeps("blower heard") ? blowerFault(facts) : null;
    if (fault !== null) return refuse({ code: "blower stands", why: fault });
    if (keeps("bends") && details.bends > MOST_BENDS.ventilate) {
      return refuse({ code: "too many bends", bends: details.bends, most: MOST_BENDS.ventilate, to: "ventilate" });
    }
    return accept(withEntries(permit, command, { type: "ventilation begun" }));
  },

  /** The blower stands: with anybody inside that is an evacuation, and no choice. */
  "end ventilation": (permit: PermitLife, command: CommandOf<"end ventilation">) => {
    if (!isVentilated(permit.log)) return refuse({ code: "not ventilated", permit: permit.number });
    const ended = withEntries(permit, command, { type: "ventilation ended" });
    if (inside(permit.log).length === 0 || permit.state !== "live") return accept(ended);
    return accept(stopped(ended, command.at_ms, command.by, "ventilation", "the blower stands with people inside"));
  },
};

/** A sample is drawn at a point, by an instrument that can see what may be there. */
export function decideBeginSample(
  permit: PermitLife,
  command: CommandOf<"begin sample">,
  facts: PermitFacts,
): Result<PermitLife> {
  const { details } = permit;
  if (details.kind !== "hot work" && details.kind !== "confined space entry") return noAir(permit);
  const { point, instrument } = command;
  const fault = facts.gearFault("gas instrument", instrument);
  if (fault) return refuse(fault);
  const sheet = facts.gasSheet(instrument);
  if (sheet === null && keeps("sheet")) return refuse({ code: "sheet missing", number: instrument });
  const where = drawsAt(permit.log, instrument);
  if (keeps("one place") && where !== null && where !== point) {
    return refuse({ code: "instrument busy", number: instrument, where });
  }
  const elsewhere = facts.drawsElsewhere(instrument);
  if (keeps("one place") && elsewhere !== null) {
    return refuse({ code: "instrument busy", number: instrument, where: `permit ${elsewhere}` });
  }
  const first = outOfOrder(permit, point, facts, command.at_ms);
  if (first) return first;
  const oxygen = lastOf(permit.log, "air")?.reading.oxygen ?? AIR_OXYGEN;
  const known = sheet ?? UNKNOWN_SHEET;
  const [blind] = keeps("sees") ? blindTo(known, seenOf(facts), oxygen) : [];
  if (blind !== undefined) return refuse({ code: "sensor blind", why: blind });
  return accept(
    withEntries(permit, command, {
      type: "sample begun",
      point,
      instrument,
      sensor: known.burns ?? "catalytic",
      wait_s: sampleWait_s(known),
    }),
  );
}

/** What it showed, once it had come. */
export function decideRead(permit: PermitLife, command: CommandOf<"read">, facts: PermitFacts): Result<PermitLife> {
  const { details } = permit;
  if (details.kind !== "hot work" && details.kind !== "confined space entry") return noAir(permit);
  const { point, reading } = command;
  const sample = sampleAt(permit.log, point);
  if (sample === null) return refuse({ code: "no sample", point });
  if (command.at_ms < sample.ready_ms) {
    return refuse({ code: "read too early", point, wait_s: Math.ceil((sample.ready_ms - command.at_ms) / 1000) });
  }
  const { oxygen, flammable, toxics } = reading;
  if (oxygen === null && (flammable !== null || toxics.length > 0)) {
    return refuse({ code: "gas order", point, first: "oxygen" });
  }
  if (flammable === null && toxics.some(({ fraction }) => fraction !== null)) {
    return refuse({ code: "gas order", point, first: "what burns" });
  }
  const { instrument } = sample;
  const sheet = facts.gasSheet(instrument) ?? UNKNOWN_SHEET;
  const unread = toxics.filter(({ gas, fraction }) => fraction !== null && !sheet.reads.includes(gas));
  if (keeps("sees") && unread.length > 0) {
    return refuse({
      code: "sensor blind",
      why: `${instrument} does not read ${unread.map(({ gas }) => gas).join(", ")}`,
    });
  }
  const gases = seenOf(facts);
  const by = shownBy(sheet, isZeroed(facts, instrument, command.at_ms), permit.log, point, gases);
  const given = { ...reading, toxics: toxics.filter(({ fraction }) => fraction !== null) };
  const { against, explain } = judgeReading(given, facts.airLimits, sheet, by, gases);
  const read = withEntries(permit, command, {
    type: "air",
    point,
    instrument,
    reading: given,
    against,
    explain,
    drawn_ms: sample.begun_ms,
  });
  if (against.length === 0 || permit.state !== "live") return accept(read);
  // Nobody works on in air that was just read to be bad, whoever else still has to be told.
  return accept(stopped(read, command.at_ms, command.by, "gas", `${point}: ${against.join(", ")}`));
}

const AIR_OXYGEN = 0.209;
/** A pocket is blown at for a minute or two. Common practice, no source. */
const FLUSH_LEAST_s = 60;
/** Where nobody wrote the instrument down nothing is taken for seen, and the wait is none: only without its rule. */
const UNKNOWN_SHEET: GasSheet = {
  reads: [],
  burns: null,
  calibrated: null,
  error: { oxygen: 0, flammable: 0, toxic: 0 },
  zero: { flammable: null, toxic: null },
  hose_m: 0,
  bore_m: 0.004,
  pump_m3_s: 1e-5,
  t90_s: 30,
};

const seenOf = ({ gases }: PermitFacts) => gases.filter(({ seen }) => seen).map(({ gas }) => gas);

/** Zeroed in fresh air since this shift began. */
function isZeroed(facts: PermitFacts, instrument: string, now_ms: number): boolean {
  const zeroed_ms = facts.zeroedAt_ms(instrument);
  const shift_ms = facts.shiftChanges_ms(now_ms - DAY_MS, now_ms).at(-1) ?? now_ms - SHIFT_MS;
  return zeroed_ms !== null && zeroed_ms <= now_ms && zeroed_ms >= Math.min(shift_ms, now_ms);
}

const DAY_MS = 86_400_000;
/** Where the site has no shifts. */
const SHIFT_MS = 12 * 3_600_000;

function noAir(permit: PermitLife) {
  return refuse({ code: "not of this kind", permit: permit.number, kind: permit.details.kind });
}

/**
 * In a space the first test is through the closed cover; then the points are read from the opening inwards, for nobody
 * leans over what was not read yet; corners and ducts by somebody inside.
 */
function outOfOrder(permit: PermitLife, point: string, facts: PermitFacts, now_ms: number) {
  const { coverPoint, insidePoints } = facts;
  const isRead = (one: string) => entriesOf(permit.log, "air").some((entry) => entry.point === one);
  if (point === coverPoint) return null;
  const at = facts.testPoints.indexOf(point);
  if (at < 0) return refuse({ code: "unknown", what: "test point", name: point });
  if (!kindRule(permit.details.kind).entryLog) return null;
  if (coverPoint !== null && keeps("cover") && !isRead(coverPoint)) {
    return refuse({ code: "point order", point, first: coverPoint, why: "not read yet" });
  }
  if (insidePoints.includes(point)) {
    const isOneInside = inside(permit.log).length > 0 || !keeps("from inside");
    return isOneInside ? null : refuse({ code: "from inside", point });
  }
  const air = airState(facts, permit.log, { every_min: facts.profile.airRetest_min, now_ms, entry: true });
  const first = air.points
    .slice(0, at)
    .find(({ point: before, wants }) => wants !== null && !insidePoints.includes(before));
  return first ? refuse({ code: "point order", point, first: first.point, why: first.wants! }) : null;
}
