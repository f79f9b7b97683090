import type { JobInput } from "@/core/request/jobFile";
import type { PlantInput } from "@/core/plant/plantSchema";
import { seededRandom, type Random } from "../support/seededRandom";

/** A plant, a job and a set of devices whose depths are compared, all as the files hold them. */
export type ReferenceCase = Readonly<{ id: string; family: Family; plant: PlantInput; job: JobInput }>;

const FAMILIES = ["one barrier", "two barriers", "three barriers", "anything"] as const;
type Family = (typeof FAMILIES)[number];

const EACH = 150;

/**
 * The plants whose answers are worked out by general-purpose libraries. The first three families have devices of one
 * carrier and one number of barriers everywhere, where a linear programme is exact; the last has everything that makes
 * the problem hard: devices of several carriers, common causes, any number for each carrier, too few devices.
 */
export function referenceCases(): ReferenceCase[] {
  const cases: ReferenceCase[] = [lengthJump()];
  for (const [f, family] of FAMILIES.entries()) {
    for (let i = 0; i < EACH; i++) {
      cases.push(randomCase(`${family} ${i}`, family, seededRandom(1_000_003 * (f + 1) + i)));
    }
  }
  return cases;
}

/** source–A(2)–B(2)–C(1)–face with two barriers asked: 3, not the 4 that a cut of two lengths at once would pick. */
function lengthJump(): ReferenceCase {
  const valve = (tag: string, effort: number) => ({
    tag,
    kind: "valve",
    device: { stops: ["fluid" as const], credit: true, effort },
  });
  const chain = ["S", "A", "B", "C", "F"];
  return {
    id: "length jump",
    family: "two barriers",
    plant: {
      format: "heavy-lantern/plant",
      version: 1,
      items: [
        { tag: "S", kind: "header", source: [{ carrier: "fluid" }] },
        valve("A", 2),
        valve("B", 2),
        valve("C", 1),
        { tag: "F", kind: "vessel" },
      ],
      links: chain.slice(1).map((to, i) => ({ from: chain[i]!, to, carries: "fluid" as const })),
    },
    job: { ...JOB, faces: [{ place: "F" }], require: { fluid: 2 }, isolated: ["A", "C"] },
  };
}

const JOB = { format: "heavy-lantern/job" as const, version: 1 as const };
/** Mostly one carrier, or few ways would go from end to end. */
const CARRIERS = ["fluid", "fluid", "fluid", "fluid", "power"] as const;
const KINDS = ["vessel", "vessel", "pump", "motor", "starter", "transformer", "tank"] as const;

function randomCase(id: string, family: Family, random: Random): ReferenceCase {
  const hard = family === "anything";
  const k = FAMILIES.indexOf(family) + 1;
  const nodes = 4 + random.below(7);
  const items: PlantInput["items"] = Array.from({ length: nodes }, (_, i) => ({
    tag: `N${i}`,
    kind: random.pick(KINDS),
    source: i === 0 || random.chance(0.15) ? [{ carrier: i === 0 ? "fluid" : random.pick(CARRIERS) }] : [],
  }));
  const links: PlantInput["links"] = [];
  const devices: string[] = [];
  const device = (carrier: "fluid" | "power") => {
    const both = hard && random.chance(0.25);
    const tag = `D${devices.length}`;
    devices.push(tag);
    items.push({
      tag,
      kind: "valve",
      source: random.chance(0.03) ? [{ carrier }] : [],
      device: {
        stops: both ? ["fluid", "power"] : [carrier],
        credit: random.chance(hard ? 0.88 : 0.97),
        // Ties and nothing to pay are as likely as odd figures.
        effort: random.pick([0, 1, 1, 1, 2, 2, 3, 5, 8, 2.5, 0.25]),
        commonCause: hard && random.chance(0.15) ? random.pick(["twin", "pair"]) : undefined,
      },
    });
    return { tag, both };
  };
  /** A line of devices in series from a to b, as many as the barriers asked and sometimes more or fewer. */
  const line = (a: string, b: string) => {
    const carrier = random.pick(CARRIERS);
    const count = random.chance(hard ? 0.2 : 0.03) ? random.below(2) : k + random.below(hard ? 3 : 2);
    let from = a;
    for (let i = 0; i < count; i++) {
      const { tag, both } = device(carrier);
      links.push({ from, to: tag, carries: carrier, oneWay: random.chance(0.1) });
      if (both && random.chance(0.7)) links.push({ from, to: tag, carries: carrier === "fluid" ? "power" : "fluid" });
      from = tag;
    }
    links.push({ from, to: b, carries: carrier, oneWay: random.chance(0.1) });
  };
  for (let i = 1; i < nodes; i++) line(`N${random.below(i)}`, `N${i}`);
  const more = random.below(nodes);
  for (let i = 0; i < more; i++) {
    const [a, b] = [random.below(nodes), random.below(nodes)];
    if (a !== b) line(`N${a}`, `N${b}`);
  }
  if (random.chance(hard ? 0.4 : 0.1)) {
    const [a, b] = [random.below(nodes), random.below(nodes)];
    if (a !== b) links.push({ from: `N${a}`, to: `N${b}`, carries: "shaft" });
  }
  const faces = new Set([`N${nodes - 1}`]);
  if (random.chance(0.4)) faces.add(`N${random.below(nodes)}`);
  if (random.chance(0.1) && devices.length > 0) faces.add(random.pick(devices));
  const require = hard ? { fluid: random.below(4), power: random.below(3) } : { fluid: k, power: k };
  return {
    id,
    family,
    plant: { format: "heavy-lantern/plant", version: 1, items, links },
    job: {
      ...JOB,
      faces: [...faces].map((place) => ({ place })),
      require,
      school: random.pick(["work", "supply"] as const),
      isolated: devices.filter(() => random.chance(0.5)),
    },
  };
}
