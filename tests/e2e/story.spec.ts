import type { Page } from "@playwright/test";
import { expect, sign, test } from "./site";

const PLATES: Readonly<Record<string, string>> = {
  "Q-207": "2.07",
  "Q-208": "2.08",
  "F-107": "2.07 F1",
  "F-208": "2.08 X4",
};

/**
 * Walks every step through the screens. Sunniva does what is mechanical and process, Jonas what is electrical; Odalys
 * proves, for nobody proves what they locked themselves. Each goes on while there is a step for them.
 */
async function walk(as: (name: string) => Promise<Page>, job: string, stage: "walk" | "return") {
  let lock = 0;
  for (let round = 0; round < 12; round++) {
    let did = 0;
    for (const who of ["Sunniva Rask", "Jonas Ekeberg", "Odalys Brenn"]) {
      const page = await as(who);
      await page.goto(`/jobs/${job}/${stage}`);
      const mine = page.getByRole("form", { name: who === "Odalys Brenn" ? /^prove / : /^(?!prove )/ });
      await expect(page.getByRole("heading", { name: /^(Isolation|Return of) / })).toBeVisible();
      while ((await mine.count()) > 0) {
        const form = mine.first();
        const label = (await form.getAttribute("aria-label"))!;
        const step = page
          .getByRole("listitem", { name: new RegExp(`^Step \\d+: ${label.replace(/[()]/g, "\\$&")}$`) })
          .filter({ has: form });
        const name = (await step.getAttribute("aria-label"))!;
        const fill = async (field: RegExp, value: string) => {
          const input = form.getByLabel(field);
          if ((await input.count()) > 0) await input.fill(value);
        };
        const tag = /[A-Z]+-\d+[A-Z]?/.exec(label)?.[0] ?? "";
        await fill(/Plate reads/, PLATES[tag] ?? tag);
        await fill(/Lock number/, `L-${job.slice(-2)}-${++lock}`);
        await fill(/Reading/, "0");
        await fill(/Personal locks/, "0");
        if ((await form.getByLabel(/Tester proved/).count()) > 0) await form.getByLabel(/Tester proved/).check();
        await form.getByLabel("Your PIN").fill("4711");
        await form.getByRole("button").click();
        const done = page.getByRole("listitem", { name, exact: true }).getByText("Done", { exact: true });
        await expect(done, `${name} by ${who}`).toBeVisible();
        did++;
      }
    }
    if (did === 0) return;
  }
  throw new Error("the walk does not end");
}

