import { eachOnce, gasesOf, gasesOfWork, type GasAsked } from "../../core/atmosphere/gasesOf";
import { substance } from "../../core/atmosphere/substances";
import type { Gear } from "../../core/gear/gear";
import type { PermitDetails } from "../../core/permit/kinds/details";
import { entriesOf } from "../../core/permit/record/permitLog";
import type { PermitFacts } from "../../core/permit/record/permitTypes";
import { familyOf } from "../../core/requirement/grades";
import type { jobs } from "../db/schema";
import { tracedFor } from "../hazard/hazardStore";
import { itemAt, type CurrentPlant } from "../plant/plantStore";
import type { PermitSite } from "./permitSite";

/**
 * The gases that may be where a permit's work is: those it names, what the work locations and what flows to them hold or
 * give off, what stands beside them, and what the work makes; with whether any instrument of the site sees each.
 */
export function gasesAround(
  site: PermitSite,
  details: PermitDetails,
  job: typeof jobs.$inferSelect,
  plant: CurrentPlant | null,
): PermitFacts["gases"] {
  if (details.kind !== "hot work" && details.kind !== "confined space entry") return [];
  const named = details.gases.map((gas): GasAsked => ({ gas, why: "the permit names it" }));
  const made = details.kind === "hot work" ? gasesOfWork(details.works) : [];
  const held = plant === null ? [] : heldAround(details, job, plant);
  const instruments = site.gasInstruments().filter(({ withdrawn }) => !withdrawn);
  return eachOnce([...named, ...held, ...made]).map(({ gas, why }) => ({ gas, why, seen: isSeen(instruments, gas) }));
}

function heldAround(details: PermitDetails, job: typeof jobs.$inferSelect, plant: CurrentPlant): GasAsked[] {
  // In the open a flame meets the air of the place; in equipment, or in a space, what may come there.
  const isOutside = details.kind === "hot work" && !details.inEquipment;
  const { faces, arriving } = tracedFor(job.job, plant);
  const own = faces.flatMap(({ item }) => (item === null ? [] : [item]));
  const sources = isOutside
    ? []
    : arriving
        .filter(({ carrier, tier }) => familyOf(carrier) === "flow" && tier < 3)
        .flatMap(({ source }) => itemAt(plant, source) ?? []);
  return [...own, ...sources].flatMap(({ tag, contents }) => gasesOf(tag, contents));
}

function isSeen(instruments: readonly Gear[], gas: string): boolean {
  const known = substance(gas);
  return instruments.some(({ sheet }) => {
    if (sheet === null) return false;
    if (sheet.reads.includes(gas)) return true;
    // What only burns is seen as such; what poisons below that has to be read by name.
    const burnsOnly = known?.lfl !== undefined && known.toxic === undefined;
    const isAir = known !== undefined && known.lfl === undefined && known.toxic === undefined;
    if (isAir) return sheet.reads.includes("oxygen");
    return burnsOnly && sheet.burns !== null && !(sheet.burns === "infrared" && known.infraredBlind === true);
  });
}

/** Bad readings under other permits in the same space. */
export function badAirOf(site: PermitSite, number: string, details: PermitDetails): PermitFacts["badElsewhere"] {
  if (details.kind !== "confined space entry") return [];
  const same = (one: PermitDetails) =>
    one.kind === "confined space entry" && one.space.trim().toLowerCase() === details.space.trim().toLowerCase();
  return site
    .inPlace()
    .filter((one) => one.number !== number && same(one.permit.details))
    .flatMap((one) =>
      entriesOf(one.log, "air")
        .filter(({ against }) => against.length > 0)
        .map(({ at_ms, point }) => ({ at_ms, permit: one.number, point })),
    );
}
