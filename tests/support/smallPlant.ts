import { check, type Check } from "@/core/plan/check";
import { plan, type Plan } from "@/core/plan/plan";
import { readJobValue, type JobInput } from "@/core/request/jobFile";
import type { PlantInput } from "@/core/plant/plantSchema";
import { readPlantValue } from "@/core/plant/readPlantJson";
import { buildStateGraph, type StateGraph } from "@/core/trace/stateGraph";

type Item = PlantInput["items"][number];
type Carries = PlantInput["links"][number]["carries"];

/** A plant written in a few words, for cases worked by hand. */
export class SmallPlant {
  readonly #items: Item[] = [];
  readonly #links: PlantInput["links"] = [];

  item(tag: string, kind: string, rest: Partial<Item> = {}): this {
    this.#items.push({ tag, kind, ...rest });
    return this;
  }

  source(tag: string, carrier: Carries, contents?: Item["contents"]): this {
    return this.item(tag, "header", { source: [{ carrier }], contents });
  }

  /** A valve, or whatever stops one carrier; lockable, known to stand passing. */
  device(tag: string, stops: Carries, rest: Partial<NonNullable<Item["device"]>> & { kind?: string } = {}): this {
    const { kind = "valve", ...device } = rest;
    return this.item(tag, kind, {
      device: { stops: [stops], credit: true, lockable: true, effort: 5, stands: "passing", ...device },
    });
  }

  bleed(tag: string, at: string): this {
    this.item(tag, "bleed", { bleed: { safe: true, gauge: true } });
    this.#links.push({ from: at, to: tag, carries: "fluid", normal: "none" });
    return this;
  }

  line(carries: Carries, ...places: string[]): this {
    places.slice(1).forEach((to, i) => this.#links.push({ from: places[i]!, to, carries }));
    return this;
  }

  link(from: string, to: string, carries: Carries, rest: Partial<PlantInput["links"][number]> = {}): this {
    this.#links.push({ from, to, carries, ...rest });
    return this;
  }

  /** A line that is there only for a while. */
  hose(carries: Carries, from: string, to: string): this {
    this.#links.push({ from, to, carries, temporary: { from: "2026-11-20", until: "2026-12-04" } });
    return this;
  }

  get graph(): StateGraph {
    const file = { format: "heavy-lantern/plant", version: 1, items: this.#items, links: this.#links };
    const read = readPlantValue(file, "plant.json");
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    return buildStateGraph(read.value);
  }

  #job(faces: JobInput["faces"], rest: Partial<JobInput>) {
    const read = readJobValue(
      // Over within a shift, unless the test says otherwise.
      { format: "heavy-lantern/job", version: 1, faces, longerThanShift: false, ...rest },
      "job.json",
    );
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    return read.value;
  }

  plan(faces: JobInput["faces"], rest: Partial<JobInput> = {}): Plan {
    const made = plan(this.graph, this.#job(faces, rest));
    if (!made.ok) throw new Error(JSON.stringify(made.problems));
    return made.value;
  }

  check(faces: JobInput["faces"], isolated: readonly string[], rest: Partial<JobInput> = {}): Check {
    const made = check(this.graph, this.#job(faces, { ...rest, isolated: [...isolated] }));
    if (!made.ok) throw new Error(JSON.stringify(made.problems));
    return made.value;
  }

  job(faces: JobInput["faces"], rest: Partial<JobInput> = {}) {
    return this.#job(faces, rest);
  }
}

export const tagsOf = (made: Plan): string[] => made.points.map((point) => point.device);

/** Contents at a handbook's idea of dangerous and of harmless. */
export const HARMFUL = { fluid: "solvent", temperature_C: 20, pressure_Pa: 3e5, hazards: ["flammable" as const] };
export const HARMLESS = { fluid: "water", temperature_C: 20, pressure_Pa: 3e5, hazards: [] };
