import { expect, ownSite, PIN, post, sign } from "./site";
import { done, on, read, walkByPost, workAt } from "./work";

const test = ownSite();

const FACE = {
  place: "AG-230",
  how: ["touch"],
  carriers: ["power", "control", "shaft"],
  reason: "the vessel stays closed",
};
const DAY = ["Petra Quillon", "Tomas Veyron", "Nils Harrow", "Edda Morrow", "Kaspar Lind", "Yrsa Oakley"];
const NIGHT = ["Bram Ostler", "Ines Calder", "Joss Perrin", "Mika Thorne", "Rhea Vance", "Silas Wren"];

test("a crew of six hands over to the next: all locks on before any is off, every PIN, and the lead with it", async ({
  as,
  site,
}) => {
  // Who comes on is nowhere else.
  await done(await as("Bram Ostler"), "permit.sign-off", { permit: "P-0002" });
  const { permit, box } = await workAt(as, site, {
    title: "Align the agitator's gearbox",
    face: FACE,
    lead: DAY[0]!,
    crew: [...DAY, ...NIGHT],
  });
  for (const [i, name] of DAY.entries()) {
    await on(await as(name), permit, "AG-230", `DAY-${i + 1}`);
  }
  const petra = await as(DAY[0]!);
  await petra.goto(`/permits/${permit}`);
  await expect(petra.getByText("There now: 6")).toBeVisible();
  // The lead may not leave the others behind.
  await sign(petra, "Sign off");
  await expect(petra.getByRole("alert").filter({ hasText: "Your lock is the last to come off" })).toBeVisible();

  await petra.getByText("Hand over to others").click();
  const form = petra.getByRole("form", { name: "Hand over", exact: true });
  for (const [i, name] of DAY.entries()) {
    const row = form.getByRole("listitem", { name: `In place of ${name}` });
    await row.getByRole("combobox", { name: "Who comes" }).selectOption({ label: NIGHT[i]! });
    await row.getByLabel("Their lock").fill(`NIGHT-${i + 1}`);
    await row.getByLabel("PIN of who comes").fill(i === 3 ? "9999" : PIN);
    await row.getByLabel(`PIN of ${name}`).fill(PIN);
  }
  const button = form.getByRole("button");
  await button.click();
  await expect(form.getByRole("alert")).toContainText(`${NIGHT[3]}: The PIN is not right`);
  const whoIsOn = () =>
    read<{ name: string }>(
      site,
      `SELECT p.name FROM personal_locks l JOIN people p ON p.id = l.person_id JOIN permits t ON t.id = l.permit_id
       WHERE t.number = ? AND l.off_at_ms IS NULL ORDER BY p.name`,
      permit,
    ).map(({ name }) => name);
  expect(whoIsOn()).toEqual([...DAY].sort());
  await form
    .getByRole("listitem", { name: `In place of ${DAY[3]}` })
    .getByLabel("PIN of who comes")
    .fill(PIN);
  await button.click();
  await expect(petra.getByText("Bram Ostler, holder")).toBeVisible();
  await expect(petra.getByText("There now: 6")).toBeVisible();
  expect(whoIsOn()).toEqual([...NIGHT].sort());

  // No moment without a lock: who came is on since no later than who went is off.
  const [gap] = read<{ gap: number }>(
    site,
    `SELECT max(l.on_at_ms) - min(o.off_at_ms) AS gap FROM personal_locks l, personal_locks o
     JOIN permits t ON t.id = l.permit_id AND t.id = o.permit_id
     WHERE t.number = ? AND l.off_at_ms IS NULL AND o.off_at_ms IS NOT NULL`,
    permit,
  );
  expect(gap!.gap).toBeLessThanOrEqual(0);
  await petra.goto(`/boxes/${box}`);
  await expect(petra.getByRole("listitem").filter({ hasText: "NIGHT-6" })).toContainText("Silas Wren");
  // The PINs are nowhere, and the box paper and the handover sheet are there.
  // As a value of their own: ids and hashes hold any digits.
  expect(
    read(site, `SELECT seq FROM ledger WHERE body LIKE '%"9999"%' OR body LIKE '%"${PIN}"%' OR body LIKE '%Pin"%'`),
  ).toEqual([]);
  for (const paper of [`/boxes/${box}/paper`, "/handover/paper"]) {
    const response = await petra.request.get(paper);
    expect(response.headers()["content-type"]).toBe("application/pdf");
  }
});

