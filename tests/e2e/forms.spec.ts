import type { Page } from "@playwright/test";
import { expectNoAxeViolation } from "./axe";
import { expect, openMenu, ownSite, PIN } from "./site";
import { read } from "./work";

/** A site of its own: its server is killed under the form. */
const test = ownSite();

/** Tabs on until something with this name has the focus; by keyboard only. */
async function tabTo(page: Page, name: RegExp): Promise<void> {
  for (let i = 0; i < 120; i++) {
    await page.keyboard.press("Tab");
    const focused = await page.evaluate(() => {
      const at = document.activeElement as HTMLInputElement | null;
      return [at?.labels?.[0]?.innerText, at?.getAttribute("aria-label"), at?.innerText].filter(Boolean).join(" ");
    });
    if (name.test(focused)) return;
  }
  throw new Error(`nothing called ${name} takes the focus`);
}

test("a permit is written by keyboard alone; faults stand at their fields and in a summary; nothing typed is lost", async ({
  as,
  site,
}) => {
  const petra = await as("Petra Quillon");
  const page = "/jobs/J-0001/permits?kind=hot%20work";
  await petra.goto(page);
  const form = petra.getByRole("form", { name: "Write a permit for hot work" });
  await tabTo(petra, /^What may be done/);
  await petra.keyboard.press("Control+A");
  await petra.keyboard.type("Weld the cracked bracket.");
  // The hazards that were decided stand there already, and so do their controls.
  await tabTo(petra, /^Hazards that remain/);
  await petra.keyboard.press("Control+A");
  await petra.keyboard.type("Sparks.");
  await tabTo(petra, /^Precautions/);
  await petra.keyboard.press("Control+A");
  await petra.keyboard.press("Delete");
  await tabTo(petra, /^People with a flame or arc/);
  await petra.keyboard.press("Control+A");
  await petra.keyboard.type("two");
  await tabTo(petra, /^Write the permit$/);
  await petra.keyboard.press("Enter");

  // All faults at once: a summary that leads to each, and words at each field, which name it to a screen reader.
  const summary = form.getByRole("alert");
  await expect(summary).toContainText("fields need correction");
  const wanted = [
    /The precautions is missing/,
    /say what kind of hot work it is/,
    /People with a flame or arc is not a number/,
  ];
  for (const words of wanted) await expect(summary.getByRole("button", { name: words })).toBeVisible();
  const welders = form.getByLabel("People with a flame or arc");
  await expect(welders).toHaveAttribute("aria-invalid", "true");
  await expect(welders).toHaveAccessibleDescription(/is not a number/);
  await expect(form.getByRole("group", { name: "Kind of hot work" })).toContainText("say what kind of hot work it is");
  await expect(form.getByLabel("What may be done")).toHaveValue("Weld the cracked bracket.");
  await expectNoAxeViolation(petra, page);
  await summary.getByRole("button", { name: wanted[2]! }).focus();
  await petra.keyboard.press("Enter");
  await expect(welders).toBeFocused();
  await petra.keyboard.press("Control+A");
  await petra.keyboard.type("1");
  await form.getByLabel("Precautions").focus();
  await petra.keyboard.type("Screens; wet floor.");
  await form.getByRole("checkbox", { name: "welding" }).focus();
  await petra.keyboard.press("Space");
  await form.getByLabel("No gas cylinders are used").focus();
  await petra.keyboard.press("Space");

  // The session is gone: said so, and everything typed is back after signing in again.
  const cookies = await petra.context().cookies();
  await petra.context().clearCookies();
  await form.getByRole("button", { name: "Write the permit" }).press("Enter");
  await expect(summary).toContainText("You are not signed in");
  await petra.context().addCookies(cookies);
  const expectBack = async () => {
    await petra.goto(page);
    await expect(form.getByText("What you had typed is back.")).toBeVisible();
    await expect(form.getByLabel("What may be done")).toHaveValue("Weld the cracked bracket.");
    await expect(form.getByLabel("Precautions")).toHaveValue("Screens; wet floor.");
    await expect(form.getByRole("checkbox", { name: "welding" })).toBeChecked();
    await expect(form.getByLabel("No gas cylinders are used")).toBeChecked();
  };
  await expectBack();
  // The server is killed and comes back.
  await site.restart();
  await expectBack();

  await form.getByLabel("Levels that sparks can reach").fill("1");
  await form.getByLabel("Where the flame is").selectOption("no");
  await form.getByLabel("Where sparks can land").selectOption("yes");
  // Another unit asks the same figures anew: what was typed stays the same length.
  await form.getByLabel("Above the floor, m").fill("3");
  await openMenu(petra);
  await petra.getByRole("button", { name: /^Units are metric/ }).click();
  await expect(form.getByLabel("Above the floor, ft")).toHaveValue(/^9\.8425/);
  await expect(form.getByLabel("Precautions")).toHaveValue("Screens; wet floor.");
  await form.getByLabel("Level, ft").fill("9000");
  await form.getByRole("button", { name: "Write the permit" }).press("Enter");
  await expect(summary).toContainText(/must be at most .* m \([\d,. ]+ ft\)/);
  await form.getByLabel("Level, ft").fill("10");
  await form.getByRole("button", { name: "Write the permit" }).press("Enter");
  await expect(petra).toHaveURL(/\/permits\/P-\d+$/);
  const permit = /P-\d+/.exec(petra.url())![0];
  const [row] = read<{ details: string }>(site, "SELECT details_json AS details FROM permits WHERE number = ?", permit);
  expect(JSON.parse(row!.details)).toMatchObject({
    kind: "hot work",
    works: ["welding"],
    welders: 1,
    inEquipment: false,
    outOfSight: true,
    height_m: expect.closeTo(3, 9) as unknown,
    level_m: expect.closeTo(3.048, 9) as unknown,
  });
  await expect(petra.getByText(/level [\d.]+ ft/)).toBeVisible();

  // Once it is written nothing comes back, and no PIN was ever kept.
  await petra.goto(page);
  await expect(form.getByLabel("What may be done")).toBeVisible();
  await expect(form.getByText("What you had typed is back.")).toHaveCount(0);
  const kept = await petra.evaluate(() => JSON.stringify(localStorage));
  expect(kept).not.toContain("pin");
});

