import { CHOSEN, expect, openSite, sign, signOn, SITE_TIMEOUT_MS, perWorker as shared, type Site } from "./site";
import { walk } from "./walk";
import { hazardsDecided } from "./work";

/** A site of its own: what others hold of the same pump would keep it from being started. */
const test = shared.extend<object, { site: Site }>({
  site: [
    async ({}, use, worker) => openSite(use, 4340 + worker.parallelIndex),
    { scope: "worker", timeout: SITE_TIMEOUT_MS },
  ],
});

test("a job from asking to closing, each act by the person whose it is, and all of it in the ledger", async ({
  as,
  site,
}) => {
  test.setTimeout(600_000);
  const maren = await as("Maren Tolve");

  // Ask.
  await maren.goto("/");
  await maren.getByRole("link", { name: "New request" }).click();
  await maren.getByLabel("What is to be done").fill("Overhaul crude oil pump A");
  await maren.getByLabel("In more words").fill("Open the pump and change its seal; look at the motor and the starter.");
  await maren.getByLabel("Work location 1: tag, or tag.part").fill("P-204A");
  await maren.getByRole("button", { name: "Another location" }).click();
  await maren.getByLabel("Work location 2: tag, or tag.part").fill("K-207");
  // How people meet it nobody is asked to leave as it stands.
  await expect(maren.getByRole("checkbox", { name: "open it" }).nth(1)).not.toBeChecked();
  await maren.getByRole("checkbox", { name: "open it" }).nth(0).check();
  await maren.getByRole("checkbox", { name: "touch it" }).nth(1).check();
  // The window is offered: from now to the end of the shift. A permit is offered no other time.
  await expect(maren.getByLabel("Window ends")).toHaveValue(/, \d\d:00$/);
  // Nor whether others take the isolation over.
  await expect(maren.getByRole("radio", { name: /within the shift/ })).not.toBeChecked();
  await expect(maren.getByRole("radio", { name: /others take it over/ })).not.toBeChecked();
  await maren.getByRole("radio", { name: /within the shift/ }).check();
  await maren.getByLabel("Permit holder, in charge of the party").selectOption({ label: "Petra Quillon" });
  await maren.getByRole("checkbox", { name: "Tomas Veyron" }).check();
  await maren.getByRole("button", { name: "Send the request" }).click();

  // Energies: the neighbour's interlock, the sister pump by way of the discharge header, the steam jacket.
  await expect(maren).toHaveURL(/\/jobs\/J-\d+\/energies/);
  const job = /J-\d+/.exec(maren.url())![0];
  const interlock = maren.getByRole("row").filter({ hasText: "F-208" }).first();
  await expect(interlock).toContainText("K-208");
  await expect(interlock).toContainText("Hidden");
  await expect(maren.getByRole("row").filter({ hasText: "J-204A" }).first()).toContainText("heat");
  const discharge = maren.getByRole("row").filter({ hasText: "SP-2042" }).first();
  await discharge.getByRole("link", { name: /^and \d+ more$/ }).click();
  await expect(maren.getByRole("listitem").filter({ hasText: "P-204B" }).first()).toBeVisible();
  await maren.getByRole("link", { name: "Which lock stops what" }).first().click();
  await expect(maren.getByText("stopped by the same lock").first()).toBeVisible();
  await expect(maren.getByText("By the plan no energy reaches any work location.")).toHaveCount(0);

  // Points: every objective and both schools come to the same, which is said; then approve.
  await maren.getByRole("link", { name: "Isolation points" }).click();
  await expect(maren.getByRole("button", { name: "Approve: Balanced, at the work" })).toBeVisible();
  await expect(maren.getByText("Every objective, at the work and at the supply, chooses these points.")).toBeVisible();
  await expect(maren.getByText("By the plan no energy reaches any work location.")).toBeVisible();
  await sign(maren, "Approve the plan shown");
  await expect(maren).toHaveURL(new RegExp(`/jobs/${job}/walk`));
  await expect(maren.getByText("Still live:")).toBeVisible();

  // A permit may be written now, but not issued before the isolation is proven.
  const petra = await as("Petra Quillon");
  await hazardsDecided(as, site, job);
  await petra.goto(`/jobs/${job}/permits`);
  await petra.getByRole("link", { name: "line break" }).click();
  await expect(petra.getByRole("form", { name: "Write a permit for line break" })).toBeVisible();
  await petra.getByLabel("First flange", { exact: true }).fill("suction flange of P-204A");
  await petra.getByLabel("Where what is left comes out").fill("through BL-2042 into the spill tray");
  await petra.getByLabel("Hazards that remain").fill("Hot oil in dead legs.");
  await petra.getByLabel("Precautions").fill("Face shield, gloves, spill tray.");
  await petra.getByRole("button", { name: "Write the permit" }).click();
  await expect(petra).toHaveURL(/\/permits\/P-\d+/);
  const permit = /P-\d+/.exec(petra.url())![0];
  await maren.goto(`/permits/${permit}`);
  await sign(maren, "Check");
  await expect(maren.getByText("checked", { exact: true })).toBeVisible();
  const idris = await as("Idris Halloway");
  await idris.goto(`/permits/${permit}`);
  await sign(idris, "Authorise");
  await expect(idris.getByText("authorised", { exact: true })).toBeVisible();
  await sign(idris, "Issue");
  await expect(idris.getByRole("alert").filter({ hasText: "is not proven" })).toBeVisible();

  // Walk to the end: the faces go dark and are proven. Nobody else looks meanwhile.
  for (const page of [maren, petra, idris]) await page.goto("about:blank");
  await walk(as, job, "walk");
  await maren.goto(`/jobs/${job}/walk`);
  await expect(maren.getByText("Proved at every work location.")).toBeVisible();
  await expect(maren.getByRole("heading", { name: /^Isolation S-\d+: proven$/ })).toBeVisible();

  // Permit: issue, accept, two people on.
  await idris.goto(`/permits/${permit}`);
  await petra.goto(`/permits/${permit}`);
  for (const tick of await petra.getByRole("form", { name: "Looked at" }).getByRole("checkbox").all())
    await tick.check();
  await sign(petra, "Looked at");
  await sign(idris, "Issue");
  await expect(idris.getByText("issued", { exact: true })).toBeVisible();
  // Nobody begins before the permit is displayed at the work.
  await petra.reload();
  await sign(petra, "Accept");
  await expect(
    petra.getByRole("alert").filter({ hasText: "A copy is displayed at the work: none hangs" }),
  ).toBeVisible();
  await petra.getByText("Display a copy").click();
  const copy = petra.getByRole("form", { name: "Display a copy" });
  await copy.getByRole("textbox").first().fill("at the pump");
  await copy.getByRole("button", { name: "It hangs" }).click();
  await expect(petra.getByText("Copy 1", { exact: true })).toBeVisible();
  await sign(petra, "Accept");
  // Nobody hangs a lock before the coordinator's; each has their own.
  await signOn(petra, "P-204A", "P-18");
  await expect(petra.getByRole("alert").filter({ hasText: "coordinator's lock is not on the box" })).toBeVisible();
  await maren.goto(`/jobs/${job}/walk`);
  await maren.getByRole("link", { name: /^Group lock box B-\d+$/ }).click();
  await sign(maren, "Hang my lock on the box", { "My lock number": "C-03" });
  await expect(maren.getByText("coordinator, first on and last off")).toBeVisible();
  const box = maren.url();
  await signOn(petra, "P-204A", "P-18");
  await expect(petra.getByText("There now: 1")).toBeVisible();
  const tomas = await as("Tomas Veyron");
  await tomas.goto(`/permits/${permit}`);
  await signOn(tomas, "P-204A", "P-18");
  await expect(tomas.getByRole("alert").filter({ hasText: "Lock P-18 belongs to Petra Quillon" })).toBeVisible();
  await expect(tomas.getByLabel("My lock number")).toHaveValue("P-18");
  await signOn(tomas, "P-204A", "T-77");
  await expect(tomas.getByText("There now: 2")).toBeVisible();

  // Nothing comes back while anybody is on.
  await maren.goto(`/jobs/${job}/return`);
  await sign(maren, "Start restoring");
  await expect(
    maren.getByRole("alert").filter({ hasText: "Still signed on: Petra Quillon, Tomas Veyron" }),
  ).toBeVisible();

  // The lead's lock comes off last.
  await petra.reload();
  await sign(petra, "Sign off");
  await expect(petra.getByRole("alert").filter({ hasText: "Your lock is the last to come off" })).toBeVisible();
  await sign(tomas, "Sign off");
  await expect(tomas.getByText("There now: 1")).toBeVisible();
  await petra.reload();
  const back = petra.getByRole("form", { name: "Hand back" });
  // Nobody answers it beforehand.
  await sign(petra, "Hand back");
  await expect(back.getByRole("alert").getByText("say whether all of the work is done")).toBeVisible();
  await sign(petra, "Hand back", { "All of it, guards are back": CHOSEN });
  await expect(petra.getByRole("alert").filter({ hasText: "Still signed on: Petra Quillon" })).toBeVisible();
  await sign(petra, "Sign off");
  await expect(petra.getByText("There now: 0")).toBeVisible();
  await sign(petra, "Hand back", { "All of it, guards are back": CHOSEN });
  await expect(petra.getByText("work complete", { exact: true })).toBeVisible();
  await petra.getByRole("form", { name: "Copy 1 back" }).getByRole("button").click();
  await idris.reload();
  await sign(idris, "Inspect", { "What you found": "Clean; nothing left behind." });
  await sign(idris, "Close");
  await expect(idris.getByText("closed", { exact: true })).toBeVisible();

  // Return, once the coordinator's lock is off the box; then close.
  await maren.goto(box);
  await sign(maren, "Take C-03 off the box");
  await expect(maren.getByText("No lock hangs on it.")).toBeVisible();
  await maren.goto(`/jobs/${job}/return`);
  await sign(maren, "Start restoring");
  await expect(maren.getByText("restoring").first()).toBeVisible();
  for (const page of [maren, petra, idris, tomas]) await page.goto("about:blank");
  await walk(as, job, "return", 2);
  await maren.goto(`/jobs/${job}/return`);
  await expect(maren.getByText("Still live:")).toBeVisible();
  await sign(maren, "Close the job");
  await expect(maren.getByText("The job is closed and back in service.")).toBeVisible();

  // The ledger tells the same story, refusals among it, and its chain holds.
  await maren.goto(`/ledger?find=${permit}`);
  for (const act of [
    "wrote the permit",
    "checked the permit",
    "authorised the permit",
    "issued the permit",
    "displayed a copy",
    "accepted the permit as its holder",
    "signed on with lock",
    "signed off, own lock off the box",
    "handed the permit back",
    "inspected the place",
    "brought back the copy",
    "closed the permit",
  ]) {
    await expect(maren.getByRole("cell").filter({ hasText: act }).first()).toBeVisible();
  }
  await expect(maren.getByRole("row").filter({ hasText: "refused" }).filter({ hasText: "is not proven" })).toHaveCount(
    1,
  );
  await maren.goto("/ledger?find=V-2041");
  await expect(maren.getByText("lock V-2041").first()).toBeVisible();
  await expect(maren.getByText("unlock V-2041").first()).toBeVisible();
  const verified = site.lantern("verify");
  expect(verified.out).toContain("The ledger is whole");
  expect(verified.status).toBe(0);
});
