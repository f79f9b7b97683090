import { soundReport } from "../../src/core/isolation/soundReport";
import { jobHazards } from "../../src/server/hazard/hazardStore";
import { HOUR } from "./permits";
import { TestSite } from "./testSite";
import { importing, peopleTwoJobs } from "./twoJobs";

/** The short route on a site: one bench behind one switch, and a second on the same board. */
export const ITEMS = `tag,kind,voltage_V,system,needs,source,stops,credit,lockable,effort,stands
NET,incomer,400,,,power,,,,,
BUS,busbar,400,,,,,,,,
Q,isolator,400,,,,power,yes,yes,5,passing
DR,drill,400,3-phase,power,,,,,,
Q-2,isolator,400,,,,power,yes,yes,5,passing
SA,saw,400,3-phase,power,,,,,,
`;
export const LINKS = `from,to,carries,walked
NET,BUS,power,2026-09-01
BUS,Q,power,2026-09-01
Q,DR,power,2026-09-01
BUS,Q-2,power,2026-09-01
Q-2,SA,power,2026-09-01
`;
/** Behind it as well, by a line that nobody had drawn. */
export const FED_TWICE = `${LINKS}BUS,DR,power,2026-11-01\n`;

export async function minorSite(): Promise<TestSite> {
  const site = new TestSite();
  // Early in a shift, so that a job fits into it.
  site.clock_ms = Date.UTC(2026, 9, 5, 7, 0);
  await peopleTwoJobs(site);
  await importing(site, ITEMS, LINKS);
  await site.stockGear("cora");
  await site.done("cora", "gear.enter", { kind: "lock", number: "I-1", owner: "ivo" });
  return site;
}

export const ask = async (site: TestSite, place = "DR", holder = "ivo", hours = 3) =>
  String(
    (
      await site.done("cora", "job.ask", {
        title: `Belt of ${place}`,
        work: "A new belt.",
        faces: [{ place, how: ["touch"] }],
        windowFrom_ms: site.clock_ms,
        windowTo_ms: site.clock_ms + hours * HOUR,
        holder,
        crew: [],
      })
    ).job,
  );
export const SHORT = {
  objective: "effort",
  school: "work",
  plantRevision: 1,
  route: "short",
  noOthersAtRisk: true,
  noAccidents: true,
};
export const draftFor = (site: TestSite, job: string, more: object = {}) => ({
  job,
  words: "A new belt.",
  hazards: "Shock.",
  precautions: "Locked.",
  validFrom_ms: site.clock_ms,
  validTo_ms: site.clock_ms + 2 * HOUR,
  details: { kind: "minor isolation" },
  ...more,
});

/** Asked for, its hazards decided, approved by the short route, its record written and checked. */
export async function approvedShort(site: TestSite, place = "DR", holder = "ivo") {
  const job = await ask(site, place, holder);
  await decideAll(site, job);
  const made = await site.done("cora", "isolation.approve", { job, ...SHORT });
  const { permit } = await site.done("cora", "permit.draft", draftFor(site, job));
  await site.done("cora", "permit.check", { permit });
  return { job, isolation: String(made.isolation), box: String(made.box), permit: String(permit) };
}
export async function decideAll(site: TestSite, job: string) {
  for (const { id } of jobHazards(site.db, job)!.proposed) {
    await site.done("cora", "hazard.decide", { job, hazard: id, verdict: "kept" });
  }
  await site.done("cora", "hazard.conditions", { job, weather: "Dry", tools: [], lifts: [] });
}
/** Every step that may be done, by one person, until one that is not to be. */
export async function walkAlone(
  site: TestSite,
  isolation: string,
  who = "ivo",
  until: (step: { kind: string }) => boolean = () => false,
) {
  for (;;) {
    const next = site.open(isolation)[0];
    if (next === undefined || until(next)) return;
    await site.done(who, "step.do", { isolation, step: next.id, ...soundReport(next, { lock: "I-1" }) });
  }
}
export const BRIEFED = { briefed: true };
