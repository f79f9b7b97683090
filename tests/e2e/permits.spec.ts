import { spawn } from "node:child_process";
import { join, resolve } from "node:path";
import { shiftChanges } from "../../src/server/runtime/siteTime";
import { air, BUMP, HOUR_MS, MINUTE_MS, moving, sees } from "./moving";
import { CHOSEN, expect, post, reach, sign, signOn, type Site } from "./site";
import { SHEET } from "../support/permits";
import { done, read } from "./work";

const test = moving();

const HOME = resolve(import.meta.dirname, "../..");
test.describe.configure({ mode: "serial" });

const stateOf = (site: Site, permit: string) =>
  read<{ state: string }>(site, "SELECT state FROM permits WHERE number = ?", permit)[0]!.state;

test("a simulated detector trips a live permit on every screen, and its silence does too", async ({
  as,
  site,
  clock,
}) => {
  test.setTimeout(600_000);
  const permit = "P-0002";
  const send = (scenario: string) =>
    spawn("node", [join(HOME, ".lantern/instruments.mjs"), scenario, "--url", site.url], { stdio: "ignore" });
  const edda = await as("Edda Morrow");
  const petra = await as("Petra Quillon");
  await petra.goto(`/permits/${permit}`);
  await sees(petra, "active");
  await edda.goto(`/permits/${permit}`);
  const postIt = edda.getByRole("form", { name: "Post a detector" });
  // The first of a list is no answer that somebody gave.
  await expect(postIt.getByLabel("Detector")).toHaveValue("");
  await postIt.getByLabel("Detector").selectOption("GD-1");
  const where = postIt.getByLabel("It stands");
  if ((await where.inputValue()) === "") await where.selectOption({ index: 1 });
  // One that is off cannot be posted.
  await postIt.locator('button[type="submit"]').click();
  await expect(postIt.getByRole("alert")).toContainText("GD-1 sends nothing");
  const maren = await as("Maren Tolve");
  await maren.goto("/");
  const pocket = send("pocket");
  try {
    await expect(async () => {
      await postIt.locator('button[type="submit"]').click();
      await expect(edda.getByRole("list", { name: "Posted instruments" })).toContainText("GD-1", { timeout: 1500 });
    }).toPass();
    // Nobody touches anything: the page that is open says it, and the board of somebody else too.
    await sees(petra, "suspended");
    await expect(petra.getByText("Work is stopped.")).toBeVisible();
    await expect(petra.getByText(/flammable .* % of the lower limit/).first()).toBeVisible();
    await expect(maren.getByText(`Permit ${permit} has stopped.`)).toBeVisible();
    expect(stateOf(site, permit)).toBe("suspended");
  } finally {
    pocket.kill();
  }
  // The gas is gone and the instrument sends clean air: the air is read again, and the issuer lets the work go on.
  const clean = send("clean");
  try {
    await air(clock, await as("Nils Harrow"), permit, ["at the frame", "at the filler, low"]);
    const idris = await as("Idris Halloway");
    await expect
      .poll(async () => {
        const { status, body } = await post(idris, "permit.resume", { permit, words: "Vent shut, air clean." });
        return status === 200 ? "done" : body.sentence;
      })
      .toBe("done");
    await sees(petra, "active");
  } finally {
    clean.kill();
  }
  // It stops sending: that is an alarm as well, and the ledger names who acted.
  await sees(petra, "suspended");
  await expect(petra.getByText(/GD-1 is silent/).first()).toBeVisible();
  const stops = read<{ by_person: string }>(
    site,
    "SELECT by_person FROM ledger WHERE type = 'permit.stopped-by-itself' AND subject = ? ORDER BY seq",
    permit,
  );
  expect(stops.map((row) => row.by_person)).toEqual(["instrument GD-1", "clock"]);
  await done(edda, "detector.take", { permit, detector: "GD-1" });
});

