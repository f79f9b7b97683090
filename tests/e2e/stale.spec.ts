import type { Page } from "@playwright/test";
import { expect, ownSite, type Site } from "./site";
import { done, idOf } from "./work";

/** No page shows what was so before it came. */
const test = ownSite();

/** Somebody asks for a job, and nothing else happens. */
async function ask(page: Page, site: Site, title: string): Promise<void> {
  await done(page, "job.ask", {
    title,
    work: `${title}.`,
    faces: [{ place: "K-334", how: ["touch"] }],
    longerThanShift: false,
    windowFrom_ms: Date.now(),
    windowTo_ms: Date.now() + 7 * 3_600_000,
    holder: idOf(site, "Petra Quillon"),
    crew: [],
  });
}

test("work that stops before the page's line stands is seen once it does", async ({ as }) => {
  const maren = await as("Maren Tolve");
  let letIn = () => {};
  const held = new Promise<void>((open) => (letIn = open));
  await maren.route("**/api/events*", async (route) => {
    await held;
    await route.continue();
  });
  await maren.goto("/permits/P-0001");
  await expect(maren.getByRole("heading", { level: 1 })).toContainText("active");
  const petra = await as("Petra Quillon");
  await done(petra, "permit.stop", { permit: "P-0001", reason: "Oil under the table" });
  letIn();
  await expect(maren.getByRole("heading", { level: 1 })).toContainText("suspended", { timeout: 20_000 });
});

test("what happens while a page is on its way is seen when it comes", async ({ as, site }) => {
  const maren = await as("Maren Tolve");
  const petra = await as("Petra Quillon");
  await maren.goto("/jobs");
  await expect(maren.getByRole("main")).toBeVisible();
  await maren.getByRole("navigation").getByRole("link", { name: "Calculators" }).first().click();
  await expect(maren).toHaveURL(/\/bench/);
  let asked = false;
  await maren.route(/\/\?_rsc=/, async (route) => {
    const read = await route.fetch();
    if (!asked && !("next-router-prefetch" in route.request().headers())) {
      asked = true;
      await ask(petra, site, "Grease the couplings");
      // It is told before the page is there.
      await maren.waitForTimeout(1000);
    }
    await route.fulfill({ response: read });
  });
  await maren.getByRole("navigation").getByRole("link", { name: "Board" }).first().click();
  await expect(maren.getByRole("link", { name: /Grease the couplings, planned$/ })).toBeVisible({ timeout: 20_000 });
  expect(asked).toBe(true);
});

test("what happened meanwhile is on the page that one goes back to", async ({ as, site }) => {
  const maren = await as("Maren Tolve");
  const petra = await as("Petra Quillon");
  await maren.goto("/bench");
  await maren.getByRole("navigation").getByRole("link", { name: "Board" }).first().click();
  await expect(maren.getByRole("group", { name: "Site plan" })).toBeVisible();
  await maren.getByRole("navigation").getByRole("link", { name: "Calculators" }).first().click();
  await expect(maren).toHaveURL(/\/bench/);
  await ask(petra, site, "Change the seals");
  await maren.goBack();
  await expect(maren.getByRole("link", { name: /Change the seals, planned$/ })).toBeVisible({ timeout: 20_000 });
});
