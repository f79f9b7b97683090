import type { How } from "../request/jobFile";
import type { Carrier } from "../plant/carriers";
import type { Area, Item } from "../plant/plant";
import { holdsSomething } from "../permit/around/hotWorkZone";
import type { Tier } from "../trace/tiers";
import { cited, type Topic } from "../requirement/cited";
import type { RuleProfile } from "../requirement/profile";
import { isWorkAtHeight } from "./fallHeight";
import type { Conditions, Hazard, Owner } from "./jobHazards";

/** What the job is, as far as the register and the plan know it. */
export type HazardFacts = Readonly<{
  faces: readonly Readonly<{ place: string; how: readonly How[]; item: Item | null; area: Area | null }>[];
  /** Energies that reach the faces, as they arrive, and those stored there. */
  arriving: readonly Readonly<{ source: string; carrier: Carrier; face: string; tier: Tier }>[];
  stored: readonly Readonly<{ source: string; carrier: Carrier; face: string; harmless: string }>[];
  profile: Pick<RuleProfile, "id" | "hotAbove_C" | "fallAbove_m">;
  conditions: Conditions | null;
}>;

type Rule = Readonly<{
  id: string;
  hazard: string;
  controls: readonly string[];
  owner: Owner;
  /** What the profile cites for it, or practice. */
  source: Topic | typeof PRACTICE;
  /** Tags or words that it was found from; empty where it does not apply. */
  found: (facts: HazardFacts) => readonly string[];
}>;

const PRACTICE = "practice" as const;

const facesThat = (facts: HazardFacts, ...hows: How[]) =>
  facts.faces.filter(({ how }) => how.some((one) => hows.includes(one)));
const places = (faces: HazardFacts["faces"]) => faces.map(({ place }) => place);
/** What comes only by turning other machines or back over a shared board is no hazard of its own; see unlikelySources. */
const bringing = (facts: HazardFacts, ...carriers: Carrier[]) => [
  ...new Set(
    [...facts.arriving.filter(({ tier }) => tier < 3), ...facts.stored]
      .filter(({ carrier }) => carriers.includes(carrier))
      .map(({ source }) => source),
  ),
];
const holding = (facts: HazardFacts, test: (item: Item) => boolean) =>
  facts.faces.flatMap(({ place, item }) => (item !== null && test(item) ? [place] : []));
const hasHazard = (hazard: string) => (item: Item) =>
  item.contents?.hazards.includes(hazard as never) ?? holdsSomething(item);
const tool = (facts: HazardFacts, pattern: RegExp) =>
  (facts.conditions?.tools ?? []).filter((one) => pattern.test(one));

/** Sources from which no hazard was made, because they could come only by turning other machines or over a shared board. */
export function unlikelySources({ arriving }: HazardFacts): string[] {
  const likely = new Set(arriving.filter(({ tier }) => tier < 3).map(({ source }) => source));
  return [...new Set(arriving.map(({ source }) => source))].filter((source) => !likely.has(source)).sort();
}

