import { shiftChanges } from "../runtime/siteTime";
import { jobHazards } from "../hazard/hazardStore";
import { toLookAt, type Day } from "./day";

const HOUR_MS = 3_600_000;
/** A sample and its reading, with room. */
const POINT_MS = 8 * 60_000;
const BUMPED = { number: "GI-03", gas: "Methane at half its lower limit", verdict: "alarmed", zeroed: true };

/** Somebody grinds in the packing hall: hazards decided, the zone cleared, air read, a fire watch on post. */
export async function demoHotWork({
  act,
  ask,
  walk,
  db,
  revision,
  clock,
  bram,
}: Day & Readonly<{ bram: string }>): Promise<void> {
  const asked = await ask(
    "Grind the bent guard frame of the carton conveyor straight",
    "Grind and dress the guard frame beside the carton conveyor. No work on the belt.",
    [{ place: "CV-412", how: ["touch"] }],
    8,
  );
  const job = String(asked.job);
  await act("maren", "hazard.conditions", {
    job,
    weather: "Indoors, dry",
    tools: ["angle grinder, 125 mm", "spark screen"],
    inspected: ["angle grinder, 125 mm", "spark screen"],
  });
  for (const { id } of jobHazards(db, job)!.proposed) {
    await act("petra", "hazard.decide", { job, hazard: id, verdict: "kept" });
  }
  await act("tomas", "hazard.ask", { job, words: "Where may the filler's drip tray be emptied?" });
  const question = jobHazards(db, job)!.hazards.questions[0]!.id;
  await act("petra", "hazard.answer", { job, question, words: "Into the oily waste drum by gate 2, before we start." });

  const made = await act("maren", "isolation.approve", { job, school: "work", plantRevision: revision });
  await walk(String(made.isolation), Infinity);
  await act("maren", "box.hang", { box: made.box, role: "coordinator", lock: "C-02" });
  const permit = await act("bram", "permit.draft", {
    job,
    holder: bram,
    words: "Grind the guard frame of CV-412 at its north end. Nothing else.",
    hazards: "Sparks; oil film on the floor by the filler; the conveyor starts by a sensor.",
    precautions: "Screen all round; floor swept and wet; conveyor locked and tried.",
    validFrom_ms: clock(),
    validTo_ms: clock() + 9 * HOUR_MS,
    details: {
      kind: "hot work",
      works: ["grinding"],
      inEquipment: false,
      outOfSight: false,
      x_m: 12.1,
      y_m: 55,
      level_m: 0,
      height_m: 0,
      welders: 1,
      levels: 1,
      noCylinders: true,
      afterWatch: "class 3",
      points: ["at the frame", "at the filler, low"],
    },
  });
  await act("maren", "permit.check", permit);
  await act("idris", "permit.authorise", permit);
  await act("signe", "permit.approve", {
    ...permit,
    words: "Platform PL-413 opened and seen empty; screen on its side.",
  });
  const asks = toLookAt({ db, clock }, String(permit.permit));
  await act("bram", "permit.tick", { ...permit, asks, words: "Seen on the round" });
  await act("idris", "permit.issue", { ...permit, copies: ["at gate 2"] });
  await act("edda", "permit.take-post", { ...permit, post: "fire watch", ready: true });
  await act("nils", "gear.bump", BUMPED);
  for (const point of ["at the frame", "at the filler, low"]) {
    // Zeroed in fresh air this shift: at its change once more.
    while (shiftChanges(clock(), clock() + POINT_MS).length > 0) await act("nils", "gear.bump", BUMPED);
    await act("nils", "permit.begin-sample", { ...permit, point, instrument: "GI-03" });
    await act("nils", "permit.read-air", { ...permit, point, oxygen_percent: 20.9, flammable_percent: 0 });
  }
  await act("bram", "permit.accept", permit);
  await act("bram", "permit.sign-on", { ...permit, lock: "P-31", answer: "CV-412", briefed: true });
}
