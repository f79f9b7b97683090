import { eq } from "drizzle-orm";
import { soundReport } from "../../core/isolation/soundReport";
import { permits } from "../db/schema";
import { jobHazards } from "../hazard/hazardStore";
import { loadIsolation } from "../isolation/isolationStore";
import { toLookAt, type Day } from "./day";

const HOUR_MS = 3_600_000;

/** A small job that went all the way, and the isolation procedure that was made of it, approved by two. */
export async function demoProcedure({ act, ask, walk, db, revision, clock }: Day): Promise<void> {
  const asked = await ask(
    "Change the motor of air compressor 1",
    "Motor off its feet, another on, turned by hand, aligned.",
    [{ place: "M-501", how: ["touch"] }],
    4,
  );
  const job = String(asked.job);
  for (const { id } of jobHazards(db, job)!.proposed) {
    await act("maren", "hazard.decide", { job, hazard: id, verdict: "kept" });
  }
  await act("maren", "hazard.conditions", { job, weather: "Dry, no wind", tools: [], inspected: [] });
  const { isolation, box } = await act("maren", "isolation.approve", { job, school: "work", plantRevision: revision });
  await walk(String(isolation), Infinity);
  await act("maren", "box.hang", { box, role: "coordinator", lock: "C-03" });
  const written = await act("maren", "permit.draft", {
    job,
    words: "Change the motor M-501 of air compressor 1. Nothing else.",
    hazards: "Shock; the belt may pull it round; 38 kg by hand.",
    precautions: "Proved dead; belt off; two people lift.",
    validFrom_ms: clock(),
    validTo_ms: clock() + 4 * HOUR_MS,
    details: { kind: "electrical work", voltage_V: 400, gloves: "GL-11" },
  });
  const permit = { permit: String(written.permit) };
  await act("maren", "permit.check", permit);
  await act("idris", "permit.authorise", permit);
  const asks = toLookAt({ db, clock }, permit.permit);
  if (asks.length > 0) await act("idris", "permit.tick", { ...permit, asks, words: "Seen at the compressor" });
  await act("idris", "permit.issue", { ...permit, copies: ["at the compressor"] });
  await act("petra", "permit.accept", permit);
  const also = db.select({ number: permits.number }).from(permits).where(eq(permits.state, "live")).limit(1).get()!;
  await act("petra", "permit.sign-on", { ...permit, lock: "P-18", answer: "M-501", briefed: true, also: also.number });
  await act("petra", "permit.sign-off", permit);
  await act("petra", "permit.hand-back", permit);
  await act("petra", "permit.return-copy", { ...permit, copy: 1 });
  await act("idris", "permit.inspect", { ...permit, words: "Guard on, cable glands tight." });
  await act("idris", "permit.close", permit);
  await act("maren", "box.take-off", { box, lock: "C-03" });
  await act("maren", "return.start", { isolation });
  for (;;) {
    const { life } = loadIsolation(db, String(isolation))!;
    const done = (id: string) => life.steps.find((other) => other.id === id)?.done;
    const next = life.steps.find((step) => step.phase === "restore" && !step.done && step.after.every(done));
    if (next === undefined) break;
    const who = next.competence === "electrical" ? "jonas" : "ruth";
    await act(who, "step.do", { isolation, step: next.id, ...soundReport(next, { people: 1 }) });
  }
  await act("maren", "job.close", { job });
  const made = await act("jonas", "procedure.write", { job, title: "Change the motor of air compressor 1" });
  const version = { procedure: made.procedure, version: made.version };
  await act("odalys", "procedure.sign", { ...version, part: "trade" });
  await act("idris", "procedure.sign", { ...version, part: "equipment" });
}
