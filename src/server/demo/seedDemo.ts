import { longestShift_h } from "../../core/schedule/shifts";
import { randomUUID } from "node:crypto";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { eq } from "drizzle-orm";
import Papa from "papaparse";
import { runAct } from "../acts/runAct";
import type { ActAnswer } from "../acts/answer";
import { onCommandLine } from "../ledger/byTheServer";
import { personIdSchema } from "../../core/people/personIdSchema";
import { DEMO_MADE } from "../ledger/nobody";
import { addPerson } from "../acts/addPerson";
import type { Db } from "../db/database";
import { detectors, people } from "../db/schema";
import { shiftChanges } from "../runtime/siteTime";
import { tokenHash } from "../permit/detectorStore";
import { loadIsolation } from "../isolation/isolationStore";
import { jobHazards } from "../hazard/hazardStore";
import { currentPlant } from "../plant/plantStore";
import { toPerson } from "../people/signIn";
import { soundReport } from "../../core/isolation/soundReport";
import { DEMO_DETECTORS, DEMO_PASSWORD, DEMO_PEOPLE, DEMO_PIN } from "./demoPeople";
import { demoHotWork } from "./demoHotWork";
import { demoProcedure } from "./demoProcedure";

const HOUR_MS = 3_600_000;

/** What the list says of a gas instrument. */
function sheetOf(line: Readonly<Record<string, string>>) {
  const figure = (name: string) => Number(line[name]);
  return {
    reads: line.reads!.split(";"),
    burns: line.burns,
    calibrated: line.calibrated || null,
    error: {
      oxygen: figure("error_oxygen"),
      flammable: figure("error_flammable"),
      toxic: figure("error_toxic_ppm") / 1e6,
    },
    zero: { flammable: figure("zero_flammable"), toxic: figure("zero_toxic_ppm") / 1e6 },
    hose_m: figure("hose_m"),
    bore_m: figure("bore_m"),
    pump_m3_s: figure("pump_L_min") / 60_000,
    t90_s: figure("t90_s"),
  };
}

/** A minute's work between two acts; lists are typed in one go. */
const STEP_MS = 2.5 * 60_000;
/** Room besides for a shift change among the air readings, which asks for bumps and looks at the work. */
const DAY_SO_FAR_MS = 3.1 * HOUR_MS;
/** A job of before, told in short: the day has no room for it. */
const PAST_STEP_MS = 5000;
const QUICK = /^(gear\.enter|hazard\.)/;

/**
 * Fills an empty database with the Gannet Reach oil mill and its day of work, all by ordinary acts, so that the ledger
 * tells how it came about. `now_ms` is the time of day it ends at.
 */
