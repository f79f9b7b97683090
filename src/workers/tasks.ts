import { compare, type Comparison } from "../core/plan/compare";
import type { OnNewPlant } from "../core/plan/onNewPlant";
import { plan, type Plan } from "../core/plan/plan";
import type { Read } from "../core/plant/problem";
import type { Table } from "../core/plant/writePlant";
import type { TextFile } from "../core/plant/readPlantFiles";
import type { Layout, LayoutRequest } from "../core/lantern/lanternLayout";
import type { Job } from "../core/request/jobFile";
import { compareRegisters, type RegisterLook } from "./compareRegisters";
import { decodePhoto, type DecodedPhoto } from "./decodePhoto";
import { judgeStanding, type Standing } from "./judgeStanding";
import { layOut } from "./layOut";
import { plantFrom, type PlantKey } from "./plantFrom";
import { renderPdf, type Paper } from "./renderPdf";
import { stageRegister, type StagedRegister } from "./stageRegister";
import { writeWorkbook } from "./workbook";
import { writeRegister, type RegisterFile, type Written } from "./writeRegister";
import { takeUpload, type TakenUpload, type Upload } from "./takeUpload";

/** What is too heavy for the thread that answers everybody: what each is given, and what it gives. */
export type Tasks = {
  plan: { given: Readonly<{ plant: PlantKey; job: Job }>; gives: Read<Plan> };
  compare: {
    given: Readonly<{ plant: PlantKey; job: Job }>;
    gives: Read<Readonly<{ comparison: Comparison; plans: readonly Plan[] }>>;
  };
  "stage register": {
    given: Readonly<{ file: string; files: readonly TextFile[]; now_ms: number }>;
    gives: Read<StagedRegister>;
  };
  "take upload": { given: Readonly<{ file: string; upload: Upload; now_ms: number }>; gives: TakenUpload };
  "compare registers": {
    given: Readonly<{ before: PlantKey | null; after: PlantKey }>;
    gives: RegisterLook;
  };
  "write register": { given: Readonly<{ plant: PlantKey; as: RegisterFile }>; gives: Written };
  workbook: { given: Readonly<Record<string, Table>>; gives: Uint8Array };
  "judge standing": { given: readonly Standing[]; gives: readonly OnNewPlant[] };
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
  "stage register": ({ file, files, now_ms }) => stageRegister(file, files, now_ms),
  "take upload": ({ file, upload, now_ms }) => takeUpload(file, upload, now_ms),
  "compare registers": compareRegisters,
  "write register": writeRegister,
  workbook: writeWorkbook,
  "judge standing": judgeStanding,
  "lay out": layOut,
  paper: renderPdf,
  photo: decodePhoto,
};

/** Does one task, in whichever thread it is called. */
export function doTask<Name extends TaskName>(name: Name, given: Tasks[Name]["given"]): Promise<Tasks[Name]["gives"]> {
  return Promise.resolve(HANDLERS[name](given));
}
