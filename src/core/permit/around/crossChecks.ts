import type { How } from "../../request/jobFile";
import type { PersonId } from "../../people/roles";
import { gasEnergy_J, keepOut } from "../../energy/gasEnergy";
import { flameReach_m } from "../../fire/flameReach";
import type { PermitDetails } from "../kinds/details";

/** A permit as others see it: where it is, who is on it, what its isolation takes away. */
export type PermitInPlace = Readonly<{
  number: string;
  job: string;
  details: PermitDetails;
  isolations: readonly string[];
  faces: readonly Readonly<{
    tag: string;
    how: readonly How[];
    x_m: number;
    y_m: number;
    level_m: number;
    known: boolean;
  }>[];
  /** Signed on, on a post or inside. */
  people: readonly PersonId[];
  lifts: readonly Readonly<{ what: string; x_m: number; y_m: number }>[];
  /** Items that do not run, or devices that are locked, because of its isolations. */
  loses: readonly string[];
}>;

/** Two permits that touch: a person decides, and the decision is kept. */
export type PermitClash = Readonly<{
  /** The same for the same pair and reason, whichever of the two asks. */
  id: string;
  kind:
    | "same isolation"
    | "same place"
    | "same person"
    | "flame and open end"
    | "flame and purge exhaust"
    | "lift over people"
    | "ventilation switched off"
    | "inside the keep-out distance";
  with: string;
  words: string;
}>;

/** People stay this far from under a lift. Common practice, no source. */
export const LIFT_CLEAR_m = 6;
/** Gas energy of a pressure test counts from this pressure outside, absolute. */
const AMBIENT_Pa = 101_000;

/** How far people keep from a pressure test; 0 for water, whose little energy the guards hold. */
export function keepOutOf(details: PermitDetails): Readonly<{ distance_m: number; energy_J: number; split: boolean }> {
  if (details.kind !== "pressure test" || details.medium === "water")
    return { distance_m: 0, energy_J: 0, split: false };
  const { volume_m3, gamma } = details;
  const energy_J = gasEnergy_J({
    pressure_Pa: details.pressure_Pa + AMBIENT_Pa,
    volume_m3,
    gamma,
    ambient_Pa: AMBIENT_Pa,
  });
  const { distance_m, split } = keepOut(energy_J);
  return { distance_m, energy_J, split };
}

/**
 * Where a permit touches others: by the isolation, the place, the people, flame against what is opened or blown out, lifts,
 * ventilation, and pressure tests. A face whose place nobody wrote down is taken to be near.
 *
 * Cost: the faces of the permit times those of all others.
 */
export function crossChecks(one: PermitInPlace, others: readonly PermitInPlace[]): PermitClash[] {
  return others.filter(({ number }) => number !== one.number).flatMap((other) => between(one, other));
}

function between(one: PermitInPlace, other: PermitInPlace): PermitClash[] {
  const found: PermitClash[] = [];
  const pair = [one.number, other.number].sort().join(" ");
  const add = (kind: PermitClash["kind"], what: string, words: string) =>
    found.push({ id: `${kind}: ${pair}${what === "" ? "" : `: ${what}`}`, kind, with: other.number, words });

  const shared = one.isolations.filter((isolation) => other.isolations.includes(isolation));
  if (shared.length > 0 && one.job !== other.job) {
    add("same isolation", shared.join(" "), `Both stand on isolation ${shared.join(", ")}: neither ends it alone.`);
  }
  const places = one.faces.filter((face) => other.faces.some(({ tag }) => tag === face.tag)).map(({ tag }) => tag);
  if (places.length > 0 && one.job !== other.job) {
    const what = [...new Set(places)].sort().join(" ");
    add(
      "same place",
      what,
      `Both work at ${[...new Set(places)].join(", ")}: say who goes first, and who keeps clear.`,
    );
  }
  for (const person of one.people.filter((id) => other.people.includes(id))) {
    add("same person", person, "One person is on both at once, in two places.");
  }
  for (const [hot, cold] of [
    [one, other],
    [other, one],
  ] as const) {
    flame(hot, cold, add);
    pressureTest(hot, cold, add);
    lift(hot, cold, add);
    ventilation(hot, cold, add);
  }
  // The same reason found from both sides is one.
  return [...new Map(found.map((clash) => [clash.id, clash])).values()];
}

type Add = (kind: PermitClash["kind"], what: string, words: string) => void;
type Spot = Readonly<{ x_m: number; y_m: number }>;

function nearFaces(spot: Spot, other: PermitInPlace, reach_m: number) {
  return other.faces.filter((face) => !face.known || Math.hypot(face.x_m - spot.x_m, face.y_m - spot.y_m) <= reach_m);
}

/** Sparks get farther on floors below. */
function isWithinFlame(flameAt: Spot & Readonly<{ level_m: number }>, face: PermitInPlace["faces"][number]): boolean {
  const distance_m = Math.hypot(face.x_m - flameAt.x_m, face.y_m - flameAt.y_m);
  return !face.known || distance_m <= flameReach_m(flameAt.level_m - face.level_m);
}

function flame(hot: PermitInPlace, cold: PermitInPlace, add: Add): void {
  const { details } = hot;
  if (details.kind !== "hot work") return;
  const near = cold.faces.filter((face) => isWithinFlame(details, face));
  const opened = near.filter(({ how }) => cold.details.kind === "line break" || how.includes("open"));
  if (opened.length > 0 && cold.job !== hot.job) {
    const tags = opened.map(({ tag }) => tag);
    add(
      "flame and open end",
      tags.sort().join(" "),
      `${cold.number} opens ${tags.join(", ")} within reach of the flame.`,
    );
  }
  if (cold.details.kind === "confined space entry" && near.length > 0) {
    add(
      "flame and purge exhaust",
      cold.details.space,
      `${cold.number} blows out ${cold.details.space} within reach of the flame.`,
    );
  }
}

function pressureTest(test: PermitInPlace, other: PermitInPlace, add: Add): void {
  const { details } = test;
  if (details.kind !== "pressure test") return;
  const { distance_m } = keepOutOf(details);
  if (distance_m === 0) return;
  const near = nearFaces(details, other, distance_m);
  if (near.length > 0) {
    const tags = near.map(({ tag }) => tag).sort();
    add(
      "inside the keep-out distance",
      tags.join(" "),
      `${tags.join(", ")} of ${other.number} is within ${Math.ceil(distance_m)} m of the gas test.`,
    );
  }
}

function lift(lifting: PermitInPlace, under: PermitInPlace, add: Add): void {
  if (lifting.job === under.job) return;
  for (const load of lifting.lifts) {
    const near = nearFaces(load, under, LIFT_CLEAR_m);
    if (near.length > 0) add("lift over people", load.what, `${load.what} is lifted over or beside ${under.number}.`);
  }
}

function ventilation(breather: PermitInPlace, other: PermitInPlace, add: Add): void {
  const { details } = breather;
  if (details.kind !== "confined space entry" || details.ventilation === "" || breather.job === other.job) return;
  if (other.loses.includes(details.ventilation)) {
    add(
      "ventilation switched off",
      details.ventilation,
      `${other.number} takes ${details.ventilation} out of service, which blows air into ${details.space}.`,
    );
  }
}
