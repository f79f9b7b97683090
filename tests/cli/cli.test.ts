import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { buildSync } from "esbuild";
import type { Check } from "../../src/core/plan/check";
import type { Plan } from "../../src/core/plan/plan";
import type { Trace } from "../../src/core/trace/trace";

const HOME = resolve(__dirname, "../..");
const PROGRAM = join(HOME, ".lantern", "cli-under-test.mjs");
const DEMO = ["demo/items.csv", "demo/links.csv"];

let folder: string;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "lantern-cli-"));
  buildSync({
    entryPoints: [join(HOME, "src/cli/main.ts")],
    outfile: PROGRAM,
    bundle: true,
    platform: "node",
    format: "esm",
  });
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

function lantern(...args: string[]) {
  const done = spawnSync("node", [PROGRAM, ...args], { cwd: HOME, encoding: "utf8", maxBuffer: 64 * 2 ** 20 });
  return { code: done.status, out: done.stdout, err: done.stderr };
}
function answer<T>(...args: string[]): T {
  const { code, out, err } = lantern(...args);
  expect(err).not.toContain("Error");
  expect(code).toBe(0);
  return JSON.parse(out) as T;
}
function file(name: string, content: unknown): string {
  const path = join(folder, name);
  writeFileSync(path, typeof content === "string" ? content : JSON.stringify(content));
  return path;
}

/** The example of the file formats, with a feed to isolate. */
const PLANT = {
  format: "heavy-lantern/plant",
  version: 1,
  items: [
    { tag: "HDR-1", kind: "header", source: [{ carrier: "fluid" }] },
    {
      tag: "V-1",
      kind: "valve",
      device: { stops: ["fluid"], credit: true, positive: false, lockable: true, effort: 6 },
    },
    { tag: "NR-1", kind: "check valve", device: { stops: ["fluid"], credit: false, effort: 1 } },
    { tag: "BL-1", kind: "bleed", bleed: { safe: true, gauge: true } },
    { tag: "P-1", kind: "pump" },
  ],
  links: [
    { from: "HDR-1", to: "V-1", carries: "fluid" },
    { from: "V-1", to: "NR-1", carries: "fluid" },
    { from: "NR-1", to: "P-1", carries: "fluid", oneWay: false },
    { from: "BL-1", to: "P-1", carries: "fluid" },
  ],
};
const JOB = {
  format: "heavy-lantern/job",
  version: 1,
  faces: [{ place: "P-1", how: ["open"] }],
  require: { fluid: 1 },
  objective: "effort",
  school: "work",
};

describe("the demo pump", () => {
  const files = [...DEMO, "demo/jobs/pump.json"];

  test("it finds the neighbour's interlock voltage, the sister pump and the steam jacket", () => {
    const { waysIn } = answer<Plan>("plan", ...files);
    const into = (face: string, through: string) => waysIn.find((way) => way.face === face && way.through === through);
    const interlock = into("K-207", "F-208")?.sources[0];
    expect(interlock).toMatchObject({ hidden: true, nearestDevice: "F-208" });
    expect(interlock!.via).toContain("K-208");
    expect(interlock!.hiddenBy).toEqual(expect.arrayContaining(["control"]));
    const discharge = waysIn.filter((way) => way.face === "P-204A" && way.carrier === "fluid");
    const sister = discharge.flatMap((way) => way.sources).filter((source) => source.via.includes("P-204B"));
    expect(sister.some((source) => source.via.includes("NR-2042"))).toBe(true);
    const jacket = answer<Trace>("trace", ...files).sources.find(
      (row) => row.face === "P-204A" && row.via.includes("J-204A"),
    );
    expect(jacket).toMatchObject({ arrives: "heat", hidden: true });
    expect(jacket!.hiddenBy).toContain("conversion");
  });

  test("the plan locks all three out, and every way is held with the grade it asks", () => {
    const plan = answer<Plan>("plan", ...files);
    expect(plan).toMatchObject({ feasible: true, held: true, shortfalls: [] });
    expect(plan.bound).toBeLessThanOrEqual(plan.cost);
    expect(plan.points.map((point) => point.device)).toEqual(expect.arrayContaining(["F-208"]));
    for (const route of plan.routes) expect(route.depth).toBeGreaterThanOrEqual(route.required);
    const checked = answer<Check>(
      "check",
      ...DEMO,
      file("isolated.json", {
        ...JSON.parse(readFileSync(join(HOME, "demo/jobs/pump.json"), "utf8")),
        isolated: plan.points.map((point) => point.device),
      }),
    );
    expect(checked).toMatchObject({ ok: true, lit: [] });
  });
});

