import { ITEMS, LINKS, importing, peopleTwoJobs } from "../twoJobs";
import type { TestSite } from "../testSite";

/**
 * Where the model of a whole day plays: three jobs on one crude line that share its valves; two motors behind one isolator,
 * of which one turns the pump of the first job; a tank behind one valve; a drum that no two valves can hold, so that its work
 * is done below the rules or not at all.
 */
export const DAY_ITEMS = `${ITEMS}SD,header,solvent,20,300000,flammable,,,fluid,,,,,,
VD,valve,,,,,,,,fluid,yes,yes,4,passing,
D,drum,solvent,20,300000,flammable,,,,,,,,,
BL-D,bleed,,,,,,,,,,,,,safe gauge
M2,motor,,,,,400,3-phase,,,,,,,
`;
export const DAY_LINKS = `${LINKS}SD,VD,fluid,2026-09-01
VD,D,fluid,2026-09-01
D,BL-D,fluid,2026-09-01
Q,M2,power,2026-09-01
`;

/** Registers that may come while people work: nothing near, a second line that nobody had drawn, and the first again. */
export const REGISTERS: readonly Readonly<{ items: string; links: string }>[] = [
  { items: `${DAY_ITEMS}T9,tank,water,20,200000,,,,,,,,,,\n`, links: DAY_LINKS },
  {
    items: `${DAY_ITEMS}S2,header,solvent,20,300000,flammable,,,fluid,,,,,,\n`,
    links: `${DAY_LINKS}S2,C,fluid,2026-10-01\n`,
  },
  { items: DAY_ITEMS, links: DAY_LINKS },
];

export type Slot = Readonly<{ place: string; how: string; holder: string; below?: string; rules?: string }>;
/** What is worked on, again and again, and by whose party; two by rules under which a permit may go on past its first end. */
export const SLOTS: readonly Slot[] = [
  { place: "P", how: "open", holder: "hal" },
  { place: "C", how: "open", holder: "hob", rules: "us-style" },
  { place: "B", how: "open", holder: "hedy" },
  { place: "M2", how: "touch", holder: "hal" },
  { place: "T", how: "open", holder: "hob", rules: "uk-style" },
  { place: "D", how: "open", holder: "hedy", below: "SD fluid D" },
];
export const HOLDERS = ["hal", "hob", "hedy"] as const;
export const WORKERS = ["hal", "hob", "hedy", "wim", "will", "wanda", "wolf"] as const;
export const COORDINATORS = ["cora", "colin"] as const;
export const ISSUERS = ["isa", "ida"] as const;
export const ISOLATORS = ["ivo", "ines", "vera"] as const;

/** Eighteen people, the plant, the gear. */
export async function openDay(site: TestSite): Promise<void> {
  await peopleTwoJobs(site);
  await site.add(
    { signIn: "ida", roles: ["issuer"] },
    { signIn: "hedy", roles: ["holder", "worker"] },
    { signIn: "wolf", roles: ["worker"] },
    { signIn: "orla", roles: ["operator"] },
    { signIn: "wenke", roles: ["operator"] },
  );
  await importing(site, DAY_ITEMS, DAY_LINKS);
  await site.stockGear("cora");
}