test("a job from asking to closing, each act by the person whose it is, and all of it in the ledger", async ({
  as,
  site,
}) => {
  test.setTimeout(600_000);
  const maren = await as("Maren Tolve");

  // Ask.
  await maren.getByRole("link", { name: "Ask for a job" }).click();
  await maren.getByLabel("What is to be done").fill("Overhaul crude oil pump A");
  await maren.getByLabel("In more words").fill("Open the pump and change its seal; look at the motor and the starter.");
  await maren.getByLabel("Work face 1: tag, or tag.part").fill("P-204A");
  await maren.getByRole("button", { name: "Another face" }).click();
  await maren.getByLabel("Work face 2: tag, or tag.part").fill("K-207");
  await maren.getByRole("checkbox", { name: "open it" }).nth(1).uncheck();
  await maren.getByRole("checkbox", { name: "touch it" }).nth(1).check();
  await maren.getByLabel("Window starts").fill("2026-12-01T06:00");
  await maren.getByLabel("Window ends").fill("2026-12-01T14:00");
  await maren.getByLabel("Holder, in charge of the party").selectOption({ label: "Petra Quillon" });
  await maren.getByRole("checkbox", { name: "Tomas Veyron" }).check();
  await maren.getByRole("button", { name: "Ask", exact: true }).click();

  // Energies: the neighbour's interlock, the sister pump by way of the discharge header, the steam jacket.
  await expect(maren).toHaveURL(/\/jobs\/J-\d+\/energies/);
  const job = /J-\d+/.exec(maren.url())![0];
  const interlock = maren.getByRole("row").filter({ hasText: "F-208" }).first();
  await expect(interlock).toContainText("K-208");
  await expect(interlock).toContainText("Hidden");
  await expect(maren.getByRole("row").filter({ hasText: "J-204A" }).first()).toContainText("heat");
  await maren.getByText(/more by way of NR-2042/).click();
  await expect(maren.locator("details[open]").getByText("P-204B").first()).toBeVisible();
  await expect(maren.getByText("Dark at every face.")).toHaveCount(0);

  // Points: plans side by side, both schools among them, then approve.
  await maren.getByRole("link", { name: /^Points/ }).click();
  await expect(maren.getByRole("link", { name: "Balanced, near the work" })).toBeVisible();
  await expect(maren.getByRole("link", { name: "Balanced, at the supply" })).toBeVisible();
  await expect(maren.getByText("Dark at every face.")).toBeVisible();
  await sign(maren, "Approve the plan shown");
  await expect(maren).toHaveURL(new RegExp(`/jobs/${job}/walk`));
  await expect(maren.getByText("Still live:")).toBeVisible();

  // A permit may be written now, but not issued before the isolation is proven.
  const petra = await as("Petra Quillon");
  await petra.goto(`/jobs/${job}/permits`);
  await petra.getByLabel("Hazards that remain").fill("Hot oil in dead legs.");
  await petra.getByLabel("Precautions").fill("Face shield, gloves, spill tray.");
  await petra.getByRole("button", { name: "Write the permit" }).click();
  await expect(petra).toHaveURL(/\/permits\/P-\d+/);
  const permit = /P-\d+/.exec(petra.url())![0];
  const idris = await as("Idris Halloway");
  await idris.goto(`/permits/${permit}`);
  await sign(idris, "Issue");
  await expect(idris.getByRole("alert").filter({ hasText: "is not proven" })).toBeVisible();

  // Walk to the end: the faces go dark and are proven.
  await walk(as, job, "walk");
  await maren.goto(`/jobs/${job}/walk`);
  await expect(maren.getByText("Dark at every face.")).toBeVisible();
  await expect(maren.getByRole("heading", { name: /^Isolation S-\d+: proven$/ })).toBeVisible();

  // Permit: issue, accept, two people on.
  await idris.reload();
  await sign(idris, "Issue");
  await expect(idris.getByText("issued", { exact: true })).toBeVisible();
  await petra.reload();
  await sign(petra, "Accept");
  await sign(petra, "Sign on", { "My lock number": "MY-1" });
  await expect(petra.getByText("Signed on now: 1")).toBeVisible();
  const tomas = await as("Tomas Veyron");
  await tomas.goto(`/permits/${permit}`);
  await sign(tomas, "Sign on", { "My lock number": "MY-1" });
  await expect(tomas.getByRole("alert").filter({ hasText: "Lock MY-1 is in use" })).toBeVisible();
  await expect(tomas.getByLabel("My lock number")).toHaveValue("MY-1");
  await sign(tomas, "Sign on", { "My lock number": "MY-2" });
  await expect(tomas.getByText("Signed on now: 2")).toBeVisible();

  // Nothing comes back while anybody is on.
  await maren.goto(`/jobs/${job}/return`);
  await sign(maren, "Start the return");
  await expect(
    maren.getByRole("alert").filter({ hasText: "Still signed on: Petra Quillon, Tomas Veyron" }),
  ).toBeVisible();

  await sign(tomas, "Sign off");
  await expect(tomas.getByText("Signed on now: 1")).toBeVisible();
  await petra.reload();
  await sign(petra, "Hand back");
  await expect(petra.getByRole("alert").filter({ hasText: "Still signed on: Petra Quillon" })).toBeVisible();
  await sign(petra, "Sign off");
  await expect(petra.getByText("Signed on now: 0")).toBeVisible();
  await sign(petra, "Hand back");
  await expect(petra.getByText("handed back", { exact: true })).toBeVisible();
  await idris.reload();
  await sign(idris, "Close");
  await expect(idris.getByText("closed", { exact: true })).toBeVisible();

  // Return, then close.
  await sign(maren, "Start the return");
  await expect(maren.getByText("restoring").first()).toBeVisible();
  await walk(as, job, "return");
  await maren.reload();
  await expect(maren.getByText("Still live:")).toBeVisible();
  await sign(maren, "Close the job");
  await expect(maren.getByText("The job is closed and back in service.")).toBeVisible();

  // The ledger tells the same story, refusals among it, and its chain holds.
  await maren.goto(`/ledger?find=${permit}`);
  for (const act of [
    "permit.draft",
    "permit.issue",
    "permit.accept",
    "permit.sign-on",
    "permit.sign-off",
    "permit.hand-back",
    "permit.close",
  ]) {
    await expect(maren.getByRole("cell", { name: act, exact: false }).first()).toBeVisible();
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