test("hot work through two shifts with a break and a change of watch, then 3 h, 3 h of looks and a final check", async ({
  as,
  clock,
}) => {
  test.setTimeout(900_000);
  const job = "J-0007";
  const points = ["at the work", "at the edge, low"];

  // Written on the screen, with what the register and the hazards know filled in.
  const petra = await as("Petra Quillon");
  await petra.goto(`/jobs/${job}/permits?kind=hot%20work`);
  const form = petra.getByRole("form", { name: "Write a permit for hot work" });
  await expect(form.getByLabel("Hazards that remain")).toHaveValue(/Sparks and heat/);
  await form.getByRole("checkbox", { name: "grinding" }).check();
  await form.getByLabel("No gas cylinders are used").check();
  // What decides on safety is asked, and stands there by no default.
  await form.getByRole("button", { name: "Write the permit" }).click();
  await expect(form.getByRole("alert")).toContainText("How high above the floor the flame is, is missing");
  for (const [label, missing] of [
    ["Where the flame is", "Whether it is in or on equipment is missing"],
    ["Where sparks can land", "Whether one person sees all of it is missing"],
  ] as const) {
    await expect(form.getByRole("alert")).toContainText(missing);
    await form.getByLabel(label).selectOption("no");
  }
  await form.getByLabel("Above the floor").fill("0");
  await form.getByLabel("People with a flame or arc").fill("1");
  await form.getByLabel("Levels that sparks can reach").fill("1");
  await expect(form.getByLabel("Watch afterwards")).toHaveValue("class 3");
  const until = new Date(clock.now_ms + 20 * HOUR_MS);
  const local = new Date(until.getTime() - until.getTimezoneOffset() * MINUTE_MS).toISOString().slice(0, 16);
  await form.getByLabel("Valid until").fill(local);
  await form.getByRole("button", { name: "Write the permit" }).click();
  await expect(petra).toHaveURL(/\/permits\/P-\d+$/);
  const permit = /P-\d+/.exec(petra.url())![0];

  const maren = await as("Maren Tolve");
  await maren.goto(`/permits/${permit}`);
  await sign(maren, "Check");
  const idris = await as("Idris Halloway");
  await idris.goto(`/permits/${permit}`);
  await sign(idris, "Authorise");
  await sees(idris, "authorised");
  await sign(idris, "Issue");
  await expect(idris.getByRole("form", { name: "Issue", exact: true }).getByRole("alert")).toContainText("lacks");
  const signe = await as("Signe Aldane");
  await signe.goto(`/permits/${permit}`);
  await sign(signe, "Approve", { "What you approve, and on what terms": "Platform opened and seen empty." });
  await expect(signe.getByRole("form", { name: "Approve" })).toHaveCount(0);
  // A round over the place, ticked as she goes and signed once.
  const round = petra.getByRole("form", { name: "Looked at" });
  for (const box of await round.getByRole("checkbox").all()) await box.check();
  await sign(petra, "Looked at");
  await expect(round).toHaveCount(0);
  const issue = idris.getByRole("form", { name: "Issue", exact: true });
  await issue.getByLabel("Where its copies hang").fill("at gate 2");
  await sign(idris, "Issue");
  await sees(idris, "issued");

  const yrsa = await as("Yrsa Oakley");
  await yrsa.goto(`/permits/${permit}`);
  await yrsa.getByLabel(/My radio was answered/).check();
  await sign(yrsa, "Take the duty");
  await expect(yrsa.getByRole("heading", { name: "Fire watch: Yrsa Oakley" })).toBeVisible();
  // The first point by the screen, with its wait; the second by post.
  const nils = await as("Nils Harrow");
  await nils.goto(`/permits/${permit}`);
  const begin = nils.getByRole("form", { name: "Begin a sample" });
  // An instrument of today's delivery is bumped before anybody reads from it.
  const inDateUntil_ms = clock.now_ms + 30 * 24 * HOUR_MS;
  await done(maren, "gear.enter", { kind: "gas instrument", number: "GI-09", inDateUntil_ms });
  // Nobody wrote down what it reads: it is not among those that may be taken.
  await done(nils, "gear.bump", { ...BUMP, number: "GI-09" });
  const unknown = await post(nils, "permit.begin-sample", { permit, point: points[0], instrument: "GI-09" });
  expect(unknown.body.code).toBe("sheet missing");
  await done(maren, "gear.enter", { kind: "gas instrument", number: "GI-09", inDateUntil_ms, sheet: SHEET });
  await nils.reload();
  await begin.getByLabel("Instrument").fill("GI-09");
  await begin.locator('button[type="submit"]').click();
  await expect(begin.getByRole("alert")).toContainText("Blow test gas on it");
  await nils.getByText("Bump test an instrument").click();
  const bump = nils.getByRole("form", { name: "Bump test" });
  await expect(bump.getByText(/Not bumped in a day: .*GI-09/)).toBeVisible();
  await bump.getByLabel("Test gas").fill("methane, half its lower limit");
  await sign(nils, "Bump test", { "Instrument bumped": "GI-09" });
  await expect(bump.getByRole("alert")).toContainText("say whether it alarmed");
  await bump.getByLabel("What it did").selectOption("alarmed");
  await bump.getByLabel("Zeroed in fresh air, away from the work").check();
  await sign(nils, "Bump test");
  await begin.getByRole("button", { name: "Put in GI-09" }).click();
  await expect(begin.getByRole("textbox", { name: /^Instrument/ })).toHaveValue("GI-09");
  await begin.locator('button[type="submit"]').click();
  const reading = nils.getByRole("form", { name: "Read the air" });
  await reading.getByLabel("Oxygen, %").fill("20.9");
  await reading.getByLabel("Flammable, % of the lower limit").fill("0");
  await sign(nils, "Read the air");
  await expect(reading.getByRole("alert")).toContainText("has not come through the hose yet");
  await clock.on(2 * MINUTE_MS);
  await expect(reading.getByLabel("Oxygen, %")).toHaveValue("20.9");
  await sign(nils, "Read the air");
  await expect(nils.getByRole("list", { name: "Test points" })).toContainText("O₂ 20.9 %");
  await air(clock, nils, permit, points.slice(1));
  await petra.reload();
  await sign(petra, "Accept");
  await sees(petra, "active");
  await signOn(petra, "CV-412", "P-44");
  await expect(petra.getByText("There now: 1")).toBeVisible();

  // On to the next shift, the air read in time; there the issuer revalidates, with the air just read.
  const [change] = shiftChanges(clock.now_ms + MINUTE_MS, clock.now_ms + 9 * HOUR_MS);
  const after_ms = change! + 6 * MINUTE_MS;
  while (clock.now_ms < after_ms) {
    // Even steps: at the change the last reading is always old.
    const left_ms = after_ms - clock.now_ms;
    await clock.on(Math.ceil(left_ms / Math.ceil(left_ms / (100 * MINUTE_MS))));
    if (clock.now_ms >= after_ms) {
      await idris.reload();
      await sign(idris, "Revalidate", { "What you found": "As it was." });
      await expect(idris.getByRole("form", { name: "Revalidate" }).getByRole("alert")).toContainText("not read in the");
    }
    await air(clock, nils, permit, points);
  }
  await idris.reload();
  await sign(idris, "Revalidate", { "What you found": "As it was; screens stand." });
  await expect(idris.getByRole("form", { name: "Revalidate" })).toHaveCount(0);
  await clock.on(40 * MINUTE_MS);
  await petra.reload();
  await sees(petra, "active");

  // A break: the watch stays through it, and changes without a gap.
  await reach(petra, "Begin a break");
  await petra.getByRole("form", { name: "Begin a break" }).locator('button[type="submit"]').click();
  await sees(petra, "suspended");
  await yrsa.reload();
  await sign(yrsa, "Leave the duty");
  await expect(yrsa.getByRole("form", { name: "Leave the duty" }).getByRole("alert")).toContainText(
    "through breaks too",
  );
  const rhea = await as("Rhea Vance");
  await rhea.goto(`/permits/${permit}`);
  await sign(rhea, "Take the duty");
  await expect(rhea.getByRole("form", { name: "Leave the duty" })).toBeVisible();
  // She took it without saying that she is ready for it; she says so before work goes on, and nobody for her.
  const ready = rhea.getByRole("form", { name: "Looked at" });
  await ready.getByRole("checkbox", { name: /radio that was answered/ }).check();
  await sign(rhea, "Looked at");
  await expect(ready).toHaveCount(0);
  await sign(yrsa, "Leave the duty");
  await expect(yrsa.getByRole("heading", { name: "Fire watch: Rhea Vance" })).toBeVisible();
  await clock.on(20 * MINUTE_MS);
  // What is read during the break says nothing of the air after it.
  await air(clock, nils, permit, points);
  await sign(petra, "End the break");
  const goOn = petra.getByRole("form", { name: "Go on after the break" });
  await expect(goOn).toBeVisible();
  await sees(petra, "suspended");
  await sign(petra, "Go on after the break");
  await expect(goOn.getByRole("alert")).toContainText("after the break");
  await air(clock, nils, permit, points);
  await petra.reload();
  await sign(petra, "Go on after the break");
  await sees(petra, "active");

  // The end of the work: the watch begins, and nothing of it can be skipped.
  await sign(petra, "Sign off");
  await expect(petra.getByText("There now: 0")).toBeVisible();
  await sign(petra, "Hand back", { "All of it, guards are back": CHOSEN });
  await sees(petra, "post-work fire watch");
  await rhea.reload();
  await sign(rhea, "Leave the duty");
  await expect(rhea.getByRole("form", { name: "Leave the duty" }).getByRole("alert")).toContainText("without a break");
  expect((await post(rhea, "permit.end-watch", { permit })).body.code).toBe("watch not over");
  await clock.on(3 * HOUR_MS);
  for (let look = 0; look < 6; look++) {
    await clock.on(30 * MINUTE_MS);
    await rhea.reload();
    const form = rhea.getByRole("form", { name: "A look" });
    await form.getByLabel("What you saw").fill(`Cold and dark, look ${look + 1}`);
    await form.locator('button[type="submit"]').click();
    await expect(rhea.getByRole("list", { name: "Looks" }).getByText(`look ${look + 1}`)).toBeVisible();
  }
  expect((await post(rhea, "permit.end-watch", { permit })).body.sentence).toMatch(
    /final check by safety; the control room told/,
  );
  await signe.reload();
  await sign(signe, "Final check", { "What you saw": "Cold to the hand." });
  await rhea.reload();
  const told = rhea.getByRole("form", { name: "Control room told" });
  await told.getByLabel("Who in the control room was told").fill("Ines Calder");
  await told.locator('button[type="submit"]').click();
  await sign(rhea, "End the watch");
  await sees(rhea, "work complete");
  await idris.reload();
  await sign(idris, "Inspect", { "What you found": "Swept, nothing warm." });
  await expect(idris.getByRole("form", { name: "Close" })).toBeVisible();
  await sign(idris, "Close");
  await expect(idris.getByRole("form", { name: "Close" }).getByRole("alert")).toContainText("copy 1 at gate 2");
  await idris.getByRole("form", { name: "Copy 1 back" }).locator('button[type="submit"]').click();
  await expect(idris.getByRole("form", { name: "Copy 1 back" })).toHaveCount(0);
  await sign(idris, "Close");
  await sees(idris, "closed");
  const paper = await idris.request.get(`/permits/${permit}/paper`);
  expect(paper.headers()["content-type"]).toBe("application/pdf");
});