/** One row for each hazard that a job may have. Contents that nobody wrote down count as every one of them. */
const RULES: readonly Rule[] = [
  {
    id: "shock",
    hazard: "Electric shock or arc from conductors at the work",
    controls: ["Locked, tried and proved dead at the work", "Screens to what stays live", "Gloves in date"],
    owner: "holder",
    source: "energy control",
    found: (facts) =>
      facesThat(facts, "touch", "open", "enter").length > 0 ? bringing(facts, "power", "control") : [],
  },
  {
    id: "start",
    hazard: "Machinery that starts or turns",
    controls: ["Locked and tried from every place", "Restrained where weight or wind may turn it"],
    owner: "holder",
    source: "energy control",
    found: (facts) => bringing(facts, "shaft"),
  },
  {
    id: "fall of parts",
    hazard: "Raised or sprung parts that come down",
    controls: ["Lowered to rest, or pinned and propped", "Nobody below"],
    owner: "holder",
    source: "energy control",
    found: (facts) => bringing(facts, "gravity"),
  },
  {
    id: "pressure",
    hazard: "Liquid or gas under pressure where it is opened",
    controls: ["Bled, gauge at zero, no flow", "First flange as if full", "Face shield, stand aside"],
    owner: "holder",
    source: PRACTICE,
    found: (facts) =>
      facesThat(facts, "open", "enter").length > 0 ? bringing(facts, "fluid", "hydraulic", "pneumatic") : [],
  },
  {
    id: "fire",
    hazard: "What burns, at or in the work",
    controls: ["Emptied, blown out, air tested", "No flame or spark without a permit for hot work"],
    owner: "gas tester",
    source: PRACTICE,
    found: (facts) => holding(facts, hasHazard("flammable")),
  },
  {
    id: "poison",
    hazard: "What poisons, at or in the work",
    controls: ["Emptied and cleaned", "Air tested for it by name", "Breathing set at hand"],
    owner: "gas tester",
    source: PRACTICE,
    found: (facts) => holding(facts, hasHazard("toxic")),
  },
  {
    id: "burn by acid",
    hazard: "What eats skin and eyes",
    controls: ["Rinsed, pH looked at", "Suit, shield and gloves against it", "Eyewash tried before the start"],
    owner: "holder",
    source: PRACTICE,
    found: (facts) => holding(facts, hasHazard("corrosive")),
  },
  {
    id: "no air",
    hazard: "Air that does not keep anybody alive",
    controls: ["Shut off by blinds", "Blown out and tested at every point", "Attendant on post, rescue rehearsed"],
    owner: "attendant",
    source: "confined spaces",
    found: (facts) => places(facesThat(facts, "enter")),
  },
  {
    id: "engulfed",
    hazard: "Bulk or liquid that buries or drowns",
    controls: ["Emptied, feeds shut off", "Walls and ledges free of what may slide"],
    owner: "holder",
    source: "confined spaces",
    found: (facts) => (facesThat(facts, "enter").length > 0 ? bringing(facts, "bulk", "fluid") : []),
  },
  {
    id: "self-heating",
    hazard: "Residue that heats itself and lights",
    controls: ["Kept wet or under nitrogen", "Temperature watched to the end"],
    owner: "fire watch",
    source: PRACTICE,
    found: (facts) => holding(facts, (item) => item.contents?.hazards.includes("self-heating") ?? false),
  },
  {
    id: "sparks",
    hazard: "Sparks and heat that light what is near",
    controls: ["Zone of 11 m cleared or covered", "Fire watch to the end and after", "Extinguisher at hand"],
    owner: "fire watch",
    source: "hot work",
    found: (facts) => [
      ...places(facesThat(facts, "hot")),
      ...tool(facts, /weld|grind|cut|torch|flame|solder|hot air/i),
    ],
  },
  {
    id: "heat",
    hazard: "Surfaces and contents that burn",
    controls: ["Cooled and measured before anybody touches", "Gloves and sleeves"],
    owner: "holder",
    source: PRACTICE,
    found: (facts) => [
      ...bringing(facts, "heat"),
      ...holding(facts, ({ contents }) => (contents?.temperature_C ?? -Infinity) > facts.profile.hotAbove_C),
    ],
  },
  {
    id: "radiation",
    hazard: "Radiation from a source in a gauge",
    controls: ["Shutter shut and locked", "Measured with a survey meter before anybody is near"],
    owner: "coordinator",
    source: PRACTICE,
    found: (facts) => bringing(facts, "radiation"),
  },
  {
    id: "height",
    hazard: "Falls, and things that fall on people below",
    controls: ["Rails, nets or harness", "Drop zone barred, tools tied", "Fetched within minutes"],
    owner: "holder",
    source: "work at height",
    found: (facts) => [
      ...facts.faces.flatMap(({ place, item, area }) =>
        item?.level_m !== undefined &&
        area !== null &&
        isWorkAtHeight(item.level_m - area.level_m, facts.profile.fallAbove_m)
          ? [place]
          : [],
      ),
      ...tool(facts, /ladder|scaffold|rope|platform/i),
    ],
  },
  {
    id: "lift",
    hazard: "Loads: strain by hand, and loads over people",
    controls: ["Two people above 23 kg each", "Slings looked at, nobody under the load"],
    owner: "holder",
    source: PRACTICE,
    found: (facts) => (facts.conditions?.lifts ?? []).map(({ what }) => what),
  },
  {
    id: "weather",
    hazard: "Weather that makes this work unsafe",
    controls: ["No lift or height above the wind limit", "Down at thunder", "Ways and ladders free of ice"],
    owner: "holder",
    source: PRACTICE,
    found: ({ conditions }) =>
      conditions === null
        ? []
        : [
            ...((conditions.wind_m_s ?? 0) > WIND_MOST_m_s ? [`wind ${conditions.wind_m_s} m/s`] : []),
            ...(conditions.thunder ? ["thunder"] : []),
            ...(conditions.ice ? ["ice"] : []),
          ],
  },
  {
    id: "stored",
    hazard: "Energy that is still in it after everything is locked",
    controls: ["Made harmless as the walk says, and proved", "Watched where it comes back"],
    owner: "holder",
    source: "energy control",
    found: (facts) => [...new Set(facts.stored.map(({ source }) => source))],
  },
];

/** Above this nobody lifts or works at height. Common practice, no source. */
const WIND_MOST_m_s = 10;

/** The hazards that this job may have, with controls and owners, in the order of the table. */
export function proposeHazards(facts: HazardFacts): Hazard[] {
  return RULES.flatMap(({ id, hazard, controls, owner, source, found }) => {
    const because = [...new Set(found(facts))];
    const law = source === PRACTICE ? PRACTICE : cited(facts.profile, source);
    return because.length === 0 ? [] : [{ id, hazard, controls, owner, source: law, because: listed(because) }];
  });
}

/** The first few, and how many more there are. */
function listed(words: readonly string[]): string {
  const more = words.length - NAMED_MOST;
  return more > 1 ? `${words.slice(0, NAMED_MOST).join(", ")} and ${more} more` : words.join(", ");
}
const NAMED_MOST = 6;

/** Where to run to and with what, from the area's data; what nobody wrote down is asked for. */
export function nearestHelp(area: Area | null): readonly Readonly<{ what: string; where: string | null }>[] {
  const exits = area?.exits ?? [];
  return [
    { what: "Extinguisher", where: area?.extinguisher ?? null },
    // One way out may be cut off: one alone is not enough.
    { what: "Two ways out", where: exits.length >= 2 ? exits.slice(0, 2).join("; ") : null },
    { what: "Phone", where: area?.phone ?? null },
    { what: "Alarm", where: area?.alarm ?? null },
    { what: "Eyewash", where: area?.eyewash ?? null },
  ];
}
