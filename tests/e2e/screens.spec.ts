import { expectNoAxeViolation } from "./axe";
import { expect, ownSite } from "./site";

const test = ownSite();

/** In groups, so that two workers share them. */
const SCREENS: Readonly<Record<string, readonly string[]>> = {
  "the job, as it is planned": [
    "/",
    "/jobs",
    "/jobs/new",
    "/jobs/J-0003/ask",
    "/jobs/J-0001/energies",
    "/jobs/J-0002/points",
  ],
  "the job, as it is done": [
    "/jobs/J-0005/time",
    "/jobs/J-0005/kit",
    "/jobs/J-0002/walk",
    "/jobs/J-0001/permits",
    "/jobs/J-0001/return",
    "/permits/P-0001",
  ],
  "the permits": [
    "/permits",
    "/permits?kind=safeguard+bypass&state=",
    "/permits/P-0002",
    "/jobs/J-0007/hazards",
    "/jobs/J-0003/hazards",
    "/jobs/J-0007/permits?kind=confined%20space%20entry",
  ],
  "the locks": [
    "/locks?lock=C-01",
    "/handover",
    "/locks/register",
    "/boxes/B-0001",
    "/jobs/J-0001/walk",
    "/jobs/J-0001/locks",
  ],
  "the plant and the ledger": [
    "/procedures",
    "/procedures/IP-0001",
    "/plant",
    "/plant/X-210",
    "/plant/import",
    "/store",
    "/figures",
    "/people",
    "/people/here",
    "/ledger",
    "/nowhere",
  ],
  "the bench": [
    "/bench",
    "/bench/blowdown",
    "/bench/gas-energy?pressure_Pa=2e6&volume_m3=4&gamma=1.4&ambient_Pa=101000&at=R-503",
    "/bench/test-points",
    "/bench/mixture-lfl",
    "/bench/tank-drain?shape=horizontal&level_m=1,5",
  ],
};

for (const [group, screens] of Object.entries(SCREENS)) {
  test(`no accessibility violation on ${group}, day and night`, async ({ as, site }) => {
    const page = await as("Maren Tolve");
    await page.context().addCookies([{ name: "lantern_theme", value: "day", url: site.url }]);
    for (const screen of screens) {
      await page.goto(screen);
      await expect(page.getByText("Drawing the plant…")).toHaveCount(0);
      await expectNoAxeViolation(page, `${screen}, day`);
      // The themes differ in their colours only: everything else is looked at once.
      await page.evaluate(() => document.documentElement.setAttribute("data-theme", "night"));
      await expectNoAxeViolation(page, `${screen}, night`, ["color-contrast", "link-in-text-block"]);
    }
  });
}

test("the field screens fit a phone: nothing runs off the side, targets are large", async ({ as }) => {
  for (const [who, screen] of [
    ["Sunniva Rask", "/jobs/J-0002/walk"],
    ["Petra Quillon", "/permits/P-0001"],
    ["Nils Harrow", "/permits/P-0002"],
    ["Edda Morrow", "/permits/P-0002"],
    ["Maren Tolve", "/boxes/B-0001"],
    ["Maren Tolve", "/locks?lock=C-01"],
    ["Maren Tolve", "/handover"],
  ] as const) {
    const page = await as(who);
    await page.setViewportSize({ width: 390, height: 844 });
    await page.goto(screen);
    const overflow = await page.evaluate(
      () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
    );
    expect(overflow, screen).toBeLessThanOrEqual(0);
    for (const button of await page.getByRole("form").getByRole("button").all()) {
      expect((await button.boundingBox())!.height, screen).toBeGreaterThanOrEqual(44);
    }
  }
});

test("the lantern goes dark point by point, by keyboard", async ({ as }) => {
  const page = await as("Maren Tolve");
  await page.goto("/jobs/J-0003/points");
  const slider = page.getByRole("slider", { name: /Points isolated/ });
  await expect(page.getByText("By the plan no energy reaches any work location.")).toBeVisible();
  await slider.focus();
  await page.keyboard.press("Home");
  await expect(page.getByText("Still live:")).toBeVisible();
  await expect(page.getByRole("img", { name: /^P-204A, .* live$/ })).toBeVisible();
  await page.keyboard.press("End");
  await expect(page.getByRole("img", { name: /^P-204A, .* dark$/ })).toBeVisible();
  await expect(page.getByRole("img", { name: /^V-2041, .* isolated$/ })).toBeVisible();
});

test("papers are PDFs, made for those who are signed in", async ({ as, browser, site }) => {
  const page = await as("Petra Quillon");
  for (const paper of ["/permits/P-0001/paper", "/jobs/J-0002/tags"]) {
    const response = await page.request.get(paper);
    expect(response.headers()["content-type"]).toBe("application/pdf");
    expect((await response.body()).subarray(0, 5).toString()).toBe("%PDF-");
  }
  const stranger = await (await browser.newContext({ baseURL: site.url })).newPage();
  expect((await stranger.request.get("/permits/P-0001/paper")).status()).toBe(401);
  await stranger.goto("/jobs/J-0001/walk");
  await expect(stranger).toHaveURL(/sign-in/);
});
