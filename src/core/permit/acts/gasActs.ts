import { sampleWait_s } from "../../atmosphere/sampleWait";
import { readByName, sensorRefusal } from "../../atmosphere/substances";
import { accept, refuse } from "../../refusal/result";
import { airState, purgeState, readingFaults, sampleAt } from "../air/airTests";
import { purgeNeed_s } from "../requirements/entry";
import { inside } from "../people/entries";
import { kindRule } from "../kinds/kinds";
import { withEntries } from "../record/permitLog";
import { stopped } from "./stopped";
import type { CommandOf, PermitFacts, PermitLife } from "../record/permitTypes";
import { entriesOf, lastOf } from "../record/permitLog";

/** Air, point by point: drawn, waited for, read; pockets blown out; the space purged. */
export const gasActs = {
  "begin sample": (permit: PermitLife, command: CommandOf<"begin sample">, facts: PermitFacts) => {
    const { details } = permit;
    if (details.kind !== "hot work" && details.kind !== "confined space entry") return noAir(permit);
    const fault = facts.gearFault("gas instrument", command.instrument);
    if (fault) return refuse(fault);
    const first = outOfOrder(permit, command.point, facts, command.at_ms);
    if (first) return first;
    const oxygen = lastOf(permit.log, "air")?.reading.oxygen ?? AIR_OXYGEN;
    for (const gas of details.gases) {
      const blind = sensorRefusal({ sensor: command.sensor, gas, oxygen, silicones: false });
      if (blind !== null) return refuse({ code: "sensor blind", why: blind });
    }
    const wait_s = sampleWait_s(details);
    const { point, instrument, sensor } = command;
    return accept(withEntries(permit, command, { type: "sample begun", point, instrument, sensor, wait_s }));
  },

  read: (permit: PermitLife, command: CommandOf<"read">, facts: PermitFacts) => {
    const { details } = permit;
    if (details.kind !== "hot work" && details.kind !== "confined space entry") return noAir(permit);
    const sample = sampleAt(permit.log, command.point);
    if (sample === null) return refuse({ code: "no sample", point: command.point });
    if (command.at_ms < sample.ready_ms) {
      const wait_s = Math.ceil((sample.ready_ms - command.at_ms) / 1000);
      return refuse({ code: "read too early", point: command.point, wait_s });
    }
    const { oxygen, flammable, toxics } = command.reading;
    if (oxygen === null && (flammable !== null || toxics.length > 0)) {
      return refuse({ code: "gas order", point: command.point, first: "oxygen" });
    }
    if (flammable === null && toxics.some(({ fraction }) => fraction !== null)) {
      return refuse({ code: "gas order", point: command.point, first: "what burns" });
    }
    const blind = details.gases.flatMap(
      (gas) =>
        sensorRefusal({ sensor: sensorOf(permit, command.point), gas, oxygen: oxygen ?? 0, silicones: false }) ?? [],
    );
    const against = [...readingFaults(command.reading, facts.airLimits, readByName(details.gases)), ...new Set(blind)];
    const { point, reading } = command;
    const read = withEntries(permit, command, { type: "air", point, instrument: sample.instrument, reading, against });
    if (against.length === 0 || permit.state !== "live") return accept(read);
    // Nobody works on in air that was just read to be bad, whoever else still has to be told.
    return accept(stopped(read, command.at_ms, command.by, "gas", `${point}: ${against.join(", ")}`));
  },

  flush: (permit: PermitLife, command: CommandOf<"flush">, facts: PermitFacts) => {
    const bad = airState(facts, permit.log, {
      every_min: facts.profile.airRetest_min,
      now_ms: command.at_ms,
      entry: true,
    }).points.find(({ point }) => point === command.point)?.last;
    if (!bad || bad.against.length === 0) return refuse({ code: "no pocket", point: command.point });
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
    const need_s = purgeNeed_s(details);
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
};

const AIR_OXYGEN = 0.209;
/** A pocket is blown at for a minute or two. Common practice, no source. */
const FLUSH_LEAST_s = 60;

function noAir(permit: PermitLife) {
  return refuse({ code: "not of this kind", permit: permit.number, kind: permit.details.kind });
}

function sensorOf(permit: PermitLife, point: string) {
  const begun = entriesOf(permit.log, "sample begun").filter((entry) => entry.point === point);
  return begun.at(-1)?.sensor ?? "catalytic";
}

/** In a space the points are read from the opening inwards: nobody leans over what was not read yet. */
function outOfOrder(permit: PermitLife, point: string, facts: PermitFacts, now_ms: number) {
  const at = facts.testPoints.indexOf(point);
  if (at < 0) return refuse({ code: "unknown", what: "test point", name: point });
  if (!kindRule(permit.details.kind).entryLog) return null;
  const air = airState(facts, permit.log, {
    every_min: facts.profile.airRetest_min,
    now_ms,
    entry: true,
  });
  const first = air.points.slice(0, at).find(({ wants }) => wants !== null);
  return first ? refuse({ code: "point order", point, first: first.point, why: first.wants! }) : null;
}