test("points are lifted for a test only over nobody, signed for, and locked and proved again before anybody is on", async ({
  as,
  site,
}) => {
  const { job, isolation, box, permit } = await workAt(as, site, {
    title: "Change the belts of the blower",
    face: { place: "M-204A", how: ["touch"], carriers: ["power", "control"], reason: "the pump stays closed" },
    lead: "Petra Quillon",
    crew: ["Petra Quillon"],
  });
  const petra = await as("Petra Quillon");
  await on(petra, permit, "M-204A", "P-TEST");
  await petra.goto(`/jobs/${job}/walk`);
  await petra.getByText("Lift points for a test, jogging or positioning").click();
  const ask = petra.getByRole("form", { name: "Ask for a temporary de-isolation" });
  await ask.getByRole("checkbox", { name: "Q-207" }).check();
  await ask.getByLabel("What is tested").fill("Which way does it turn?");
  await ask.getByLabel("Your PIN").fill(PIN);
  await ask.locator('button[type="submit"]').click();
  const card = petra.getByRole("region", { name: /^Temporary de-isolation T-\d+$/ });
  await expect(card.getByText("still on: Petra Quillon")).toBeVisible();
  const test = (await card.getAttribute("aria-label"))!.split(" ").at(-1)!;

  // Refused while she is on, whoever asks and however.
  await sign(petra, `Agree for ${job}`);
  await expect(card.getByRole("alert").filter({ hasText: "Still signed on: Petra Quillon" })).toBeVisible();
  const maren = await as("Maren Tolve");
  const early = await post(maren, "test.start", { test });
  expect([early.status, early.body.code]).toEqual([409, "not agreed"]);

  await done(petra, "permit.sign-off", { permit });
  await petra.reload();
  await sign(petra, `Agree for ${job}`);
  await expect(card.getByText(/Petra Quillon signed/)).toBeVisible();
  await maren.goto(`/jobs/${job}/walk`);
  await sign(maren, `Start ${test}`);
  await expect(maren.getByRole("heading", { name: "Lifted for a test" })).toBeVisible();
  const late = await post(petra, "permit.sign-on", {
    permit,
    lock: "P-TEST",
    answer: "M-204A",
    briefed: true,
    also: "P-0001",
  });
  expect(late.status).toBe(409);

  // The coordinator's lock comes off, the box opens, and every step is done; the proof is a new one.
  await maren.goto(`/boxes/${box}`);
  await sign(maren, `Take C-${box} off the box`);
  await expect(maren.getByText("No lock hangs on it.")).toBeVisible();
  await walkByPost(as, site, isolation, "test");
  await maren.goto(`/jobs/${job}/walk`);
  await expect(maren.getByRole("heading", { name: `Isolation ${isolation}: proven` })).toBeVisible();
  await expect(maren.getByText(/locked and proved again by/)).toBeVisible();
  const [proofs] = read<{ n: number }>(
    site,
    `SELECT count(*) AS n FROM steps s JOIN isolations i ON i.id = s.isolation_id
     WHERE i.number = ? AND s.step_id LIKE 't1-%' AND s.step_json LIKE '%"kind":"prove"%' AND s.done_at_ms IS NOT NULL`,
    isolation,
  );
  expect(proofs!.n).toBeGreaterThan(0);
  await maren.goto(`/boxes/${box}`);
  await sign(maren, "Hang my lock on the box", { "My lock number": `C-${box}` });
  await expect(maren.getByText("coordinator, first on and last off")).toBeVisible();
  // What stopped it is over: the issuer lets the work go on.
  await done(await as("Idris Halloway"), "permit.resume", { permit, words: "The test is over; all is proved again." });
  await on(petra, permit, "M-204A", "P-TEST");
  const paper = await petra.request.get(`/jobs/${job}/certificate`);
  expect(paper.headers()["content-type"]).toBe("application/pdf");
});
