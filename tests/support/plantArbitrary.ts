import fc from "fast-check";
import type { JobInput } from "@/core/request/jobFile";
import { readJobValue } from "@/core/request/jobFile";
import type { PlantInput } from "@/core/plant/plantSchema";
import { readPlantValue } from "@/core/plant/readPlantJson";
import { buildStateGraph, type StateGraph } from "@/core/trace/stateGraph";
import type { Job } from "@/core/request/jobFile";

export type SmallCase = Readonly<{ plant: PlantInput; job: JobInput }>;

/**
 * Small plants with everything that makes a cut hard: cycles, ties, zero effort, one-way links, devices of several
 * carriers, common causes, devices without credit, several faces, faces that are sources or devices, conversions.
 */
export const smallCase: fc.Arbitrary<SmallCase> = fc
  .record({
    others: fc.integer({ min: 3, max: 6 }),
    devices: fc.array(
      fc.record({
        effort: fc.constantFrom(0, 1, 1, 2, 3, 5, 2.5),
        both: fc.integer({ min: 0, max: 3 }).map((n) => n === 0),
        credit: fc.integer({ min: 0, max: 5 }).map((n) => n > 0),
        cause: fc.constantFrom(undefined, undefined, undefined, undefined, "twin"),
        source: fc.integer({ min: 0, max: 12 }).map((n) => n === 0),
        between: fc.tuple(fc.nat(30), fc.nat(30)),
        oneWay: fc.integer({ min: 0, max: 7 }).map((n) => n === 0),
      }),
      { minLength: 3, maxLength: 9 },
    ),
    kinds: fc.array(fc.constantFrom("vessel", "pump", "motor", "starter"), { minLength: 8, maxLength: 8 }),
    sources: fc.array(fc.tuple(fc.nat(20), fc.constantFrom("fluid", "power")), { minLength: 1, maxLength: 3 }),
    faces: fc.uniqueArray(fc.nat(20), { minLength: 1, maxLength: 2 }),
    links: fc.array(
      fc.record({
        a: fc.nat(30),
        b: fc.nat(30),
        carries: fc.constantFrom("fluid", "power", "shaft", "shaft"),
        oneWay: fc.integer({ min: 0, max: 5 }).map((n) => n === 0),
      }),
      { minLength: 0, maxLength: 5 },
    ),
    require: fc.record({ fluid: fc.integer({ min: 0, max: 3 }), power: fc.integer({ min: 0, max: 2 }) }),
    school: fc.constantFrom("work" as const, "supply" as const),
  })
  .map((raw): SmallCase => {
    const plain = Array.from({ length: raw.others }, (_, i) => `N${i}`);
    const devices = raw.devices.map((_, i) => `D${i}`);
    const tags = [...plain, ...devices];
    const sourceAt = new Map(raw.sources.map(([at, carrier]) => [plain[at % plain.length]!, carrier]));
    const faces = [...new Set(raw.faces.map((at) => (at > 17 ? tags : plain)[at % (at > 17 ? tags : plain).length]!))];
    return {
      plant: {
        format: "heavy-lantern/plant",
        version: 1,
        items: [
          ...plain.map((tag, i) => ({
            tag,
            kind: raw.kinds[i] ?? "vessel",
            source: sourceAt.has(tag) ? [{ carrier: sourceAt.get(tag) as "fluid" | "power" }] : [],
          })),
          ...raw.devices.map((device, i) => ({
            tag: devices[i]!,
            kind: "valve",
            source: device.source ? [{ carrier: "fluid" as const }] : [],
            device: {
              stops: device.both ? (["fluid", "power"] as const).slice() : [i % 4 === 3 ? "power" : "fluid"],
              credit: device.credit,
              effort: device.effort,
              commonCause: device.cause,
            },
          })),
        ] as PlantInput["items"],
        links: [
          // Each device stands between two others, mostly in series, so that ways are long and barriers many.
          ...raw.devices.flatMap((device, i) => {
            const carries = device.both || i % 4 !== 3 ? ("fluid" as const) : ("power" as const);
            const from = [...plain, ...devices.slice(0, i), ...devices.slice(Math.max(0, i - 1), i)];
            const ends = [from[device.between[0] % from.length]!, plain[device.between[1] % plain.length]!];
            const second = device.both ? [{ from: ends[0]!, to: devices[i]!, carries: "power" as const }] : [];
            return [
              { from: ends[0]!, to: devices[i]!, carries, oneWay: device.oneWay },
              { from: devices[i]!, to: ends[1]!, carries },
              ...second,
            ];
          }),
          ...raw.links.flatMap(({ a, b, carries, oneWay }) => {
            const [from, to] = [tags[a % tags.length]!, tags[b % tags.length]!];
            return from === to ? [] : [{ from, to, carries: carries as "fluid" | "power" | "shaft", oneWay }];
          }),
        ],
      },
      job: {
        format: "heavy-lantern/job",
        version: 1,
        faces: faces.map((place) => ({ place, how: ["open" as const] })),
        require: raw.require,
        school: raw.school,
      },
    };
  });

/** The case as the engine takes it; throws if the files are refused, for the generator promises good ones. */
export function engineCase({ plant, job }: SmallCase): { graph: StateGraph; job: Job } {
  const readPlant = readPlantValue(plant, "plant.json");
  const readJob = readJobValue(job, "job.json");
  if (!readPlant.ok || !readJob.ok) throw new Error("the generator made a bad file");
  return { graph: buildStateGraph(readPlant.value), job: readJob.value };
}
