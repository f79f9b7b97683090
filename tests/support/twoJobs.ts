import type { TestSite } from "./testSite";
import { issued } from "./writePermit";

/**
 * A small plant in which two jobs meet: crude through V-1, V-2 and V-5 to P, with bleeds between; water through W-1 and
 * W-2 to T; one motor M with its isolator Q, which turns P.
 */
export const ITEMS = `tag,kind,contents,temperature_C,pressure_Pa,hazards,voltage_V,system,source,stops,credit,lockable,effort,stands,bleed
S,header,solvent,20,300000,flammable,,,fluid,,,,,,
V-1,valve,,,,,,,,fluid,yes,yes,4,passing,
A,pipe,solvent,20,300000,flammable,,,,,,,,,
V-2,valve,,,,,,,,fluid,yes,yes,6,passing,
B,pipe,solvent,20,300000,flammable,,,,,,,,,
V-5,valve,,,,,,,,fluid,yes,yes,9,passing,
C,pipe,solvent,20,300000,flammable,,,,,,,,,
P,pump,solvent,20,300000,flammable,,,,,,,,,
BL-A,bleed,,,,,,,,,,,,,safe gauge
BL-B,bleed,,,,,,,,,,,,,safe gauge
BL-P,bleed,,,,,,,,,,,,,safe gauge
NET,incomer,,,,,400,,power,,,,,,
Q,isolator,,,,,400,,,power,yes,yes,5,passing,
M,motor,,,,,400,3-phase,,,,,,,
WS,header,water,20,200000,,,,fluid,,,,,,
W-1,valve,,,,,,,,fluid,yes,yes,4,passing,
T,tank,water,20,200000,,,,,,,,,,
BL-T,bleed,,,,,,,,,,,,,safe gauge
`;
export const LINKS = `from,to,carries,walked
S,V-1,fluid,2026-09-01
V-1,A,fluid,2026-09-01
A,V-2,fluid,2026-09-01
V-2,B,fluid,2026-09-01
B,V-5,fluid,2026-09-01
V-5,C,fluid,2026-09-01
C,P,fluid,2026-09-01
A,BL-A,fluid,2026-09-01
B,BL-B,fluid,2026-09-01
P,BL-P,fluid,2026-09-01
NET,Q,power,2026-09-01
Q,M,power,2026-09-01
M,P,shaft,2026-09-01
WS,W-1,fluid,2026-09-01
W-1,T,fluid,2026-09-01
T,BL-T,fluid,2026-09-01
`;

const HOUR_MS = 3_600_000;

/** People: cora coordinates, isa issues, hal and hob hold, ivo isolates, vera looks and proves, wim, will and wanda work. */
export async function peopleTwoJobs(site: TestSite): Promise<void> {
  const all = ["electrical", "high-voltage", "mechanical", "process"] as const;
  await site.add(
    { signIn: "cora", roles: ["coordinator"] },
    { signIn: "colin", roles: ["coordinator"] },
    { signIn: "isa", roles: ["issuer"] },
    { signIn: "ana", roles: ["approver"] },
    { signIn: "hal", roles: ["holder", "worker"] },
    { signIn: "hob", roles: ["holder", "worker"] },
    { signIn: "ivo", roles: ["isolator"], competences: all },
    { signIn: "ines", roles: ["isolator"], competences: all },
    { signIn: "vera", roles: ["isolator"], competences: all },
    { signIn: "wim", roles: ["worker"] },
    { signIn: "will", roles: ["worker"] },
    { signIn: "wanda", roles: ["worker"] },
    { signIn: "rick", roles: ["worker"], firm: "Skerry Rope and Rig" },
  );
}

/** A register as two files of rows, imported by the coordinator. */
export const importing = (site: TestSite, items: string, links: string) =>
  site.done("cora", "plant.import", {
    files: [
      { name: "items.csv", text: items },
      { name: "links.csv", text: links },
    ],
  });

export async function openTwoJobs(site: TestSite): Promise<void> {
  await peopleTwoJobs(site);
  await importing(site, ITEMS, LINKS);
  await site.stockGear("cora");
}

/** A job asked for and approved; answers its numbers. */
export async function approved(
  site: TestSite,
  p: Readonly<{ place: string; how?: readonly string[]; holder?: string; crew?: readonly string[] }>,
): Promise<{ job: string; isolation: string; box: string }> {
  const { job } = await site.done("cora", "job.ask", {
    title: `Work on ${p.place}`,
    work: "Open it.",
    faces: [{ place: p.place, how: p.how ?? ["open"] }],
    windowFrom_ms: site.clock_ms,
    windowTo_ms: site.clock_ms + 8 * HOUR_MS,
    holder: p.holder ?? "hal",
    crew: p.crew ?? ["hal", "wim", "will"],
  });
  const made = await site.done("cora", "isolation.approve", {
    job,
    objective: "effort",
    school: "work",
    plantRevision: 1,
  });
  return { job: String(job), isolation: String(made.isolation), box: String(made.box) };
}

/** Walked, first lock on, permit live. */
export async function atWork(
  site: TestSite,
  p: Parameters<typeof approved>[1],
): Promise<{ job: string; isolation: string; box: string; permit: string }> {
  const made = await approved(site, p);
  await site.walk(made.isolation, { first: "ivo", second: "vera" });
  await site.done("cora", "box.hang", { box: made.box, role: "coordinator", lock: `C-${made.box}` });
  const permit = await issued(site, { job: made.job, holder: p.holder });
  await site.done(p.holder ?? "hal", "permit.accept", { permit });
  return { ...made, permit };
}