test("a time is the site's, whatever zone the browser is in", async ({ as }) => {
  // As far from the site's zone as there is.
  const maren = await as("Maren Tolve", "Pacific/Kiritimati");
  await maren.goto("/jobs/new");
  await maren.getByLabel("What is to be done").fill("Look at the sump");
  await maren.getByLabel("In more words").fill("Look at the sump pump.");
  await maren.getByLabel("Work location 1: tag, or tag.part").fill("P-204A");
  // How people meet it is asked, and is nothing beforehand: what is sent without it is refused by name.
  const open = maren.getByRole("checkbox", { name: "open it" }).first();
  await expect(open).not.toBeChecked();
  await maren.getByLabel("Permit holder, in charge of the party").selectOption({ label: "Petra Quillon" });
  await maren.getByRole("button", { name: "Send the request" }).click();
  await expect(maren.getByRole("alert").filter({ hasText: "say how people meet it" })).toBeVisible();
  await open.check();
  // Typed as people write it; when the field is left it says which day was meant. What is no day is refused by name.
  const starts = maren.getByLabel("Window starts");
  await starts.fill("31 Feb 2026, 06:10");
  await maren.getByLabel("Window ends").fill("1.12.");
  await maren.getByRole("button", { name: "Send the request" }).click();
  await expect(maren.getByRole("alert").filter({ hasText: "31 Feb 2026, 06:10 is no time" })).toBeVisible();
  await starts.fill("1 dec 2026 6:10");
  await starts.blur();
  await expect(starts).toHaveValue("Tue 1 Dec 2026, 06:10");
  // Or picked, by keyboard alone.
  await maren.getByLabel("Window ends").fill("1 Dec 2026, 13:20");
  await maren.getByRole("button", { name: "Open the calendar" }).nth(1).press("Enter");
  const calendar = maren.getByRole("dialog", { name: "Calendar" });
  await expect(calendar.getByRole("gridcell", { selected: true })).toHaveText("1");
  await expectNoAxeViolation(maren, "the calendar");
  await calendar.getByLabel("Hour").selectOption("14");
  await calendar.getByRole("button", { name: "That is it" }).press("Enter");
  await expect(calendar).toHaveCount(0);
  await expect(maren.getByLabel("Window ends")).toHaveValue("Tue 1 Dec 2026, 14:20");
  await maren.getByLabel("Permit holder, in charge of the party").selectOption({ label: "Petra Quillon" });
  await maren.getByRole("checkbox", { name: "Tomas Veyron" }).check();
  await maren.getByRole("radio", { name: /within the shift/ }).check();
  // A window that is longer than any shift lets nobody say so.
  await maren.getByRole("button", { name: "Send the request" }).click();
  await expect(maren.getByRole("alert").filter({ hasText: "longer than a shift of 8 h" })).toBeVisible();
  await maren.getByRole("radio", { name: /others take it over/ }).check();
  await maren.getByRole("button", { name: "Send the request" }).click();
  await expect(maren).toHaveURL(/\/jobs\/J-\d+\/energies/);
  await maren.goto(maren.url().replace("energies", "ask"));
  await expect(maren.getByText(/1 Dec, 06:10 to (Tue )?1 Dec, 14:20/)).toBeVisible();
});

test("before a page's script runs nothing can be sent, and no PIN comes into an address", async ({
  as,
  browser,
  site,
}) => {
  const maren = await as("Maren Tolve");
  const dead = await browser.newContext({ baseURL: site.url, javaScriptEnabled: false });
  await dead.addCookies(await maren.context().cookies());
  const page = await dead.newPage();
  let seen = 0;
  for (const path of ["/permits/P-0001", "/permits/P-0002", "/jobs/J-0001/walk"]) {
    await page.goto(path);
    const pins = page.getByLabel("Your PIN");
    const count = await pins.count();
    for (let i = 0; i < count; i++) {
      const form = pins.nth(i).locator("xpath=ancestor::form");
      await expect(form.locator('button[type="submit"]')).toBeDisabled();
      await expect(form).toHaveAttribute("method", "post");
    }
    seen += count;
    for (const pin of await pins.all()) {
      if (!(await pin.isVisible())) continue;
      await pin.fill(PIN);
      await pin.press("Enter");
      await page.waitForLoadState();
      expect(page.url()).toBe(`${site.url}${path}`);
    }
  }
  expect(seen).toBeGreaterThan(3);
  await dead.close();
});
