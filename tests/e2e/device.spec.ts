import type { Page } from "@playwright/test";
import { expect, openSite, PIN, post, SITE_TIMEOUT_MS, perWorker as shared, type Site } from "./site";
import { fillStep } from "./walk";
import { approvedJob, read, stepsOf } from "./work";

/** A site of its own: its permit is stopped here. */
const test = shared.extend<object, { site: Site }>({
  site: [
    async ({}, use, worker) => openSite(use, 4300 + worker.parallelIndex),
    { scope: "worker", timeout: SITE_TIMEOUT_MS },
  ],
});

const FACE = { place: "K-207", how: ["touch"], carriers: ["power", "control"], reason: "the motor stays coupled" };

/** As the browser does when its window is covered, or shown again. */
function see(page: Page, state: "visible" | "hidden"): Promise<void> {
  return page.evaluate((now) => {
    Object.defineProperty(document, "visibilityState", { configurable: true, get: () => now });
    document.dispatchEvent(new Event("visibilitychange"));
  }, state);
}

test("a page that was hidden looks again when it is shown, and misses no alarm", async ({ as }) => {
  const tomas = await as("Tomas Veyron");
  await tomas.goto("/permits/P-0001");
  const heard = () => tomas.evaluate(() => sessionStorage.getItem("lantern heard"));
  await expect.poll(heard).not.toBeNull();
  await see(tomas, "hidden");
  const { status } = await post(await as("Edda Morrow"), "permit.stop", { permit: "P-0001", reason: "Smell of gas" });
  expect(status).toBe(200);
  await see(tomas, "visible");
  await expect(tomas.getByText("Permit P-0001 has stopped.")).toBeVisible();
  await expect(tomas.getByRole("heading", { level: 1 }).getByText("suspended", { exact: true })).toBeVisible();
  // Until somebody looks, loading the page anew does not take it away.
  await tomas.reload();
  await expect(tomas.getByText("Permit P-0001 has stopped.")).toBeVisible();
  await tomas.getByRole("button", { name: "I have seen it" }).click();
  await tomas.reload();
  await expect(tomas.getByRole("heading", { level: 1 })).toBeVisible();
  await expect(tomas.getByText("Permit P-0001 has stopped.")).toHaveCount(0);
});

test("two pages of one device keep acts side by side, and neither writes over the other's", async ({ as, site }) => {
  const { job, isolation } = await approvedJob(as, site, {
    title: "Look at the starter from two pages",
    face: FACE,
    lead: "Petra Quillon",
    crew: ["Petra Quillon"],
  });
  const [tell, stop] = ["tell", "stop"].map((kind) =>
    stepsOf(site, isolation).find((step) => step.kind === kind && step.phase === "isolate")!,
  );
  const ruth = await as("Ruth Amberley");
  const second = await ruth.context().newPage();
  for (const page of [ruth, second]) {
    await page.goto(`/jobs/${job}/walk`);
    await expect(page.getByRole("heading", { name: /^Isolation / })).toBeVisible();
  }
  await ruth.context().setOffline(true);
  const keep = async (page: Page, label: string) => {
    const form = page.getByRole("form", { name: label, exact: true });
    await fillStep(form, { tag: "", lock: "" });
    await form.locator('button[type="submit"]').click();
  };
  // The second page had read what is kept before the first one kept anything.
  await keep(ruth, `tell ${tell!.subject}`);
  await expect(ruth.getByRole("region", { name: "Kept on this device" }).getByText("1 done, not signed")).toBeVisible();
  await keep(second, `stop ${stop!.subject}`);
  for (const page of [ruth, second]) {
    await expect(page.getByRole("region", { name: "Kept on this device" })).toContainText("2 done, not signed");
  }
  await ruth.context().setOffline(false);
  const form = second.getByRole("form", { name: "Sign the round" });
  await form.getByLabel("Your PIN").fill(PIN);
  await form.getByRole("button").click();
  await expect(second.getByRole("region", { name: "Kept on this device" })).toHaveCount(0);
  await expect(ruth.getByRole("region", { name: "Kept on this device" })).toHaveCount(0);
  const done = read<{ id: string }>(
    site,
    `SELECT s.step_id AS id FROM steps s JOIN isolations i ON i.id = s.isolation_id
     WHERE i.number = ? AND s.done_at_ms IS NOT NULL`,
    isolation,
  );
  expect(done.map(({ id }) => id).sort()).toEqual([tell!.id, stop!.id].sort());
});
