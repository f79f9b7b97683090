import { spawnSync } from "node:child_process";
import { existsSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { cpus, tmpdir } from "node:os";
import { join } from "node:path";
import { barrierField, type Pair } from "../../src/core/barrier/pairs";
import { check } from "../../src/core/plan/check";
import { choosePoints } from "../../src/core/cut/choosePoints";
import { plan } from "../../src/core/plan/plan";
import { requirePairs } from "../../src/core/judge/requirePairs";
import { singleFailures } from "../../src/core/barrier/singleFailures";
import { readJobValue, type Job, type JobInput } from "../../src/core/request/jobFile";
import { readPlantValue } from "../../src/core/plant/readPlantJson";
import { profileOf } from "../../src/core/requirement/profiles";
import { buildStateGraph, gateVertices, type StateGraph } from "../../src/core/trace/stateGraph";
import { graderOf } from "../../src/core/judge/grade";
import { unheldOf } from "../../src/core/plan/repair";
import { arrivalsOf, trace } from "../../src/core/trace/trace";
import { allFaceVertices, workFaces } from "../../src/core/trace/workFaces";
import { hostilePlant, type Hostile } from "../support/hostilePlant";
import { generatedPlant } from "../support/generatedPlant";

const HOME = process.env.LANTERN_HOME ?? process.cwd();
const SIZES = (process.env.LANTERN_BENCH_SIZES ?? "1000,10000,100000").split(",").map(Number);

/** Median of nine runs after one that warms up, in ms; fewer where they take long. */
function time(work: () => unknown): number {
  const runs: number[] = [];
  const until = performance.now() + 15_000;
  for (let i = 0; i < 10; i++) {
    const start = performance.now();
    work();
    runs.push(performance.now() - start);
    if (performance.now() > until) break;
  }
  if (runs.length > 2) runs.shift();
  return runs.sort((a, b) => a - b)[Math.floor(runs.length / 2)]!;
}

/** The first time, in ms: nothing of the graph is known yet. */
function cold(work: () => unknown): number {
  const start = performance.now();
  work();
  return performance.now() - start;
}

/** What a first screen of the points asks for: no routes. */
function readPoints(made: ReturnType<typeof plan>): void {
  if (!made.ok) throw new Error("no plan");
  const { points, routes, singleFailures: failures } = made.value;
  let read = 0;
  for (const { device } of points) read += device.length;
  for (const { depth, grade } of routes) read += depth + grade.length;
  for (const { faces } of failures) read += faces.length;
  if (read < 0) throw new Error("nothing was read");
}

const jobOf = (raw: JobInput, rest: Partial<JobInput>): Job => {
  const read = readJobValue({ ...raw, ...rest }, "job");
  if (!read.ok) throw new Error("bad job");
  return read.value;
};

type Row = Record<string, number | string>;
const rows: Row[] = [];
for (const size of SIZES) {
  const { plant, job } = generatedPlant(size, 7);
  const read = readPlantValue(plant, "plant");
  if (!read.ok) throw new Error(JSON.stringify(read.problems.slice(0, 3)));
  const loaded = time(() => buildStateGraph(read.value));
  const graph = buildStateGraph(read.value);
  const one = jobOf(job, { require: REQUIRE(1) });
  const two = jobOf(job, { require: REQUIRE(2) });
  const made = plan(graph, two);
  if (!made.ok) throw new Error("no plan");
  const isolated = made.value.points.map((point) => point.device);
  const cut1 = cutter(graph, one);
  const cut2 = cutter(graph, two);
  const faces = workFaces(graph, two, "job");
  if (!faces.ok) throw new Error("no faces");
  const tracing = () => {
    const { feeding } = arrivalsOf(graph, faces.value);
    const every = Math.max(1, Math.floor(feeding.length / 50));
    for (let i = 0; i < feeding.length && i / every < 50; i += every) feeding[i]!.routes();
  };
  const fresh = buildStateGraph(read.value);
  const strict = jobOf(job, {});
  const strictMade = plan(graph, strict);
  if (!strictMade.ok) throw new Error("no plan");
  const rules = {
    field: cut2.field,
    pairs: requirePairs(cut2.field, strict, profileOf(strict.profile)),
    set: new Set(strictMade.value.points.map(({ device }) => graph.itemByTag.get(device)!)),
  };
  globalThis.gc?.();
  const { heapUsed, arrayBuffers } = process.memoryUsage();
  const row: Row = {
    items: plant.items.length,
    "state graph": loaded,
    "trace, 50 routes, cold": cold(() => {
      const { feeding } = arrivalsOf(fresh, faces.value);
      for (const one of feeding.slice(0, 50)) one.routes();
    }),
    "trace, 50 routes": time(tracing),
    "trace, all lists": time(() => JSON.stringify(trace(graph, one))),
    "cut k = 1": time(cut1.run),
    "cut k = 2": time(cut2.run),
    "plan k = 1": time(() => readPoints(plan(graph, one))),
    "plan k = 2": time(() => readPoints(plan(graph, two))),
    "plan k = 2, all lists": time(() => JSON.stringify(plan(graph, two))),
    "plan by the strict rules": time(() => readPoints(plan(graph, strict))),
    "the judge alone": time(() => unheldOf(rules.pairs, graderOf(rules.field, rules.pairs, rules.set))),
    check: time(() => JSON.stringify(check(graph, { ...two, isolated }))),
    "single failures": time(() =>
      singleFailures(cut2.field, cut2.pairs, new Set(isolated.map((tag) => graph.itemByTag.get(tag)!))),
    ),
    points: isolated.length,
    exact: String(made.value.exact),
    "heap MB": Math.round((heapUsed + arrayBuffers) / 2 ** 20),
    ...outside(graph, cut1.pairs, size),
  };
  rows.push(row);
  process.stderr.write(`${JSON.stringify(row)}\n`);
}

function REQUIRE(k: number) {
  return { power: k, control: k, fluid: k };
}

/** The choice alone, without the lists around it: what a minimum cut alone is compared with. */
function cutter(graph: StateGraph, job: Job) {
  const faces = workFaces(graph, job, "job");
  if (!faces.ok) throw new Error("no faces");
  const field = barrierField(graph, faces.value);
  const pairs = requirePairs(field, job, profileOf(job.profile));
  const cost = (item: number) => Math.round((graph.plant.items[item]?.device?.effort_min ?? 0) * 100);
  return { field, pairs, run: () => choosePoints(field, pairs, cost, "work") };
}

/** The same minimum cut by igraph (C) and networkx on the same split graph; empty where they are not installed. */
function outside(graph: StateGraph, pairs: readonly Pair[], size: number): Row {
  const faces = [...new Set(pairs.map(({ face }) => face))];
  const python = "/usr/bin/python3";
  if (!existsSync(python) || spawnSync(python, ["-c", "import igraph, networkx"]).status !== 0) return {};
  const folder = mkdtempSync(join(tmpdir(), "lantern-bench-"));
  const gates = new Map<number, number>();
  const atWork = new Set(pairs.flatMap((pair) => pair.face.items));
  graph.plant.items.forEach((item, index) => {
    if (atWork.has(index)) return;
    for (const vertex of gateVertices(graph, index)) gates.set(vertex, Math.round(item.device!.effort_min * 100));
  });
  const arcs: number[] = [];
  for (let vertex = 0; vertex < graph.vertexCount; vertex++) {
    for (let arc = graph.out.first[vertex]!; arc < graph.out.first[vertex + 1]!; arc++) {
      arcs.push(vertex, graph.out.other[arc]!);
    }
  }
  const path = join(folder, "graph.json");
  writeFileSync(
    path,
    JSON.stringify({
      n: graph.vertexCount,
      arcs,
      gates: [...gates],
      sources: [...new Set(pairs.map((pair) => pair.source.vertex))],
      targets: [...new Set(faces.flatMap((face) => allFaceVertices(graph, face)))],
      networkx: size <= 10_000,
    }),
  );
  const done = spawnSync(python, [join(HOME, "tests/bench/minimumCut.py"), path], { encoding: "utf8" });
  rmSync(folder, { recursive: true, force: true });
  if (done.status !== 0) throw new Error(done.stderr);
  return JSON.parse(done.stdout) as Row;
}

const figure = (value: unknown) =>
  typeof value === "number" ? (value < 10 ? value.toFixed(1) : String(Math.round(value))) : String(value ?? "–");
const exponent = (name: string) => {
  const [a, b] = [rows[0]!, rows.at(-1)!];
  return Math.log(Number(b[name]) / Number(a[name])) / Math.log(Number(b.items) / Number(a.items));
};
const names = Object.keys(rows[0]!).filter((name) => name !== "items");
const timed = names.filter((name) => !["points", "exact", "heap MB", "igraph value", "networkx value"].includes(name));
const out = [
  `| | ${rows.map((row) => `${String(row.items)} items`).join(" | ")} | grows as |`,
  `| --- | ${rows.map(() => "---:").join(" | ")} | ---: |`,
  ...names.map((name) => {
    const grows =
      timed.includes(name) && rows.length > 1 && rows.at(-1)![name] !== undefined
        ? `n^${exponent(name).toFixed(2)}`
        : "";
    return `| ${name}${timed.includes(name) ? ", ms" : ""} | ${rows.map((row) => figure(row[name])).join(" | ")} | ${grows} |`;
  }),
  ...(rows[0]!["igraph cut"] === undefined
    ? []
    : [
        `| plan k = 1 ÷ igraph's cut | ${rows.map((row) => figure(Number(row["plan k = 1"]) / Number(row["igraph cut"]))).join(" | ")} | |`,
        `| cut k = 1 ÷ igraph's cut | ${rows.map((row) => figure(Number(row["cut k = 1"]) / Number(row["igraph cut"]))).join(" | ")} | |`,
      ]),
];
/** Plants that are hard on purpose: the search must end, and say what it did not prove. */
const HOSTILE: readonly Hostile[] = [
  { rows: 10, columns: 10, k: 3, cause: 0.8, several: 0.5 },
  { rows: 10, columns: 10, k: 4, cause: 0.8, several: 0.5 },
  { rows: 6, columns: 20, k: 5, cause: 0.9, several: 0.8 },
  { rows: 20, columns: 20, k: 3, cause: 0.9, several: 0.9 },
  { rows: 30, columns: 30, k: 3, cause: 0.9, several: 0.9 },
  { rows: 20, columns: 20, k: null, cause: 0.9, several: 0.9 },
];
const hostile = HOSTILE.map((one) => {
  const { graph, job } = hostilePlant(one);
  const from = performance.now();
  const made = plan(graph, job);
  readPoints(made);
  const ms = performance.now() - from;
  if (!made.ok) throw new Error("no plan");
  const { cost, bound, exact, shortfalls } = made.value;
  const asked = one.k === null ? "by the strict rules" : `${one.k} barriers`;
  const proved = exact ? "yes" : `no: ${cost}, at least ${bound}`;
  return `| mesh of ${one.rows} × ${one.columns}, ${asked} | ${graph.plant.items.length} | ${figure(ms / 1000)} | ${proved} | ${shortfalls.length} |`;
});
out.push(
  "",
  "| plants made to be hard | items | plan, s | proved cheapest | shortfalls |",
  "| --- | ---: | ---: | --- | ---: |",
  ...hostile,
);
process.stdout.write(
  `${out.join("\n")}\n\nNode ${process.version}, ${cpus().length} cores. Times of one run; compare only within it.\n`,
);