export async function seedDemo(db: Db, demoFolder: string, headFile: string, now_ms: number): Promise<void> {
  const ids = new Map<string, string>();
  let clock_ms = now_ms - DAY_SO_FAR_MS;
  let pace_ms = STEP_MS;
  const where = { headFile, now_ms: clock_ms };
  onCommandLine(db, { type: DEMO_MADE, subject: "", input: {}, did: "The demo was made." }, () => undefined, where);
  for (const person of DEMO_PEOPLE) {
    // The coordinator, who is entered first, showed the site to people of other firms.
    const shown = {
      by: personIdSchema.parse(ids.get("maren") ?? ""),
      at_ms: clock_ms,
      until_ms: clock_ms + 365 * 86_400_000,
    };
    const induction = person.firm === undefined ? {} : { induction: shown };
    const made = { ...person, ...induction, password: DEMO_PASSWORD, pin: DEMO_PIN };
    ids.set(person.signIn, await addPerson(db, made, where));
  }
  const id = (signIn: string) => ids.get(signIn)!;
  let accepted: Readonly<{ permit: string }>[] = [];
  const act = async (
    signIn: string,
    type: string,
    input: unknown,
  ): Promise<Extract<ActAnswer, { ok: true }>["answer"]> => {
    const person = toPerson(
      db
        .select()
        .from(people)
        .where(eq(people.id, id(signIn)))
        .get()!,
      clock_ms,
    );
    const before_ms = clock_ms;
    clock_ms += QUICK.test(type) ? 1000 : pace_ms;
    const envelope = { version: 1, actId: randomUUID(), type, input, pin: DEMO_PIN };
    const answer = await runAct(envelope, person, clock_ms, db, headFile);
    if (!answer.ok) throw new Error(`the demo's day went wrong at ${type}: ${answer.sentence}`);
    if (type === "permit.accept") accepted.push(input as Readonly<{ permit: string }>);
    // What was handed back is revalidated no more.
    if (type === "permit.hand-back") {
      const { permit } = input as Readonly<{ permit: string }>;
      accepted = accepted.filter((one) => one.permit !== permit);
    }
    if (shiftChanges(before_ms, clock_ms).length > 0) {
      for (const permit of accepted) {
        await act("idris", "permit.revalidate", { ...permit, words: "Looked at the place; all as it was." });
      }
    }
    return answer.answer;
  };
  const file = (name: string) => ({ name, text: readFileSync(join(demoFolder, name), "utf8") });
  await act("maren", "plant.import", { files: [file("items.csv"), file("links.csv"), file("areas.csv")] });
  const { revision } = currentPlant(db)!;

  const store = Papa.parse<Record<"thing" | "size" | "count", string>>(file("store.csv").text, {
    header: true,
    skipEmptyLines: true,
  });
  await act("ruth", "store.count", { lines: store.data.map((line) => ({ ...line, count: Number(line.count) })) });

  const gearList = Papa.parse<Record<string, string>>(file("gear.csv").text, { header: true, skipEmptyLines: true });
  for (const line of gearList.data) {
    await act("ruth", "gear.enter", {
      kind: line.kind,
      number: line.number,
      owner: line.owner ? id(line.owner) : null,
      key: line.key === "" ? null : line.key,
      inDateUntil_ms: line.days === "" ? null : now_ms + Number(line.days) * 24 * HOUR_MS,
      rating_V: line.rating_V === "" ? null : Number(line.rating_V),
      error: line.error === "" ? null : Number(line.error),
      sheet: line.reads ? sheetOf(line) : null,
    });
  }

  const ask = (title: string, work: string, faces: unknown[], hours: number) =>
    act("maren", "job.ask", {
      title,
      work,
      faces,
      // Whatever the hour at which the demo is made.
      longerThanShift: hours > longestShift_h(),
      windowFrom_ms: now_ms,
      windowTo_ms: now_ms + hours * HOUR_MS,
      holder: id("petra"),
      crew: [id("petra"), id("tomas")],
    });

  // A job with a live permit and a man at work.
  const tipper = await ask(
    "Renew the rod seal of the drum tipper cylinder",
    "Take the tipper cylinder's gland off, renew the rod seal and wiper, refit and bleed.",
    [{ place: "CY-260", how: ["open", "touch"] }],
    6,
  );
  const tipped = await act("maren", "isolation.approve", { job: tipper.job, school: "work", plantRevision: revision });
  await walk(String(tipped.isolation), Infinity);
  await act("maren", "box.hang", { box: tipped.box, role: "coordinator", lock: "C-01" });
  const job = String(tipper.job);
  await act("maren", "hazard.conditions", {
    job,
    weather: "Indoors, dry",
    tools: ["gland spanner"],
    inspected: ["gland spanner"],
  });
  for (const { id: hazard } of jobHazards(db, job)!.proposed) {
    await act("petra", "hazard.decide", { job, hazard, verdict: "kept" });
  }
  const permit = await act("petra", "permit.draft", {
    job,
    words: "Open the tipper cylinder CY-260 and renew its rod seal. Nothing else.",
    hazards: "Oil under pressure in the accumulator; the table may sink; hot oil.",
    precautions: "Table lowered to rest; accumulator vented; gloves and face shield; spill tray.",
    validFrom_ms: clock_ms,
    validTo_ms: clock_ms + 8 * HOUR_MS,
    details: {
      kind: "line break",
      line: "Oil line of the tipper cylinder CY-260",
      flange: "the union at the cylinder's foot",
      release: "into the spill tray, and from there to the oily waste drum",
    },
  });
  await act("maren", "permit.check", permit);
  await act("idris", "permit.authorise", permit);
  await act("maren", "permit.tick", {
    ...permit,
    asks: ["first flange", "dead legs", "spill"],
    words: "Seen at the tipper",
  });
  await act("idris", "permit.issue", { ...permit, copies: ["at the tipper"] });
  await act("petra", "permit.accept", permit);
  await act("petra", "permit.sign-on", { ...permit, lock: "P-17", answer: "CY-260", briefed: true });
  await act("tomas", "permit.sign-on", { ...permit, lock: "P-23", answer: "CY-260", briefed: true });

  // A job whose isolation is being walked.
  const agitator = await ask(
    "Inspect the agitator seal of the autoclave",
    "Agitator stopped and restrained; look at the seal from outside.",
    [{ place: "AG-230", how: ["touch"], carriers: ["power", "control", "shaft"], reason: "the vessel stays closed" }],
    4,
  );
  const agitated = await act("maren", "isolation.approve", {
    job: agitator.job,
    school: "work",
    plantRevision: revision,
  });
  await walk(String(agitated.isolation), 5);

  // The job of the tour: asked for, and everything still to do.
  await ask(
    "Replace the mechanical seal of crude oil pump A",
    "Open the pump, draw the shaft, replace the mechanical seal, check the motor terminals and the starter.",
    [
      { place: "P-204A", how: ["open", "touch"] },
      { place: "M-204A", how: ["touch"] },
      { place: "K-207", how: ["touch"] },
    ],
    8,
  );

  // A job that this plant cannot hold as the rules ask: blinds without valves, no blind, no bleed.
  await ask(
    "Clean and inspect the hydrogenation autoclave",
    "Enter the autoclave, clean it, inspect the wall and the agitator.",
    [
      { place: "A-230", how: ["enter", "open"] },
      { place: "AG-230", how: ["touch"] },
    ],
    10,
  );

  // Physics decides when this one may start: the tank drains, cools and is purged.
  const tank = await ask(
    "Clean the hardened oil day tank from inside",
    "Empty, cool and purge the tank; enter, clean it and look at the coil and the wall.",
    [{ place: "T-235", how: ["enter"] }],
    30,
  );
  await act("maren", "job.set-up", {
    job: tank.job,
    setup: {
      blower_m3_s: 0.47,
      bends: 1,
      mixing: 3,
      ambient_C: 24,
      hose_m: 10,
      hoseBore_m: 0.004,
      pump_m3_s: 0.5e-3 / 60,
      t90_s: 30,
      testers: 13,
      drainHose_m: 8,
      clean_s: 5 * 3600,
      work_s: 6 * 3600,
      people: 3,
      crews: { mechanical: 2 },
    },
  });
  await act("petra", "figure.attach", {
    calculator: "tank-drain",
    inputs: { shape: "vertical", diameter_m: 3.6, length_m: 6, level_m: 5.6, end_m: 0.4, outlet_m: 0.05, cd: 0.61 },
    to: tank.job,
    note: "The last 40 cm go out by the vacuum lorry.",
  });

  // And the crew decides this one: one electrician for eight cubicles.
  const starters = await ask(
    "Tighten the terminals of eight starters",
    "Open the cubicles, tighten every terminal to its torque, write the values down.",
    ["K-333", "K-334", "K-336", "K-337", "K-342", "K-344", "K-345", "K-346"].map((place) => ({
      place,
      how: ["touch"],
    })),
    12,
  );
  await act("maren", "job.set-up", { job: starters.job, setup: { drainHose_m: 0 } });

  for (const { id, kind, token } of DEMO_DETECTORS) {
    db.insert(detectors)
      .values({ id, kind, tokenHash: tokenHash(token) })
      .run();
  }
  await demoHotWork({ act, walk, ask, db, revision, clock: () => clock_ms, bram: id("bram") });
  pace_ms = PAST_STEP_MS;
  await demoProcedure({ act, walk, ask, db, revision, clock: () => clock_ms });
  if (clock_ms > now_ms) throw new Error("the demo's day is longer than it may be");

  async function walk(isolation: string, most: number): Promise<void> {
    for (let count = 0; count < most; count++) {
      const { life } = loadIsolation(db, isolation)!;
      const next = life.steps.find(
        (step) =>
          step.phase === "isolate" &&
          !step.done &&
          step.after.every((before) => life.steps.find((other) => other.id === before)?.done),
      );
      if (next === undefined) return;
      // Sunniva and Jonas lock, Odalys proves: nobody proves what they locked themselves.
      const locker = next.competence === "electrical" ? "jonas" : next.competence === null ? "ruth" : "sunniva";
      const isSecond = next.kind === "prove" || next.kind === "verify";
      const lock = `G-${isolation.slice(-2)}${next.id.slice(1).padStart(2, "0")}`;
      await act(isSecond ? "odalys" : locker, "step.do", { isolation, step: next.id, ...soundReport(next, { lock }) });
    }
  }
}
