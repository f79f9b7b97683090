import { approvedJob, read, stepsOf } from "./work";
import { expect, ownSite, PIN } from "./site";

const test = ownSite();

test("a round of steps is done one after another and signed once: each with its own time, and none counts before", async ({
  as,
  site,
}) => {
  const { job, isolation } = await approvedJob(as, site, {
    title: "Look at the starter on a round",
    face: { place: "K-345", how: ["touch"] },
    lead: "Petra Quillon",
    crew: ["Petra Quillon"],
  });
  const done = () => stepsOf(site, isolation).filter((step) => step.done);
  const ruth = await as("Ruth Amberley");
  await ruth.goto(`/jobs/${job}/walk`);
  const now = ruth.getByRole("region", { name: "Now", exact: true });
  const step = (name: RegExp) => now.getByRole("form", { name });
  const later = (name: RegExp) => step(name).getByRole("button", { name: "Done, sign later" });

  // What was not written is asked for at once, not when the round is signed.
  await later(/^tell /).click();
  await expect(step(/^tell /).getByRole("alert")).toContainText("is missing");
  const words = step(/^tell /)
    .getByRole("textbox")
    .first();
  await words.fill("Control room, by radio; repeated back");
  await later(/^tell /).click();
  const round = ruth.getByRole("region", { name: "Kept on this device" });
  await expect(round).toContainText("1 done, not signed");

  // The next step opens on this device; for everybody else nothing is done.
  await expect(later(/^stop /)).toBeVisible();
  for (const field of await step(/^stop /)
    .getByRole("textbox")
    .all()) {
    if ((await field.getAttribute("name")) !== "pin") await field.fill("Off by its own button");
  }
  await later(/^stop /).click();
  await expect(round).toContainText("2 done, not signed");
  expect(done()).toEqual([]);

  const form = ruth.getByRole("form", { name: "Sign the round" });
  await form.getByLabel("Your PIN").fill(PIN);
  await form.getByRole("button", { name: "Sign all 2" }).click();
  await expect(round).toHaveCount(0);
  expect(done().map(({ kind }) => kind)).toEqual(["tell", "stop"]);
  const rows = read<{ done: number; recorded: number }>(
    site,
    `SELECT done_at_ms AS done, recorded_at_ms AS recorded FROM ledger
     WHERE type = 'step.do' AND outcome = 'done' ORDER BY seq DESC LIMIT 2`,
  );
  expect(rows).toHaveLength(2);
  expect(rows[0]!.done).toBeGreaterThan(rows[1]!.done);
  for (const row of rows) expect(row.recorded).toBeGreaterThanOrEqual(row.done);
});
