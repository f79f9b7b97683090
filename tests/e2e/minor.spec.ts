import { expectNoAxeViolation } from "./axe";
import { Hand } from "./hand";
import { expect, ownSite, PIN, post } from "./site";
import { fill } from "./stepHand";
import { done, idOf, read, stepsOf } from "./work";

const test = ownSite();

/** The lock that Odalys keeps for herself, and the machine of the story: a bench drill behind one switch. */
const LOCK = "O-41";
const MACHINE = "DR-803";

test("a minor isolation by the short route: at most 6 acts and 3 PINs, and what is not one is not offered as one", async ({
  as,
  site,
}) => {
  test.setTimeout(300_000);
  const odalys = idOf(site, "Odalys Brenn");
  const maren = await as("Maren Tolve");
  await done(maren, "gear.enter", { kind: "lock", number: LOCK, owner: odalys });
  const hand = new Hand();

  await hand.open(maren, "/jobs/new");
  await hand.type(maren.getByLabel("What is to be done"), "Change the drive belt");
  await hand.type(maren.getByLabel("In more words"), "Guard off, belt changed, guard on.");
  await hand.type(maren.getByLabel("Work location 1: tag, or tag.part"), MACHINE);
  await hand.tap(maren.getByRole("checkbox", { name: "touch it" }).first());
  await hand.tick(maren.getByRole("radio", { name: "No, off again within the shift" }));
  await hand.choose(maren.getByLabel("Permit holder, in charge of the party"), { label: "Odalys Brenn" });
  await hand.send(maren, maren.getByRole("form", { name: "New request" }), "request");
  await expect(maren).toHaveURL(/\/jobs\/J-\d+\/energies/);
  const job = /J-\d+/.exec(maren.url())![0];

  await hand.open(maren, `/jobs/${job}/points`);
  const approve = await hand.reach(maren, "Approve by the short route");
  // Nothing that answers for anybody stands there beforehand.
  await expect(approve.getByRole("checkbox", { name: /never started/ })).not.toBeChecked();
  await expect(approve.getByRole("checkbox", { name: /Nobody else is put at risk/ })).not.toBeChecked();
  for (const keep of await approve.getByRole("radio", { name: "Keep" }).all()) await hand.tick(keep);
  const weather = approve.getByLabel("Weather", { exact: true });
  if ((await weather.count()) > 0) await hand.type(weather, "Dry");
  await hand.tick(approve.getByRole("checkbox", { name: /Nobody else is put at risk/ }));
  await hand.tick(approve.getByRole("checkbox", { name: /never started/ }));
  await hand.tick(approve.getByRole("checkbox", { name: /they are checked/ }));
  await expectNoAxeViolation(maren, "points, short route");
  await hand.send(maren, approve, "hazards, short route, record, check");
  await expect(maren).toHaveURL(new RegExp(`/jobs/${job}/walk`));
  const [made] = read<{ isolation: string; permit: string }>(
    site,
    `SELECT i.number AS isolation, p.number AS permit FROM isolations i
     JOIN permit_isolations pi ON pi.isolation_id = i.id JOIN permits p ON p.id = pi.permit_id
     JOIN jobs j ON j.id = p.job_id WHERE j.number = ?`,
    job,
  );
  const { isolation, permit } = made!;
  await maren.goto("about:blank");

  // Somebody else does none of it.
  const jonas = await as("Jonas Ekeberg");
  const first = stepsOf(site, isolation).find(({ kind }) => kind === "tell")!;
  const other = await post(jonas, "step.do", { isolation, step: first.id, words: "Control room" });
  expect(other.body.sentence).toMatch(/Odalys Brenn works alone/);

  const phone = await as("Odalys Brenn");
  await phone.setViewportSize({ width: 390, height: 844 });
  await hand.open(phone, `/jobs/${job}/walk`);
  const plates = new Map(stepsOf(site, isolation).map(({ subject, plate }) => [subject, plate ?? ""]));
  const now = phone.getByRole("region", { name: "Now", exact: true });
  for (const { kind, subject, carrier } of stepsOf(site, isolation).filter(({ phase }) => phase === "isolate")) {
    const label = `${kind} ${subject}${carrier === null ? "" : ` (${carrier})`}`;
    const form = now.locator(`form[aria-label="${label}"]`).first();
    await form.waitFor();
    await fill(hand, form, { lock: LOCK, plate: plates.get(subject) ?? "" });
    await hand.later(form);
  }
  const begin = await hand.reach(phone, "Begin alone");
  await expectNoAxeViolation(phone, "begin alone");
  await hand.tick(begin.getByRole("checkbox", { name: /nothing else/ }));
  await hand.send(phone, begin, "locked, proved, tried, begun");

  // On, where whoever counts heads finds her.
  await maren.goto("/people");
  await expect(maren.getByText("Odalys Brenn").first()).toBeVisible();
  const [on] = read<{ n: number }>(
    site,
    "SELECT count(*) AS n FROM personal_locks WHERE lock = ? AND off_at_ms IS NULL",
    LOCK,
  );
  expect(on).toEqual({ n: 1 });
  // Nobody takes her lock off, nor ends it while she is on.
  const unlock = stepsOf(site, isolation).find(({ kind }) => kind === "unlock")!;
  const refused = async (page: typeof maren, type: string, input: object) =>
    (await post(page, type, input)).body.sentence ?? "not refused";
  expect(await refused(maren, "return.start", { isolation })).toMatch(/Still signed on: Odalys Brenn/);
  expect(await refused(maren, "permit.end-alone", { permit })).toMatch(/Still signed on: Odalys Brenn/);
  expect(await refused(maren, "isolation.re-plan", { isolation, plantRevision: 1 })).not.toBe("not refused");
  expect(await refused(jonas, "step.do", { isolation, step: unlock.id, plate: unlock.plate })).not.toBe("not refused");
  await maren.goto("about:blank");

  await hand.open(phone, `/jobs/${job}/return`);
  const end = await hand.reach(phone, "End alone");
  await expectNoAxeViolation(phone, "end alone");
  expect(await phone.evaluate(() => document.documentElement.scrollWidth - innerWidth)).toBeLessThanOrEqual(0);
  for (const box of await end.getByRole("checkbox").all()) {
    await expect(box).not.toBeChecked();
    await hand.tick(box);
  }
  const told = end.getByRole("button", { name: /^Put in / });
  await hand.tap(told.first());
  await hand.type(end.getByLabel("Plate reads"), unlock.plate ?? "");
  await hand.send(phone, end, "clear, told, lock off, closed");
  await expect(phone.getByText("The job is closed and back in service.")).toBeVisible();

  const cost = { acts: hand.acts, pins: hand.pins, fields: hand.fields, taps: hand.taps, keys: hand.keys };
  test.info().annotations.push({ type: "cost", description: JSON.stringify(cost) });
  console.log(JSON.stringify(cost), hand.log.join("\n"));
  expect(hand.acts).toBeLessThanOrEqual(6);
  expect(hand.pins).toBeLessThanOrEqual(3);
  expect(PIN.length).toBeLessThanOrEqual(5);
  // Each thing signed has its row, and the record is whole.
  expect(site.lantern("verify").status).toBe(0);

  // Work on conductors is no minor isolation: the page says why, and the server refuses it.
  const [like] = read<{ from: number; to: number }>(
    site,
    'SELECT window_from_ms AS "from", window_to_ms AS "to" FROM jobs WHERE number = ?',
    job,
  );
  const motor = await done(maren, "job.ask", {
    title: "Look at the fan motor",
    work: "Its terminal box.",
    faces: [{ place: "M-292", how: ["touch"] }],
    longerThanShift: false,
    windowFrom_ms: like!.from,
    windowTo_ms: like!.to,
    holder: odalys,
    crew: [],
  });
  await maren.goto(`/jobs/${motor.job}/points`);
  await maren.getByText("Short route", { exact: true }).waitFor();
  const why = maren.getByText(/This is no minor isolation/);
  // A touch before the page listens opens nothing.
  await expect(async () => {
    if (!(await why.isVisible())) await maren.getByText("Short route", { exact: true }).click();
    await expect(why).toBeVisible({ timeout: 2_000 });
  }).toPass();
  await expect(maren.getByRole("form", { name: "Approve by the short route" })).toHaveCount(0);
  const revision = read<{ r: number }>(site, "SELECT max(revision) AS r FROM plant_revisions")[0]!.r;
  const asked = { job: motor.job, school: "work", plantRevision: revision, route: "short" };
  expect(await refused(maren, "isolation.approve", asked)).toMatch(/nobody else is put at risk/);
  const declared = { ...asked, noOthersAtRisk: true, noAccidents: true };
  expect(await refused(maren, "isolation.approve", declared)).toMatch(/is no minor isolation/);
});
