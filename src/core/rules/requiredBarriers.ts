import type { How } from "../job/jobFile";
import type { Carrier } from "../plant/carriers";
import type { Contents } from "../plant/plant";

/** What a job asks of every way from a source to a face, and the row of the table that decided it. */
export type Requirement = Readonly<{
  barriers: number;
  grade: string;
  reason: string;
  source: string;
}>;

type Situation = Readonly<{
  how: ReadonlySet<How>;
  /** What the source supplies. */
  supplied: Carrier;
  /** As what it arrives. */
  carrier: Carrier;
  contents: readonly (Contents | undefined)[];
}>;
type Row = Readonly<{ when: (situation: Situation) => boolean } & Requirement>;

const FLOWING: ReadonlySet<Carrier> = new Set(["fluid", "bulk", "hydraulic", "pneumatic"]);
/** It comes as something that flows, and was that at its source: the contents themselves may arrive. */
const flows = ({ supplied, carrier }: Situation) => FLOWING.has(supplied) && FLOWING.has(carrier);
const WIRED: ReadonlySet<Carrier> = new Set(["power", "control"]);
const MOVING: ReadonlySet<Carrier> = new Set(["shaft", "gravity"]);
const OSHA_SPACES = "29 CFR 1910.146(b), quoted from memory";
const OSHA_LOCKOUT = "29 CFR 1910.147, quoted from memory";

/**
 * The conservative table of required barriers. Every row that fits applies and the strictest wins; where none fits, the
 * strictest of all. Where a row asks for positive isolation two barriers are counted: choosing blinds is not done here,
 * and the plan says so.
 */
const ROWS: readonly Row[] = [
  {
    // What is pushed is judged as the fluid's own source; here only the push comes.
    when: ({ supplied, carrier }) => FLOWING.has(carrier) && !FLOWING.has(supplied),
    barriers: 1,
    grade: "locked isolating device",
    reason: "a drive that could pump or push what stands in the line",
    source: "practice",
  },
  {
    when: (situation) => situation.how.has("enter") && flows(situation),
    barriers: 2,
    grade: "positive",
    reason: "a person enters",
    source: OSHA_SPACES,
  },
  {
    when: (situation) => situation.how.has("hot") && flows(situation) && situation.contents.some(mayBurnOrHarm),
    barriers: 2,
    grade: "positive",
    reason: "hot work on what has held, or may have held, harmful contents",
    source: "practice",
  },
  {
    when: (situation) => situation.how.has("hot") && flows(situation),
    barriers: 1,
    grade: "proved single",
    reason: "hot work on a line",
    source: "practice",
  },
  {
    when: (situation) => situation.how.has("open") && flows(situation) && situation.contents.some(isHarmful),
    barriers: 2,
    grade: "proved double",
    reason: "opening a line whose contents are harmful, hot, under pressure or not known",
    source: "practice",
  },
  {
    when: (situation) => (situation.how.has("open") || situation.how.has("touch")) && flows(situation),
    barriers: 1,
    grade: "proved single",
    reason: "opening or touching a line with harmless contents",
    source: "practice",
  },
  {
    when: ({ carrier }) => WIRED.has(carrier),
    barriers: 1,
    grade: "locked isolating device",
    reason: "conductors that may be touched, or that start a machine",
    source: OSHA_LOCKOUT,
  },
  {
    when: ({ carrier }) => MOVING.has(carrier),
    barriers: 1,
    grade: "restrained",
    reason: "parts that may move or fall",
    source: OSHA_LOCKOUT,
  },
  {
    when: ({ carrier }) => carrier === "heat",
    barriers: 1,
    grade: "isolated and cooled",
    reason: "hot parts",
    source: "practice",
  },
  {
    when: ({ carrier }) => carrier === "radiation",
    barriers: 1,
    grade: "shutter locked and surveyed",
    reason: "a radiation source",
    source: "practice",
  },
];

/** Where no row fits: the strictest of all. */
const STRICTEST: Requirement = {
  barriers: 2,
  grade: "positive",
  reason: "no row of the table fits, so the strictest applies",
  source: "practice",
};

export function requiredBarriers(situation: Situation): Requirement {
  let strictest: Row | undefined;
  for (const row of ROWS) {
    if (row.when(situation) && (strictest === undefined || row.barriers > strictest.barriers)) strictest = row;
  }
  if (strictest === undefined) return STRICTEST;
  const { barriers, grade, reason, source } = strictest;
  return { barriers, grade, reason, source };
}

const HOT_C = 50;
const HIGH_PRESSURE_Pa = 10e5;

/** Contents that nobody has written down are taken as harmful. */
function isHarmful(contents: Contents | undefined): boolean {
  if (contents === undefined) return true;
  return (
    contents.hazards.length > 0 ||
    contents.temperature_C === undefined ||
    contents.temperature_C > HOT_C ||
    contents.pressure_Pa === undefined ||
    contents.pressure_Pa > HIGH_PRESSURE_Pa
  );
}

function mayBurnOrHarm(contents: Contents | undefined): boolean {
  return contents === undefined || contents.hazards.some((hazard) => hazard !== "corrosive");
}
