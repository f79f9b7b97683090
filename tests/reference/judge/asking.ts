import { graderOf } from "../../../src/core/judge/grade";
import { barrierField } from "../../../src/core/barrier/pairs";
import { requirePairs } from "../../../src/core/judge/requirePairs";
import { profileOf } from "../../../src/core/requirement/profiles";
import type { JobInput } from "../../../src/core/request/jobFile";
import { placeName } from "../../../src/core/trace/stateGraph";
import { workFaces } from "../../../src/core/trace/workFaces";
import type { SmallPlant } from "../../support/smallPlant";

type How = JobInput["faces"][number]["how"];
export type Asking = Readonly<{
  source?: string;
  face?: string;
  arrives?: string;
  scope?: "contents" | "energy";
  how?: How;
  struck?: string[];
}>;

function pairsOf(plant: SmallPlant, { face = "P", how = ["open"], struck = [] }: Asking) {
  const job = plant.job([{ place: face, how }], { struck });
  const { graph } = plant;
  const faces = workFaces(graph, job, "job");
  if (!faces.ok) throw new Error("no face");
  const index = (tags: readonly string[]) => new Set(tags.map((tag) => graph.itemByTag.get(tag)!));
  const field = barrierField(graph, faces.value, index(struck));
  return { graph, field, index, pairs: requirePairs(field, job, profileOf("strict")) };
}

function one(plant: SmallPlant, asking: Asking) {
  const { graph, field, index, pairs } = pairsOf(plant, asking);
  const { source = "S", arrives = "fluid", scope = "contents" } = asking;
  const pair = pairs.find(({ source: { vertex } }) => placeName(graph, vertex) === source);
  const demand = pair?.demands.find(
    (each) => each.arrives === arrives && (each.scope === scope || each.family !== "flow"),
  );
  if (pair === undefined || demand === undefined) throw new Error(`${source} does not arrive as ${arrives}`);
  return { field, index, pairs, pair, demand };
}

/** The grade that this set gives one demand. */
export function gradeOf(plant: SmallPlant, isolated: string, asking: Asking = {}): string {
  const { field, index, pairs, pair, demand } = one(plant, asking);
  const set = index(isolated === "" ? [] : isolated.split(" "));
  return graderOf(field, pairs, set).judge(pair, demand).grade;
}
/** The grade that is asked. */
export const askedOf = (plant: SmallPlant, asking: Asking = {}) => one(plant, asking).demand.grade;
