import type { Page } from "@playwright/test";
import { DETAILS } from "../support/permits";
import { soundReport } from "../../src/core/isolation/soundReport";
import { expect, ownSite, PIN, post, sign, signOn, type Site } from "./site";
import { fillStep } from "./walk";
import { approvedJob, done, hazardsDecided, idOf, on, read, signedToIssue, stepsOf, walkByPost, workAt } from "./work";

/** What the record once said and was not so: each told on the screens, with the rows that it leaves. */
const test = ownSite();

type Row = Readonly<{ type: string; outcome: string; answer: string }>;
/** What the ledger has of a subject since a row. */
const rowsOf = (site: Site, type: string, ...subjects: string[]) =>
  read<Row>(
    site,
    `SELECT type, outcome, json_extract(body, '$.answer') AS answer FROM ledger
     WHERE type = ? AND subject IN (${subjects.map(() => "?").join(", ")}) ORDER BY seq`,
    type,
    ...subjects,
  );
const holdsOf = (site: Site, isolation: string) =>
  read<{ tag: string; lock: string; lifted: number | null }>(
    site,
    `SELECT t.tag, h.lock, h.lifted_at_ms AS lifted FROM holds h JOIN isolations i ON i.id = h.isolation_id
     JOIN items t ON t.id = h.item_id WHERE i.number = ? ORDER BY t.tag`,
    isolation,
  );
const FAN = { place: "K-345", how: ["touch"] };
const whoLocks = (competence: string | null) => (competence === "electrical" ? "Jonas Ekeberg" : "Sunniva Rask");

/** Fills a step's form and sends it. */
async function doStep(page: Page, label: string, lock: string, plate: string | null = null) {
  const form = page.getByRole("form", { name: label, exact: true });
  await fillStep(form, { tag: /[A-Z]+-\d+[A-Z]?/.exec(label)?.[0] ?? "", lock });
  if (plate !== null) await form.getByLabel("Plate reads").fill(plate);
  await form.getByLabel("Your PIN").fill(PIN);
  await form.locator('button[type="submit"]').click();
  return form;
}

test("one lock hangs in one place; a point that two jobs hold stays as it is until the second lets go", async ({
  as,
  site,
}) => {
  const one = await approvedJob(as, site, { title: "Grease the fan", face: FAN, lead: "Petra Quillon", crew: [] });
  const two = await approvedJob(as, site, { title: "Balance the fan", face: FAN, lead: "Bram Ostler", crew: [] });
  await walkByPost(as, site, one.isolation);
  const [hung] = holdsOf(site, one.isolation);
  expect(hung).toBeDefined();

  // The number of a lock that hangs already, as somebody types it.
  const isShared = ({ kind, subject }: Readonly<{ kind: string; subject: string }>) =>
    kind === "lock" && subject === hung!.tag;
  await walkByPost(as, site, two.isolation, "isolate", isShared);
  const step = stepsOf(site, two.isolation).find(isShared)!;
  const locker = await as(whoLocks(step.competence));
  await locker.goto(`/jobs/${two.job}/walk`);
  const taken = await doStep(locker, `lock ${hung!.tag}`, ` ${hung!.lock.toLowerCase()}`, step.plate);
  await expect(taken.getByRole("alert")).toContainText("is in use");
  expect(holdsOf(site, two.isolation).filter(({ tag }) => tag === hung!.tag)).toEqual([]);
  expect(rowsOf(site, "step.do", two.isolation).at(-1)).toMatchObject({ outcome: "refused" });
  await walkByPost(as, site, two.isolation);

  // The first gives the points back: only its lock comes off, and nothing is started over the other's.
  await done(await as("Maren Tolve"), "return.start", { isolation: one.isolation, leftSafe: "" });
  const isUnlock = ({ kind, subject }: Readonly<{ kind: string; subject: string }>) =>
    kind === "unlock" && subject === hung!.tag;
  await walkByPost(as, site, one.isolation, "restore", isUnlock);
  await locker.goto(`/jobs/${one.job}/return`);
  await expect(locker.getByText("Only your lock comes off.")).toBeVisible();
  const back = stepsOf(site, one.isolation).find(isUnlock)!;
  await doStep(locker, `unlock ${hung!.tag}`, hung!.lock, back.plate);
  await expect(locker.getByText(`It stays as it is: ${two.isolation} still held it`).first()).toBeVisible();
  const [still] = holdsOf(site, two.isolation).filter(({ tag }) => tag === hung!.tag);
  expect(still).toMatchObject({ lifted: null });
  const begins = stepsOf(site, one.isolation).filter(
    (next) => next.phase === "restore" && !next.done && next.kind === "start",
  );
  expect(begins.length).toBeGreaterThan(0);
  await walkByPost(as, site, one.isolation, "restore", ({ kind }) => kind === "start");
  for (const start of begins) {
    const answer = await post(await as("Jonas Ekeberg"), "step.do", {
      isolation: one.isolation,
      step: start.id,
      ...soundReport(start),
    });
    expect(answer.body).toMatchObject({ ok: false, code: "held by others" });
    expect(answer.body.sentence).toContain(two.isolation);
  }
  expect(site.lantern("verify").out).toContain("The state is as the ledger wrote it");
});

