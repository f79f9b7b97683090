import { readJobValue, type Job } from "../../src/core/request/jobFile";
import type { PlantInput } from "../../src/core/plant/plantSchema";
import { readPlantValue } from "../../src/core/plant/readPlantJson";
import { buildStateGraph, type StateGraph } from "../../src/core/trace/stateGraph";
import { HARMFUL } from "./smallPlant";
import { seededRandom } from "./seededRandom";

export type Hostile = Readonly<{
  rows: number;
  columns: number;
  /** Barriers asked, plainly; null for what the strict rules ask. */
  k: number | null;
  /** Share of valves that fail together with others, and of those that stop two carriers. */
  cause: number;
  several: number;
}>;

/**
 * A mesh of valves between one source and one vessel, made to be hard: crossways links, common causes, devices of two
 * carriers. Nothing of the kind is built; a register full of slips may look like it.
 */
export function hostilePlant({ rows, columns, k, cause, several }: Hostile): {
  input: Pick<PlantInput, "items" | "links">;
  graph: StateGraph;
  job: Job;
} {
  const random = seededRandom(7);
  const items: PlantInput["items"] = [
    { tag: "S", kind: "header", source: [{ carrier: "fluid" }, { carrier: "power" }], contents: HARMFUL },
    { tag: "P", kind: "vessel" },
  ];
  const links: PlantInput["links"] = [];
  const valve = (tag: string, stops: ("fluid" | "power")[]) => {
    const fails = random.chance(cause) ? { commonCause: `C-${random.below((rows * columns) / 4)}` } : {};
    const device = { stops, credit: true, lockable: true, effort: 1 + random.below(20), stands: "passing" as const };
    items.push({ tag, kind: "valve", device: { ...device, ...fails } });
  };
  const join = (from: string, through: string, to: string) => {
    for (const carries of ["fluid", ...(several > 0 ? ["power" as const] : [])] as const) {
      links.push({ from, to: through, carries }, { from: through, to, carries });
    }
  };
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const here = `T-${row}-${column}`;
      items.push({ tag: here, kind: "tee" });
      valve(`V-${row}-${column}`, random.chance(several) ? ["fluid", "power"] : ["fluid"]);
      join(column === 0 ? "S" : `T-${row}-${column - 1}`, `V-${row}-${column}`, here);
      if (row > 0 && random.chance(0.7)) {
        valve(`X-${row}-${column}`, ["fluid"]);
        links.push(
          { from: `T-${row - 1}-${column}`, to: `X-${row}-${column}`, carries: "fluid" },
          { from: `X-${row}-${column}`, to: here, carries: "fluid" },
        );
      }
    }
    const last = `T-${row}-${columns - 1}`;
    links.push({ from: last, to: "P", carries: "fluid" });
    if (several > 0) links.push({ from: last, to: "P", carries: "power" });
  }
  const plant = readPlantValue({ format: "heavy-lantern/plant", version: 1, items, links }, "plant");
  if (!plant.ok) throw new Error(JSON.stringify(plant.problems.slice(0, 3)));
  const require = k === null ? {} : { require: { fluid: k, power: k } };
  const faces = [{ place: "P", how: ["open"] }];
  const job = readJobValue({ format: "heavy-lantern/job", version: 1, faces, ...require }, "job");
  if (!job.ok) throw new Error(JSON.stringify(job.problems));
  return { input: { items, links }, graph: buildStateGraph(plant.value), job: job.value };
}
