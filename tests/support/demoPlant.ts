import { readFileSync } from "node:fs";
import { join } from "node:path";
import { readJobJson, type Job } from "@/core/request/jobFile";
import { readPlantCsv } from "@/core/plant/readPlantCsv";
import { buildStateGraph, type StateGraph } from "@/core/trace/stateGraph";

const DEMO = join(__dirname, "..", "..", "demo");
const text = (name: string) => readFileSync(join(DEMO, name), "utf8");

/** The demo plant as it ships. */
export function demoGraph(): StateGraph {
  const file = (name: string) => ({ name, text: text(name) });
  const read = readPlantCsv(file("items.csv"), file("links.csv"), file("areas.csv"));
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return buildStateGraph(read.value);
}

export function demoJob(name: string): Job {
  const read = readJobJson(text(join("jobs", `${name}.json`)), name);
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.value;
}