test("no permit is issued while a hazard is undecided, a permit that the work requires is missing, or no copy hangs", async ({
  as,
  site,
}) => {
  const { job, isolation, box } = await approvedJob(as, site, {
    title: "Look at the belt",
    face: FAN,
    lead: "Petra Quillon",
    crew: [],
  });
  await walkByPost(as, site, isolation);
  await done(await as("Maren Tolve"), "box.hang", { box, role: "coordinator", lock: `C-${box}` });
  const { permit } = await done(await as("Petra Quillon"), "permit.draft", {
    job,
    words: "Look at the belt",
    hazards: "Warm surfaces",
    precautions: "Gloves",
    validFrom_ms: Date.now() - 1000,
    validTo_ms: Date.now() + 8 * 3_600_000,
    details: DETAILS.general,
  });
  await done(await as("Maren Tolve"), "permit.check", { permit });
  const idris = await as("Idris Halloway");
  await done(idris, "permit.authorise", { permit });
  const issue = (copies: readonly string[]) => post(idris, "permit.issue", { permit, copies });
  const undecided = await issue(["at the work"]);
  expect(undecided.body).toMatchObject({ ok: false });
  expect(undecided.body.sentence).toContain("hazards");
  await idris.goto(`/permits/${permit}`);
  await expect(idris.getByText(/job's hazards are decided/i).first()).toBeVisible();

  await hazardsDecided(as, site, job);
  // Issued, and no copy hangs: nobody begins on it.
  expect((await issue([])).body).toMatchObject({ ok: true });
  const petra = await as("Petra Quillon");
  const bare = await post(petra, "permit.accept", { permit });
  expect(bare.body).toMatchObject({ ok: false });
  expect(bare.body.sentence).toMatch(/A copy is displayed at the work: none hangs/);
  expect(read(site, "SELECT state FROM permits WHERE number = ?", permit)).toEqual([{ state: "issued" }]);
  await petra.goto(`/permits/${permit}`);
  await expect(petra.getByText(/A copy is displayed at the work/).first()).toBeVisible();
  const rows = ["permit.issue", "permit.accept"].flatMap((type) => rowsOf(site, type, permit!));
  expect(rows.map(({ type, outcome }) => `${type} ${outcome}`)).toEqual([
    "permit.issue refused",
    "permit.issue done",
    "permit.accept refused",
  ]);
  await done(idris, "permit.cancel", { permit });
});

test("nobody is on two permits without saying so", async ({ as, site }) => {
  const crew = ["Petra Quillon", "Mika Thorne"];
  const { permit, box } = await workAt(as, site, { title: "Clean the fan", face: FAN, lead: "Petra Quillon", crew });
  const mika = await as("Mika Thorne");
  const lead = await as("Petra Quillon");
  await lead.goto(`/permits/${permit}`);
  await signOn(lead, "K-345", "H-901");
  await expect(lead.getByText("H-901").first()).toBeVisible();
  await done(mika, "permit.sign-on", { permit, lock: "H-902", answer: "K-345", briefed: true });

  // Another job with the same people.
  const other = await workAt(as, site, {
    title: "Paint the guard",
    face: { place: "K-207", how: ["touch"], carriers: ["power", "control"], reason: "the motor stays coupled" },
    lead: "Bram Ostler",
    crew: ["Bram Ostler", "Mika Thorne"],
  });
  await on(await as("Bram Ostler"), other.permit, "K-207", "H-903");
  await mika.goto(`/permits/${other.permit}`);
  const form = mika.getByRole("form", { name: "Sign on", exact: true });
  await form.getByRole("checkbox", { name: /I have read/ }).check();
  await form.getByLabel("I will work at").selectOption("K-207");
  await sign(mika, "Sign on", { "My lock number": "H-904" });
  await expect(form.getByRole("alert")).toContainText("Nobody is in two places");
  const locks = () =>
    read(
      site,
      "SELECT lock FROM personal_locks WHERE person_id = ? AND off_at_ms IS NULL ORDER BY lock",
      idOf(site, "Mika Thorne"),
    );
  expect(locks()).toEqual([{ lock: "H-902" }]);
  // Who goes from one to the other says so, and it stands in the record by which permit.
  await form.getByRole("checkbox", { name: /as well, at other work/ }).check();
  await sign(mika, "Sign on", { "My lock number": "H-904" });
  await expect.poll(locks).toEqual([{ lock: "H-902" }, { lock: "H-904" }]);
  const bodies = read<{ body: string }>(
    site,
    "SELECT body FROM ledger WHERE type = 'permit.sign-on' AND outcome = 'done' AND subject = ?",
    other.permit,
  );
  expect(bodies.at(-1)!.body).toContain(permit);
  expect(box).not.toBe(other.box);
});

test("the plate is read on the spot: the form does not say it before", async ({ as, site }) => {
  const crew = ["Petra Quillon"];
  const made = await approvedJob(as, site, {
    title: "Look at the terminals",
    face: { place: "K-207", how: ["touch"], carriers: ["power", "control"], reason: "the motor stays coupled" },
    lead: "Petra Quillon",
    crew,
  });
  const isPlated = ({ kind, plate, subject }: { kind: string; plate: string | null; subject: string }) =>
    kind === "lock" && plate !== null && plate !== subject;
  await walkByPost(as, site, made.isolation, "isolate", isPlated);
  const step = stepsOf(site, made.isolation).find((one) => isPlated(one) && !one.done)!;
  const locker = await as(whoLocks(step.competence));
  await locker.goto(`/jobs/${made.job}/walk`);
  const item = locker.getByRole("listitem").filter({ has: locker.getByRole("form", { name: `lock ${step.subject}` }) });
  await expect(item.getByLabel("Plate reads").first()).toHaveValue("");
  await expect(item.first()).not.toContainText(step.plate!);
  const wrong = await doStep(locker, `lock ${step.subject}`, "L-PLATE");
  await expect(wrong).toHaveCount(0);
  expect(holdsOf(site, made.isolation).map(({ tag }) => tag)).toContain(step.subject);
});

test("people are counted at the end: the form does not say how many it should be, and another number stops the return", async ({
  as,
  site,
}) => {
  const crew = ["Bram Ostler", "Mika Thorne"];
  const at = { title: "Look at the fan's feet", face: FAN, lead: "Bram Ostler", crew };
  const { job, isolation, box, permit } = await workAt(as, site, at);
  const [bram, mika, maren] = [await as("Bram Ostler"), await as("Mika Thorne"), await as("Maren Tolve")];
  const idris = await as("Idris Halloway");
  await on(bram, permit, "K-345", "H-911");
  await on(mika, permit, "K-345", "H-912");
  for (const page of [mika, bram]) await done(page, "permit.sign-off", { permit });
  await done(bram, "permit.hand-back", { permit });
  await done(idris, "permit.inspect", { permit, words: "Clean, nothing left." });
  await done(bram, "permit.return-copy", { permit, copy: 1 });
  await done(idris, "permit.close", { permit });
  const others = read<{ number: string }>(
    site,
    `SELECT p.number FROM permits p JOIN jobs j ON j.id = p.job_id WHERE j.number = ? AND p.state NOT IN ('closed', 'cancelled')`,
    job,
  );
  for (const { number } of others) await done(idris, "permit.cancel", { permit: number });
  await done(maren, "box.take-off", { box, lock: `C-${box}` });
  await done(maren, "return.start", { isolation, leftSafe: "" });
  const isCount = ({ kind }: Readonly<{ kind: string }>) => kind === "count people";
  await walkByPost(as, site, isolation, "restore", isCount);
  const step = stepsOf(site, isolation).find(isCount)!;
  const label = `count people ${step.subject}`;
  const sunniva = await as("Sunniva Rask");
  await sunniva.goto(`/jobs/${job}/return`);
  const form = sunniva.getByRole("form", { name: label, exact: true });
  const item = sunniva.getByRole("listitem").filter({ has: form });
  await expect(form.getByLabel("People counted")).toHaveValue("");
  // Two have worked; neither a figure nor a word says so before it is counted, and no name helps to guess.
  await expect(item.first()).not.toContainText(/\b(2|two)\b|Bram Ostler|Mika Thorne/i);
  const count = async (people: number) => {
    await form.getByLabel("People counted").fill(String(people));
    await form.getByLabel("Your PIN").fill(PIN);
    await form.locator('button[type="submit"]').click();
  };
  await count(1);
  await expect(form.getByRole("alert")).toContainText("You count 1 person, and that is not how many have worked here");
  await expect(form.getByRole("alert")).not.toContainText(/\b2\b/);
  const isDone = () => stepsOf(site, isolation).find(isCount)!.done;
  expect(isDone()).toBe(false);
  await count(2);
  await expect.poll(isDone).toBe(true);
  const rows = rowsOf(site, "step.do", isolation).slice(-2);
  expect(rows.map(({ outcome }) => outcome)).toEqual(["refused", "done"]);
});

test("a shift is handed over item by item: what is not ticked or asked is told, who comes signs with their PIN, and a question waits for its answer", async ({
  as,
  site,
}) => {
  // Twelve permits of which three are stopped, as on a busy evening.
  const lead = await as("Petra Quillon");
  const more: string[] = [];
  while (read(site, "SELECT 1 FROM permits WHERE state IN ('live', 'suspended')").length < 12) {
    const { permit } = await done(lead, "permit.draft", {
      job: "J-0001",
      words: `Look at bolt ${more.length + 1}`,
      hazards: "Oil.",
      precautions: "Gloves.",
      validFrom_ms: Date.now() - 1000,
      validTo_ms: Date.now() + 4 * 3_600_000,
    });
    await signedToIssue(as, site, permit!);
    await done(lead, "permit.accept", { permit });
    more.push(permit!);
  }
  const stoppedNow = more.slice(0, 3);
  for (const permit of stoppedNow) await done(lead, "permit.stop", { permit, reason: "Rain through the roof." });
  const maren = await as("Maren Tolve");
  await maren.goto("/handover");
  const form = maren.getByRole("form", { name: "Hand over the shift" });
  const ticks = form.getByRole("list").getByRole("checkbox");
  for (const permit of ["P-0001", "P-0002", ...more]) await expect(form.getByText(permit).first()).toBeVisible();
  await expect(form.getByText(/Rain through the roof/)).toHaveCount(stoppedNow.length);
  const [first, ...rest] = await ticks.all();
  for (const tick of rest) await tick.check();
  await form.getByRole("combobox", { name: /Who comes/ }).selectOption({ label: "Idris Halloway" });
  await form.getByLabel("PIN of who comes").fill(PIN);
  await sign(maren, "Hand over the shift");
  await expect(form.getByRole("alert")).toContainText("Not gone through yet, 1: ");
  // Nothing that was ticked is lost, and what is not understood is asked.
  await expect(rest[0]!).toBeChecked();
  await expect(first!).not.toBeChecked();
  await form.getByPlaceholder("ask").first().fill("Who has the key of the tipper?");
  await sign(maren, "Hand over the shift");
  await expect(maren.getByText(/^Last: H-\d+/)).toContainText("from Maren Tolve to Idris Halloway");
  expect(read(site, "SELECT count(*) AS n FROM handovers")).toEqual([{ n: 1 }]);
  const [row] = read<{ body: string }>(
    site,
    "SELECT body FROM ledger WHERE type = 'shift.hand-over' AND outcome = 'done'",
  );
  for (const permit of more) expect(row!.body).toContain(permit);
  const idris = await as("Idris Halloway");
  await idris.goto("/handover");
  const answer = idris.getByRole("form", { name: "Answer: Who has the key of the tipper?" });
  await answer.getByLabel("The answer").fill("Petra, in her box.");
  await answer.getByRole("button").click();
  await expect(idris.getByText(/^Idris Halloway, .*: Petra, in her box\.$/)).toBeVisible();
  await expect(answer).toHaveCount(0);
});
