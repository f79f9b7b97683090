import { expect, ownSite, post, reach, sign } from "./site";
import { approvedJob, done, hazardsDecided, read, walkByPost } from "./work";
import { DETAILS } from "../support/permits";

/** Changing one's mind, while that is still possible, by whoever it is up to. */
const test = ownSite();
const HOUR_MS = 3_600_000;

test("a stray draft is cancelled by its own holder, another is sent back and put right, and the isolation can be given back", async ({
  as,
  site,
}) => {
  const { job, isolation } = await approvedJob(as, site, {
    title: "Look at the fan's bearing",
    face: { place: "K-345", how: ["touch"] },
    lead: "Petra Quillon",
    crew: [],
  });
  await walkByPost(as, site, isolation);
  await hazardsDecided(as, site, job);
  const petra = await as("Petra Quillon");
  const draft = {
    job,
    words: "Look at the bearing",
    hazards: "Warm surfaces",
    precautions: "Gloves",
    validFrom_ms: Date.now() - 1000,
    validTo_ms: Date.now() + 8 * HOUR_MS,
    details: DETAILS.general,
  };
  const { permit } = await done(petra, "permit.draft", draft);
  const { permit: stray } = await done(petra, "permit.draft", draft);
  const maren = await as("Maren Tolve");

  // It stands in the way, and the refusal says which.
  await done(maren, "permit.check", { permit });
  expect((await post(maren, "return.start", { isolation, leftSafe: "" })).body).toMatchObject({
    ok: false,
    sentence: expect.stringContaining(stray!),
  });

  // Its holder, who issues nothing, takes it back by the screen.
  await petra.goto(`/permits/${stray}`);
  await sign(petra, "Cancel");
  await expect(petra.getByRole("heading", { level: 1 })).toContainText("cancelled");

  // The other is sent back with what is to be put right, is a draft again, and says why.
  const idris = await as("Idris Halloway");
  await idris.goto(`/permits/${permit}`);
  await sign(idris, "Send back", { "What has to be put right": "Name the neighbouring belt" });
  await expect(idris.getByRole("heading", { level: 1 })).toContainText("draft");
  await petra.goto(`/permits/${permit}`);
  await expect(petra.getByText(/Name the neighbouring belt/).first()).toBeVisible();
  await reach(petra, `Change ${permit}`);
  const form = petra.getByRole("form", { name: `Change ${permit}`, exact: true });
  await form.getByLabel("Hazards that remain").fill("The neighbouring belt runs");
  await form.getByRole("button", { name: "Change the draft" }).click();
  await expect(petra.getByText("The neighbouring belt runs").first()).toBeVisible();
  // Signed anew: what was checked before counts no more.
  expect((await post(idris, "permit.authorise", { permit })).body.ok).toBe(false);
  await done(maren, "permit.check", { permit });
  await done(idris, "permit.authorise", { permit });
  await done(petra, "permit.cancel", { permit });

  // Nothing is left in its way.
  await done(maren, "return.start", { isolation, leftSafe: "" });
  const rows = read<{ type: string; outcome: string }>(
    site,
    "SELECT type, outcome FROM ledger WHERE subject IN (?, ?, ?) AND type IN ('return.start', 'permit.cancel', 'permit.send-back', 'permit.change', 'permit.check') ORDER BY seq",
    permit,
    stray,
    isolation,
  );
  expect(rows.map(({ type, outcome }) => `${type} ${outcome}`)).toEqual([
    "permit.check done",
    "return.start refused",
    "permit.cancel done",
    "permit.send-back done",
    "permit.change done",
    "permit.check done",
    "permit.cancel done",
    "return.start done",
  ]);
  expect(site.lantern("verify").out).toContain("The state is as the ledger wrote it");
});

test("a job's words, window, work locations and crew are changed by the screen, and it is withdrawn", async ({
  as,
  site,
}) => {
  const maren = await as("Maren Tolve");
  await maren.goto("/jobs/new");
  const ask = maren.getByRole("form", { name: "New request", exact: true });
  await ask.getByLabel("What is to be done").fill("Change the belt");
  await ask.getByLabel("In more words").fill("Old belt off, new belt on.");
  await ask.getByLabel("Work location 1: tag, or tag.part").fill("K-334");
  await ask.getByRole("checkbox", { name: "open it" }).first().check();
  await ask.getByRole("checkbox", { name: "touch it" }).first().check();
  await ask.getByLabel("Permit holder, in charge of the party").selectOption({ label: "Petra Quillon" });
  // Nobody's answer stands there beforehand, and without one nothing is asked for.
  await ask.getByRole("button", { name: "Send the request" }).click();
  await expect(ask.getByText("say whether it outlasts one shift").first()).toBeVisible();
  await ask.getByRole("radio", { name: "Yes, others take it over" }).check();
  await ask.getByRole("button", { name: "Send the request" }).click();
  await expect(maren).toHaveURL(/\/jobs\/J-\d+\/energies$/);
  const job = /J-\d+/.exec(maren.url())![0];

  await maren.goto(`/jobs/${job}/ask`);
  await reach(maren, "Change the request");
  const form = maren.getByRole("form", { name: "Change the request", exact: true });
  await form.getByLabel("What is to be done").fill("Change both belts");
  await form.getByLabel("Work location 1: tag, or tag.part").fill("K-345");
  const ends = form.getByLabel("Window ends");
  const later = (await ends.inputValue()).replace(/:00$/, ":30");
  await ends.fill(later);
  await form.getByRole("button", { name: "Change it" }).click();
  await expect(maren.getByRole("heading", { level: 1 })).toContainText("Change both belts");
  const page = maren.getByRole("main");
  await expect(page.getByText("K-345").first()).toBeVisible();
  await expect(page.getByText(/:30\b/).first()).toBeVisible();
  const [stored] = read<{ job: string; ends: number }>(
    site,
    "SELECT job_json AS job, window_to_ms AS ends FROM jobs WHERE number = ?",
    job,
  );
  expect((JSON.parse(stored!.job) as { faces: { place: string }[] }).faces.map(({ place }) => place)).toEqual([
    "K-345",
  ]);
  expect(new Date(stored!.ends).getUTCMinutes()).toBe(30);
  await maren.goto(`/jobs/${job}/permits`);
  await reach(maren, "Change the crew");
  const crew = maren.getByRole("form", { name: "Change the crew", exact: true });
  await crew.getByLabel("Tomas Veyron").check();
  await crew.getByRole("button", { name: "This is the crew" }).click();
  await expect(maren.getByRole("main")).toContainText("Tomas Veyron");

  await maren.goto(`/jobs/${job}/ask`);
  await sign(maren, "Withdraw the job", { Why: "The belts hold another year" });
  await expect(maren.getByText("The job was withdrawn.")).toBeVisible();
  const acts = read<{ type: string }>(
    site,
    "SELECT type FROM ledger WHERE subject = ? AND outcome = 'done' ORDER BY seq",
    job,
  );
  expect(acts.map(({ type }) => type)).toEqual(["job.ask", "job.change", "job.crew", "job.withdraw"]);
});
