import type { Db } from "../../src/server/db/database";
import { people } from "../../src/server/db/schema";
import { loadIsolation } from "../../src/server/isolation/isolationStore";
import { expectReplay } from "../support/expectReplay";
import { TestSite } from "../support/testSite";
import { approved, atWork, peopleTwoJobs } from "../support/twoJobs";

/** A vessel is emptied by a step with a name beside it; whoever stands there does nothing else, on any job. */

const ITEMS = `tag,kind,contents,temperature_C,pressure_Pa,volume_m3,phase,source,stops,credit,lockable,effort,stands,bleed
S,header,oil,20,100000,,liquid,fluid,,,,,,
V-1,valve,,,,,,,fluid,yes,yes,4,passing,
BL-A,bleed,,,,,,,,,,,,safe gauge
V-2,valve,,,,,,,fluid,yes,yes,6,passing,
T,tank,oil,20,100000,4,liquid,,,,,,,
BL-T,bleed,,,,,,,,,,,,safe gauge
A,pipe,,,,,,,,,,,,
V-3,valve,,,,,,,fluid,yes,yes,4,passing,
BL-B,bleed,,,,,,,,,,,,safe gauge
B,pipe,,,,,,,,,,,,
V-4,valve,,,,,,,fluid,yes,yes,6,passing,
U,tank,oil,20,100000,4,liquid,,,,,,,
BL-U,bleed,,,,,,,,,,,,safe gauge
V-5,valve,,,,,,,fluid,yes,yes,4,passing,
C,pipe,,,,,,,,,,,,
V-6,valve,,,,,,,fluid,yes,yes,6,passing,
BL-C,bleed,,,,,,,,,,,,safe gauge
Q,pipe,,,,,,,,,,,,
BL-Q,bleed,,,,,,,,,,,,safe gauge
`;
const LINKS = `from,to,carries,normal
S,V-1,fluid,forward
V-1,A,fluid,forward
A,BL-A,fluid,none
A,V-2,fluid,forward
V-2,T,fluid,forward
T,BL-T,fluid,none
S,V-3,fluid,forward
V-3,B,fluid,forward
B,BL-B,fluid,none
B,V-4,fluid,forward
V-4,U,fluid,forward
U,BL-U,fluid,none
S,V-5,fluid,forward
V-5,C,fluid,forward
C,BL-C,fluid,none
C,V-6,fluid,forward
V-6,Q,fluid,forward
Q,BL-Q,fluid,none
`;
const FILES = [
  { name: "items.csv", text: ITEMS },
  { name: "links.csv", text: LINKS },
];

let site: TestSite;
const holder = globalThis as { heavyLanternDatabase?: Db };
beforeAll(async () => {
  site = new TestSite();
  holder.heavyLanternDatabase = site.db;
  await peopleTwoJobs(site);
  await site.done("cora", "plant.import", { files: FILES });
  await site.stockGear("cora");
});
afterAll(async () => {
  delete holder.heavyLanternDatabase;
  await expectReplay(site);
  site.close();
});

const idOf = (signIn: string) =>
  site.db
    .select()
    .from(people)
    .all()
    .find((one) => one.signIn === signIn)!.id;
const stepOf = (isolation: string, kind: string) =>
  loadIsolation(site.db, isolation)!.life.steps.find((step) => step.kind === kind)!;

test("one watcher, one drain; called away they shut it; and who works elsewhere does not watch", async () => {
  const first = await approved(site, { place: "T" });
  const second = await approved(site, { place: "U" });
  const walk = { first: "ivo", second: "vera", until: (step: { kind: string }) => step.kind === "empty" };
  await site.walk(first.isolation, walk);
  await site.walk(second.isolation, walk);
  const begin = (made: typeof first, watcher: string) => ({
    isolation: made.isolation,
    step: stepOf(made.isolation, "empty").id,
    watcher: idOf(watcher),
    how: "drained",
  });
  const { watcher: _, ...alone } = begin(first, "will");
  expect(await site.refused("ivo", "step.begin", alone)).toMatch(/who watches it is missing/);
  expect(await site.refused("ivo", "step.begin", { ...alone, watcher: "nobody" })).toMatch(/person who watches/);
  await site.done("ivo", "step.begin", begin(first, "will"));
  expect(stepOf(first.isolation, "empty").begun).toMatchObject({ watcher: idOf("will"), how: "drained" });
  expect(await site.refused("ivo", "step.begin", begin(second, "will"))).toMatch(/empty T of S-\d+, which they watch/);
  // Called away: anybody says so, and what ran counts for nothing.
  await site.done("will", "step.stop", { isolation: first.isolation, step: begin(first, "will").step, words: "alarm" });
  expect(stepOf(first.isolation, "empty").begun).toBeUndefined();
  await site.done("ivo", "step.begin", begin(second, "will"));
  await site.done("will", "step.stop", {
    ...begin(second, "will"),
    watcher: undefined,
    how: undefined,
    words: "shift",
  });

  const work = await atWork(site, { place: "Q" });
  await site.done("hal", "permit.sign-on", { permit: work.permit, lock: "H-1" });
  await site.done("will", "permit.sign-on", { permit: work.permit, lock: "W-1" });
  expect(await site.refused("ivo", "step.begin", begin(first, "will"))).toMatch(new RegExp(work.permit));
  await expectReplay(site);
});
