import { readFileSync } from "node:fs";
import { basename } from "node:path";
import { meantFor } from "../core/calc/meant";
import { answerOf, calculate } from "../core/calc/calculator";
import { calculatorNamed, CALCULATORS } from "../core/calc/calculators/calculators";
import { check } from "../core/plan/check";
import { plan } from "../core/plan/plan";
import { JOB_FORMAT, readJobValue, type Job } from "../core/request/jobFile";
import type { Plant } from "../core/plant/plant";
import { problemLine, type Read } from "../core/plant/problem";
import { readPlantCsv } from "../core/plant/readPlantCsv";
import { parseJson, readPlantValue } from "../core/plant/readPlantJson";
import { buildStateGraph, type StateGraph } from "../core/trace/stateGraph";
import { trace } from "../core/trace/trace";
import { endQuietly } from "./endQuietly";

endQuietly();

const QUESTIONS: Record<string, (graph: StateGraph, job: Job, file: string) => Read<unknown>> = { trace, plan, check };

/** What a person must mend before the question can be asked. */
class BadInput extends Error {}

function main([question = "", ...files]: string[]): void {
  if (question === "calc") return calc(files);
  const ask = QUESTIONS[question];
  if (ask === undefined)
    throw new BadInput(`unknown question ${question}; one of ${Object.keys(QUESTIONS).join(", ")}, calc`);
  const { plant, job, jobFile } = readFiles(files);
  const answer = take(ask(buildStateGraph(plant), job, jobFile));
  process.stdout.write(`${JSON.stringify(answer, null, 2)}\n`);
}

/** One calculator on inputs given as JSON, as an argument or on standard input. */
function calc([name = "", text]: readonly string[]): void {
  const which = calculatorNamed(name);
  if (which === undefined) {
    throw new BadInput(
      `unknown calculator ${name || "(none named)"}; one of ${CALCULATORS.map((one) => one.name).join(", ")}`,
    );
  }
  const done = calculate(which, take(parseJson(text ?? readText(0), name)));
  if (!done.ok) {
    const meant = meantFor(which.fields, done.key);
    const where = [name, done.key].filter(Boolean).join(", ");
    throw new BadInput(`${where}: ${done.message}${meant === "" ? "" : ` (${meant})`}`);
  }
  process.stdout.write(`${JSON.stringify(answerOf(done), null, 2)}\n`);
}

/** plant.json and job.json in either order, or items.csv, links.csv and job.json. */
function readFiles(files: readonly string[]): { plant: Plant; job: Job; jobFile: string } {
  const csv = files.filter((file) => file.toLowerCase().endsWith(".csv"));
  let plant: Plant | undefined;
  let job: Job | undefined;
  let jobFile = "job.json";
  if (csv.length > 0) {
    const named = (word: string) => csv.find((file) => basename(file).toLowerCase().includes(word));
    const [items, links] = [named("items"), named("links")];
    const areas = named("areas");
    const known = [items, links, areas].filter((path) => path !== undefined);
    if (items === undefined || links === undefined || new Set(known).size !== csv.length) {
      throw new BadInput("a plant in CSV is items and links, and perhaps areas, each with that word in its name");
    }
    const file = (path: string) => ({ name: basename(path), text: readText(path) });
    plant = take(readPlantCsv(file(items), file(links), areas === undefined ? undefined : file(areas)));
  }
  for (const path of files) {
    if (csv.includes(path)) continue;
    const name = basename(path);
    const raw = take(parseJson(readText(path), name));
    const format = typeof raw === "object" && raw !== null && "format" in raw ? raw.format : undefined;
    if (format === JOB_FORMAT) {
      job = take(readJobValue(raw, name));
      jobFile = name;
    } else if (format === "heavy-lantern/plant") plant = take(readPlantValue(raw, name));
    else throw new BadInput(`${name}, format: must be "heavy-lantern/plant" or "${JOB_FORMAT}"`);
  }
  if (plant === undefined) throw new BadInput("no plant file given: name a plant.json, or items.csv and links.csv");
  if (job === undefined) throw new BadInput("no job file given: name a job.json");
  return { plant, job, jobFile };
}

/** A file, or standard input by its number. */
function readText(path: string | 0): string {
  try {
    return readFileSync(path, "utf8");
  } catch {
    throw new BadInput(`${path === 0 ? "standard input" : path}: cannot be read`);
  }
}

/** The value, with warnings told on standard error; the first problem stops everything. */
function take<T>(read: Read<T>): T {
  if (read.ok) {
    for (const warning of read.warnings) process.stderr.write(`warning: ${problemLine(warning)}\n`);
    return read.value;
  }
  const [first, ...others] = read.problems;
  if (first === undefined) throw new Error("refused without a reason");
  throw new BadInput(problemLine(first) + (others.length > 0 ? ` (and ${others.length} more)` : ""));
}

try {
  main(process.argv.slice(2));
} catch (error) {
  if (!(error instanceof BadInput)) throw error;
  process.stderr.write(`${error.message}\n`);
  process.exitCode = 1;
}