describe("questions about files", () => {
  test("plan answers the documented fields", () => {
    const plan = answer<Plan>("plan", file("plant.json", PLANT), file("job.json", JOB));
    expect(plan.points).toEqual([expect.objectContaining({ device: "V-1" })]);
    expect(plan).toMatchObject({ cost: 6, exact: true, bound: 6, feasible: true });
    expect(plan.routes).toEqual([
      expect.objectContaining({ source: "HDR-1", face: "P-1", required: 1, available: 1, depth: 1 }),
    ]);
    expect(plan.singleFailures).toEqual([expect.objectContaining({ device: "V-1", faces: ["P-1"] })]);
  });

  test("plan says what falls short, and still offers the best", () => {
    const plan = answer<Plan>("plan", file("plant.json", PLANT), file("two.json", { ...JOB, require: { fluid: 2 } }));
    expect(plan.feasible).toBe(false);
    expect(plan.shortfalls).toMatchObject([
      { source: "HDR-1", carrier: "fluid", face: "P-1", required: 2, available: 1 },
    ]);
    expect(plan.points).toEqual([expect.objectContaining({ device: "V-1" })]);
  });

  test("check counts a check valve for nothing and says so", () => {
    const job = file("check.json", { ...JOB, isolated: ["NR-1"] });
    const checked = answer<Check>("check", file("plant.json", PLANT), job);
    expect(checked.ignored).toEqual([expect.objectContaining({ device: "NR-1" })]);
    expect(checked.lit).toContainEqual(expect.objectContaining({ face: "P-1", arrives: "fluid", source: "HDR-1" }));
    expect(checked.singleFailures).toEqual([]);
  });

  test("the files may come in either order", () => {
    const [plant, job] = [file("plant.json", PLANT), file("job.json", JOB)];
    expect(lantern("trace", job, plant).out).toBe(lantern("trace", plant, job).out);
  });
});

describe("bad input", () => {
  const without = (tag: string, field: string) => ({
    ...PLANT,
    items: PLANT.items.map((item) => {
      if (item.tag !== tag || !("device" in item)) return item;
      const device: Record<string, unknown> = { ...item.device };
      delete device[field];
      return { ...item, device };
    }),
  });
  const items = (change: (items: unknown[]) => unknown[]) => ({ ...PLANT, items: change(PLANT.items) });
  const links = (link: unknown) => ({ ...PLANT, links: [...PLANT.links, link] });

  test.each([
    ["a duplicate tag", items((list) => [...list, { tag: "V-1", kind: "valve" }]), /V-1.*tag/],
    ["a link to nowhere", links({ from: "V-1", to: "V-404", carries: "fluid" }), /V-404/],
    ["an unknown carrier", links({ from: "V-1", to: "P-1", carries: "steam" }), /carries.*unknown carrier "steam"/],
    ["a missing effort", without("V-1", "effort"), /V-1.*effort/],
    ["a missing credit", without("V-1", "credit"), /V-1.*credit/],
    [
      "a negative effort",
      items((list) => [...list, { tag: "V-9", kind: "valve", device: { stops: ["fluid"], credit: true, effort: -2 } }]),
      /V-9.*effort.*0 or more/,
    ],
    ["a plant without sources", items((list) => list.slice(1)), /source|HDR-1/],
    ["not JSON", "tag,kind\nV-1,valve", /plant\.json.*JSON/],
    ["an empty file", "", /plant\.json.*empty/],
    ["another format", { format: "other" }, /format/],
  ])("%s is one clear line on standard error", (_, content, says) => {
    const { code, out, err } = lantern("plan", file("plant.json", content), file("job.json", JOB));
    expect(code).not.toBe(0);
    expect(out).toBe("");
    expect(err).toMatch(says);
    expect(err.trim().split("\n")).toHaveLength(1);
  });

  test.each([
    ["an unknown face", { ...JOB, faces: [{ place: "P-9" }] }, /P-9.*faces\.1\.place.*unknown tag/],
    ["no faces", { ...JOB, faces: [] }, /faces.*at least one/],
    ["an unknown carrier in require", { ...JOB, require: { steam: 1 } }, /require\.steam/],
    ["half a barrier", { ...JOB, require: { fluid: 1.5 } }, /require\.fluid.*whole number/],
    ["an unknown isolated tag", { ...JOB, isolated: ["V-77"] }, /V-77.*isolated/],
  ])("%s in the job is refused by name", (_, job, says) => {
    const { code, err } = lantern("check", file("plant.json", PLANT), file("job.json", job));
    expect(code).not.toBe(0);
    expect(err).toMatch(says);
  });

  test("an unknown question names the ones there are", () => {
    const { code, err } = lantern("guess", file("plant.json", PLANT));
    expect(code).not.toBe(0);
    expect(err).toContain("trace, plan, check");
  });
});

test("whoever reads only the beginning of an answer is told of no failure", () => {
  // The plan of the demo is larger than any pipe holds.
  const asked = `node "${PROGRAM}" plan demo/items.csv demo/links.csv demo/jobs/pump.json | head -c 20`;
  const done = spawnSync("sh", ["-c", asked], { cwd: HOME, encoding: "utf8" });
  expect(done.stdout).toBe('{\n  "format": "heavy');
  expect(done.stderr).not.toMatch(/EPIPE|Error/);
});
