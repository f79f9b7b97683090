import type { PermitDetails } from "../../src/core/permit/kinds/details";
import type { PermitKind } from "../../src/core/permit/kinds/kinds";
import { asksOf } from "../../src/core/permit/requirements/requirements";
import { jobHazards } from "../../src/server/hazard/hazardStore";
import { permitNow } from "../../src/server/permit/permitFacts";
import { DETAILS, HOUR } from "./permits";
import type { TestSite } from "./testSite";

/** The hazard analysis of a job, as people who keep everything that is proposed would do it. */
export async function decideHazards(site: TestSite, job: string, ...tools: string[]): Promise<void> {
  await site.done("cora", "hazard.conditions", { job, weather: "dry", tools, inspected: tools });
  for (const { id } of jobHazards(site.db, job)!.proposed) {
    await site.done("hal", "hazard.decide", { job, hazard: id, verdict: "kept" });
  }
}

/** The kinds of permit that a job requires. */
export function kindsRequired(site: TestSite, job: string): PermitKind[] {
  return jobHazards(site.db, job)!.required.map(({ kind }) => kind);
}

/** What a permit of this kind says, with the gear that the test site stocks. */
export function detailsFor(kind: PermitKind): PermitDetails {
  const details = DETAILS[kind];
  return details.kind === "electrical work" ? { ...details, gloves: "GL-11" } : details;
}

type Written = Readonly<{ job: string; holder?: string; kind?: PermitKind; hours?: number }>;

/** A permit of the kind that the job requires first, as it is written. */
export async function drafted(site: TestSite, { job, holder = "hal", kind, hours = 8 }: Written): Promise<string> {
  const { permit } = await site.done(holder, "permit.draft", {
    job,
    words: "Open it.",
    hazards: "Residue.",
    precautions: "Gloves.",
    validFrom_ms: site.clock_ms - HOUR,
    validTo_ms: site.clock_ms + hours * HOUR,
    holder,
    details: detailsFor(kind ?? kindsRequired(site, job)[0]!),
  });
  return String(permit);
}

/** What is ticked by hand and not ticked yet. */
export function toTick(site: TestSite, permit: string): string[] {
  const { now, facts } = permitNow(site.db, permit, site.clock_ms)!;
  return asksOf({ permit: now, facts, now_ms: site.clock_ms })
    .filter(({ byHand, only, unmet }) => byHand && !only && unmet !== null)
    .map(({ id }) => id);
}

/** Checked, authorised, looked at and issued, with a copy at the work. */
export async function signedToIssue(site: TestSite, permit: string): Promise<void> {
  await site.done("cora", "permit.check", { permit });
  await site.done("isa", "permit.authorise", { permit });
  const asks = toTick(site, permit).filter((id) => !id.startsWith("stand-in"));
  if (asks.length > 0) await site.done("cora", "permit.tick", { permit, asks, words: "seen" });
  await site.done("isa", "permit.issue", { permit, copies: ["at the work"] });
}

/** Hazards decided, and a permit of every kind that the job requires issued; answers the first, which nobody accepted yet. */
export async function issued(site: TestSite, written: Written): Promise<string> {
  await decideHazards(site, written.job);
  const [first, ...others] = kindsRequired(site, written.job);
  for (const kind of others) await signedToIssue(site, await drafted(site, { ...written, kind }));
  const permit = await drafted(site, { ...written, kind: first });
  await signedToIssue(site, permit);
  return permit;
}
