import type { PermitDetails } from "../../src/core/permit/kinds/details";
import { air, HOUR_MS, MINUTE_MS, moving, sees } from "./moving";
import { expect, post, sign } from "./site";
import { approvedJob, done, on, read, stepsOf, walkByPost } from "./work";

const test = moving();

test("an entry with a pocket of gas in one corner: everybody out, purged, tested, in again", async ({
  as,
  site,
  clock,
}) => {
  test.setTimeout(900_000);
  const { job, isolation, box } = await approvedJob(as, site, {
    title: "Scrape the day tank",
    face: { place: "T-235", how: ["enter"] },
    lead: "Bram Ostler",
    crew: ["Bram Ostler", "Mika Thorne"],
  });
  await walkByPost(as, site, isolation, "isolate", ({ kind }) => kind === "empty");
  // It is emptied with somebody beside it, who is named; a level that is not at zero leaves it undone and on no record.
  const isolator = await as("Sunniva Rask");
  await isolator.goto(`/jobs/${job}/walk`);
  const emptying = isolator.getByRole("listitem", { name: /empty T-235/ });
  await emptying.getByLabel("Who watches it").selectOption({ label: "Ruth Amberley" });
  await emptying.getByLabel("How it leaves").selectOption({ label: "It drains" });
  await sign(isolator, "begin: empty T-235");
  await expect(emptying).toContainText(/Begun \d\d:\d\d by Sunniva Rask, drained\. Ruth Amberley watches it/);
  await emptying.getByText("Whoever watches is called away: it is shut").click();
  await emptying.getByLabel("Why").fill("Called to the boiler house.");
  await sign(isolator, "stop: empty T-235");
  await expect(emptying.getByText(/Ruth Amberley watches/)).toHaveCount(0);
  await isolator.goto("about:blank");
  await walkByPost(as, site, isolation, "isolate", ({ kind }) => kind === "certify");
  const certificate = { isolation, step: stepsOf(site, isolation).find(({ kind }) => kind === "certify")!.id };
  const own = await post(isolator, "step.do", { ...certificate, words: "DC-1, myself" });
  expect(own.body.sentence).toMatch(/second person|somebody else/i);
  await walkByPost(as, site, isolation, "isolate", ({ kind }) => kind === "purge");
  // A purge is begun, and over only when its time is.
  const sunniva = await as("Sunniva Rask");
  await sunniva.goto(`/jobs/${job}/walk`);
  await sign(sunniva, "begin: purge T-235");
  const row = sunniva.getByRole("listitem", { name: /purge T-235/ });
  await expect(row).toContainText(/Begun \d\d:\d\d by Sunniva Rask/);
  await expect(row).toContainText(/Over at \d\d:\d\d, not before/);
  await sign(sunniva, "purge T-235");
  await expect(row.getByRole("alert")).toContainText(/lasts .* are left/);

  await sunniva.goto("about:blank");
  await walkByPost(as, site, isolation);
  const maren = await as("Maren Tolve");
  await done(maren, "box.hang", { box, role: "coordinator", lock: `C-${box}` });
  await done(maren, "hazard.conditions", { job, weather: "Dry", tools: "scraper", inspected: "scraper" });
  await maren.goto(`/jobs/${job}/hazards`);
  // Each hazard is kept, but for one that does not apply, with its reason.
  const form = maren.getByRole("form", { name: "Decide the hazards" });
  for (const keep of await form.getByRole("radio", { name: "Keep" }).all()) await keep.check();
  const burn = form.getByRole("group", { name: "What eats skin and eyes" });
  if ((await burn.count()) > 0) {
    await burn.getByRole("radio", { name: "Does not apply" }).check();
    await form.getByRole("button", { name: "Keep what I have decided" }).click();
    await expect(burn).toContainText("rejected with a reason");
    await burn.getByLabel("Why it does not apply").fill("Oil only.");
  }
  await form.getByRole("button", { name: "Keep what I have decided" }).click();
  await expect(form).toHaveCount(0);
  if ((await maren.getByText("What eats skin and eyes").count()) > 0) {
    await expect(maren.getByText(/does not apply by Maren Tolve: Oil only./)).toBeVisible();
  }
  await expect(maren.getByText("Everything is decided.")).toBeVisible();
  await expect(maren.getByRole("link", { name: "confined space entry" })).toBeVisible();

  const bram = await as("Bram Ostler");
  const details: Partial<PermitDetails> = {
    kind: "confined space entry",
    space: "T-235",
    badAir: true,
    engulfing: true,
    depth_m: 2.4,
    travel_m: 0,
    width_m: 1.2,
    corners: 1,
    ducts: 0,
    volume_m3: 20,
    chimneys: 1,
    blower_m3_s: 0.5,
    bends: 0,
    gases: ["hydrogen sulphide"],
    most: 2,
    talk_min: 15,
    rescue: "Winch at the manhole.",
    rehearsed_ms: clock.now_ms - 30 * 24 * HOUR_MS,
  };
  const { permit } = await done(bram, "permit.draft", {
    job,
    words: "Scrape the wall of the day tank.",
    hazards: "Oil film; heat.",
    precautions: "Blinds in; blower on.",
    validFrom_ms: clock.now_ms,
    validTo_ms: clock.now_ms + 8 * HOUR_MS,
    details,
  });
  const P = { permit: permit! };
  await done(maren, "permit.check", P);
  const idris = await as("Idris Halloway");
  await done(idris, "permit.authorise", P);
  await bram.goto(`/permits/${permit}`);
  const round = bram.getByRole("form", { name: "Looked at" });
  for (const tick of await round.getByRole("checkbox").all()) await tick.check();
  await sign(bram, "Looked at");
  await expect(round).toHaveCount(0);
  await done(idris, "permit.issue", { ...P, copies: ["at the manhole"] });

  const nils = await as("Nils Harrow");
  const purge = async () => {
    await done(nils, "permit.begin-purge", P);
    expect((await post(nils, "permit.end-purge", P)).body.code).toBe("purge too short");
    // Down to 10 ppm of hydrogen sulphide takes longer than the rule of thumb.
    await clock.on(25 * MINUTE_MS);
    await done(nils, "permit.end-purge", P);
  };
  await air(clock, nils, permit!, ["through the closed cover"], { "hydrogen sulphide": 0 });
  await purge();
  await done(nils, "permit.begin-ventilation", P);
  await nils.goto(`/permits/${permit}`);
  const points = await nils
    .getByRole("list", { name: "Test points" })
    .getByRole("listitem")
    .locator("span.font-medium")
    .allInnerTexts();
  expect(points).toHaveLength(5);
  const clean = { "hydrogen sulphide": 0 };
  const outside = points.filter((point) => !point.startsWith("corner"));
  const corners = points.filter((point) => point.startsWith("corner"));
  await air(clock, nils, permit!, outside, clean);
  const kaspar = await as("Kaspar Lind");
  await done(kaspar, "permit.take-post", { ...P, post: "attendant" });
  await done(bram, "permit.accept", P);
  await on(bram, permit!, "T-235", "B-1");
  await on(await as("Mika Thorne"), permit!, "T-235", "B-2");

  const personOf = (name: string) => read<{ id: string }>(site, "SELECT id FROM people WHERE name = ?", name)[0]!.id;
  // The attendant lets them in, one after the other, and speaks to them.
  await kaspar.goto(`/permits/${permit}`);
  const letIn = kaspar.getByRole("form", { name: "Let in" });
  for (const name of ["Bram Ostler", "Mika Thorne"]) {
    await letIn.getByLabel("Who goes in").selectOption({ label: name });
    await letIn.locator('button[type="submit"]').click();
    if (name === "Bram Ostler") {
      await expect(kaspar.getByRole("form", { name: `${name} out` })).toBeVisible();
      // The first reads the corners; until then nobody else goes in.
      const second = { ...P, person: personOf("Mika Thorne") };
      expect((await post(kaspar, "permit.go-in", second)).body.code).toBe("corners first");
      await air(clock, nils, permit!, corners, clean);
      await kaspar.reload();
      continue;
    }
    await expect(kaspar.getByRole("form", { name: `${name} out` })).toBeVisible();
  }
  await expect(kaspar.getByText("Inside now: 2 of at most 2")).toBeVisible();
  await clock.on(10 * MINUTE_MS);
  await kaspar.getByRole("form", { name: "Spoken to" }).locator('button[type="submit"]').click();

  // A pocket in the low corner.
  const corner = points.at(-1)!;
  expect(corner).toBe("corner 1 low");
  await done(nils, "permit.begin-sample", { ...P, point: corner, instrument: "GI-03" });
  await clock.on(2 * MINUTE_MS);
  await nils.reload();
  const reading = nils.getByRole("form", { name: "Read the air" });
  await reading.getByLabel("Oxygen, %").fill("20.4");
  await reading.getByLabel("Flammable, % of the lower limit").fill("18");
  await reading.getByLabel("Hydrogen sulphide, ppm").fill("2");
  await sign(nils, "Read the air");
  // The attendant's open page says it without being touched.
  await expect(kaspar.getByText("Stop. Everybody out.")).toBeVisible();
  await expect(kaspar.getByText("Still inside: Bram Ostler, Mika Thorne.")).toBeVisible();
  expect((await post(idris, "permit.resume", { ...P, words: "fine" })).body.code).toBe("still inside");
  for (const name of ["Bram Ostler", "Mika Thorne"]) {
    await kaspar
      .getByRole("form", { name: `${name} out` })
      .getByRole("button")
      .click();
    await expect(kaspar.getByRole("form", { name: `${name} out` })).toHaveCount(0);
  }
  await expect(kaspar.getByText("Everybody is accounted for.", { exact: false })).toBeVisible();
  await nils.reload();
  const flush = nils.getByRole("form", { name: "Blow out a pocket" });
  await flush.getByLabel(/Hose aimed at corner 1 low/).fill("90");
  await flush.locator('button[type="submit"]').click();
  expect((await post(idris, "permit.resume", { ...P, words: "fine" })).body.code).toBe("asks unmet");
  const cause = nils.getByRole("form", { name: "Cause of the bad reading" });
  await cause.getByLabel("It came from").selectOption("pocket");
  await sign(nils, "Cause of the bad reading", { "What was found": "Sludge under the coil." });
  await expect(cause).toHaveCount(0);
  await purge();
  expect((await post(idris, "permit.resume", { ...P, words: "fine" })).body.code).toBe("asks unmet");
  await air(clock, nils, permit!, outside, clean);
  // What was confirmed before everybody was called out is looked at again, in one round.
  expect((await post(idris, "permit.resume", { ...P, words: "fine" })).body.sentence).toMatch(/looked again since/);
  await bram.goto(`/permits/${permit}`);
  for (const tick of await round.getByRole("checkbox").all()) await tick.check();
  await sign(bram, "Looked at");
  await expect(round).toHaveCount(0);
  await idris.goto(`/permits/${permit}`);
  await sign(idris, "Resume", { "What you found": "Sludge under the coil taken out; purged; every point read." });
  await sees(idris, "active");
  await kaspar.reload();
  await letIn.getByLabel("Who goes in").selectOption({ label: "Bram Ostler" });
  await letIn.locator('button[type="submit"]').click();
  await expect(kaspar.getByText("Inside now: 1 of at most 2")).toBeVisible();
  await kaspar.getByRole("form", { name: "Bram Ostler out" }).locator('button[type="submit"]').click();
  expect((await post(kaspar, "permit.leave-post", { ...P, post: "attendant" })).status).toBe(200);
  expect(site.lantern("verify").out).toContain("The ledger is whole");
});
