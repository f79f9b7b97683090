import AxeBuilder from "@axe-core/playwright";
import type { Page } from "@playwright/test";
import { expect, test } from "./site";

async function expectNoAxeViolation(page: Page, where: string): Promise<void> {
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(
    violations.map(({ id, nodes }) => `${where}: ${id} at ${nodes.map((node) => node.target.join(" ")).join("; ")}`),
  ).toEqual([]);
}

const SCREENS = [
  "/",
  "/jobs/new",
  "/jobs/J-0003/ask",
  "/jobs/J-0003/energies",
  "/jobs/J-0003/points",
  "/jobs/J-0002/walk",
  "/jobs/J-0001/permits",
  "/jobs/J-0001/return",
  "/permits/P-0001",
  "/plant",
  "/plant/X-210",
  "/plant/import",
  "/ledger",
  "/nowhere",
];

for (const theme of ["day", "night"] as const) {
  test(`no accessibility violation on any screen, ${theme}`, async ({ as, site }) => {
    const page = await as("Maren Tolve");
    await page.context().addCookies([{ name: "lantern_theme", value: theme, url: site.url }]);
    for (const screen of SCREENS) {
      await page.goto(screen);
      await expect(page.getByText("Drawing the plant…")).toHaveCount(0);
      await expectNoAxeViolation(page, screen);
    }
  });
}

test("the field screens fit a phone: nothing runs off the side, targets are large", async ({ as }) => {
  for (const [who, screen] of [
    ["Sunniva Rask", "/jobs/J-0002/walk"],
    ["Petra Quillon", "/permits/P-0001"],
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
  await expect(page.getByText("Dark at every face.")).toBeVisible();
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
