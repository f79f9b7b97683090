import { createHash } from "node:crypto";
import { canonicalJson } from "../core/ledger/canonicalJson";
import { compare, type Comparison } from "../core/plan/compare";
import { plan, type Plan } from "../core/plan/plan";
import type { Problem, Read } from "../core/plant/problem";
import { readPlantFiles, type TextFile } from "../core/plant/readPlantFiles";
import type { Layout, LayoutRequest } from "../core/lantern/lanternLayout";
import type { Job } from "../core/request/jobFile";
import { decodePhoto, type DecodedPhoto } from "./decodePhoto";
import { layOut } from "./layOut";
import { plantFrom, type PlantKey } from "./plantFrom";
import { renderPdf, type Paper } from "./renderPdf";

/** A register that was read and found good, ready to be stored. */
export type ReadyPlant = Readonly<{
  /** As it is kept, and what that hashes to. */
  text: string;
  hash: string;
  tags: readonly string[];
  links: number;
  warnings: readonly Problem[];
}>;

/** What is too heavy for the thread that answers everybody: what each is given, and what it gives. */
export type Tasks = {
  plan: { given: Readonly<{ plant: PlantKey; job: Job }>; gives: Read<Plan> };
  compare: {
    given: Readonly<{ plant: PlantKey; job: Job }>;
    gives: Read<Readonly<{ comparison: Comparison; plans: readonly Plan[] }>>;
  };
  "read plant": { given: readonly TextFile[]; gives: Read<ReadyPlant> };
  "lay out": { given: LayoutRequest; gives: Layout };
  paper: { given: Paper; gives: Uint8Array };
  photo: { given: Uint8Array; gives: DecodedPhoto | null };
};
export type TaskName = keyof Tasks;
export type Task<Name extends TaskName = TaskName> = {
  [N in Name]: Readonly<{ name: N; given: Tasks[N]["given"] }>;
}[Name];

const HANDLERS: {
  [Name in TaskName]: (given: Tasks[Name]["given"]) => Tasks[Name]["gives"] | Promise<Tasks[Name]["gives"]>;
} = {
  plan: ({ plant, job }) => plan(plantFrom(plant).graph, job),
  compare: ({ plant, job }) => compare(plantFrom(plant).graph, job),
  "read plant": readyPlant,
  "lay out": layOut,
  paper: renderPdf,
  photo: decodePhoto,
};

/** Does one task, in whichever thread it is called. */
export function doTask<Name extends TaskName>(name: Name, given: Tasks[Name]["given"]): Promise<Tasks[Name]["gives"]> {
  return Promise.resolve(HANDLERS[name](given));
}

function readyPlant(files: readonly TextFile[]): Read<ReadyPlant> {
  const read = readPlantFiles(files);
  if (!read.ok) return read;
  const text = canonicalJson(JSON.parse(JSON.stringify(read.value)));
  return {
    ok: true,
    warnings: [],
    value: {
      text,
      hash: createHash("sha256").update(text).digest("hex"),
      tags: read.value.items.map(({ tag }) => tag),
      links: read.value.links.length,
      warnings: read.warnings,
    },
  };
}
