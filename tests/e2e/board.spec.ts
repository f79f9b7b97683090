import { expect, ownSite, post } from "./site";
import { expectNoAxeViolation } from "./axe";
import { done } from "./work";

const test = ownSite();

test("the board shows the site now, as it was and as it is planned", async ({ as }) => {
  const maren = await as("Maren Tolve");
  await maren.goto("/");
  const plan = maren.getByRole("group", { name: "Site plan" });
  await expect(plan.getByRole("link", { name: /^P-0001, .*, active, 2 on$/ })).toBeVisible();
  await expect(plan.getByRole("link", { name: /^J-0003, .*, planned$/ })).toBeVisible();
  await expect(maren.getByRole("region", { name: "The site" }).getByRole("status")).toHaveText("4 people");

  // Back: nothing was out yet. By keyboard, as everything here.
  const cursor = maren.getByRole("slider", { name: "Moment that is shown" });
  await cursor.press("Home");
  await expect(cursor).toHaveAttribute("aria-valuetext", /^As it was, /);
  await expect(plan.getByRole("link")).toHaveCount(0);
  // Ahead: what is planned, and nobody is said to be on.
  await cursor.press("End");
  await expect(cursor).toHaveAttribute("aria-valuetext", /^Planned, /);
  await expect(maren.getByText("Who will be on is not known")).toBeVisible();
  await expect(plan.getByRole("link", { name: /active/ })).toHaveCount(0);
  await maren.getByRole("button", { name: "Back to now" }).click();
  await expect(plan.getByRole("link", { name: /^P-0001, .*active/ })).toBeVisible();

  // The first thing due is one key away, and leads to where it is done.
  await maren.keyboard.press(".");
  const first = maren.getByRole("list", { name: "Due" }).getByRole("link").first();
  await expect(first).toBeFocused();
  await expectNoAxeViolation(maren, "board");

  // Two keys go to a place, one names them all.
  await maren.keyboard.press("?");
  const sheet = maren.getByRole("dialog", { name: "Keys" });
  await expect(sheet).toContainText("g p");
  await expectNoAxeViolation(maren, "keys");
  await maren.keyboard.press("Escape");
  await expect(sheet).toBeHidden();
  await maren.keyboard.press("g");
  await maren.keyboard.press("p");
  await expect(maren).toHaveURL(/\/permits$/);
  // Where somebody types, letters are letters.
  await maren.keyboard.press("/");
  await maren.keyboard.type("gb?");
  await expect(maren.getByRole("searchbox", { name: /^Find a tag/ })).toHaveValue("gb?");
  await expect(maren).toHaveURL(/\/permits$/);
});

test("a conflict is decided by who answers for both, once, and stays decided", async ({ as, site }) => {
  const maren = await as("Maren Tolve");
  await maren.goto("/");
  const words = "J-0002 and J-0004 both work at AG-230.";
  const conflicts = maren.locator("#conflicts");
  const row = conflicts.getByRole("listitem").filter({ hasText: words });
  await row.getByText("Ways out, and decide").click();
  await expect(row.getByText(/Begin J-0004 .* later/)).toBeVisible();
  await row
    .getByLabel("What is done so that both can go on")
    .fill("J-0002 first; J-0004 begins when its permit is closed.");
  await row.getByLabel("Your PIN").fill("4711");
  await row.getByRole("button", { name: "Both may go on" }).click();
  await expect(row.getByText(/^Maren Tolve, .*: J-0002 first/)).toBeVisible();
  await expect(maren.getByRole("list", { name: "Due" }).getByText(words)).toHaveCount(0);
  // Whoever only works sees it, and may not decide.
  const nils = await as("Nils Harrow");
  await nils.goto("/");
  await expect(nils.locator("#conflicts").getByText("J-0002 first; J-0004 begins")).toBeVisible();
  await expect(nils.getByRole("button", { name: "Both may go on" })).toHaveCount(0);
  expect(site.lantern("verify").out).toContain("The state is as the ledger wrote it");
});

test("work that stops is seen on an open board within a second, and heard until it is silenced", async ({ as }) => {
  const maren = await as("Maren Tolve");
  await maren.addInitScript(() => {
    const heard = window as unknown as { tones: number };
    heard.tones = 0;
    const start = OscillatorNode.prototype.start;
    OscillatorNode.prototype.start = function (when) {
      heard.tones++;
      start.call(this, when);
    };
  });
  const tones = () => maren.evaluate(() => (window as unknown as { tones: number }).tones);
  await maren.goto("/");
  const plan = maren.getByRole("group", { name: "Site plan" });
  await expect(plan.getByRole("link", { name: /^P-0001, .*active/ })).toBeVisible();
  const petra = await as("Petra Quillon");
  await done(petra, "permit.stop", { permit: "P-0001", reason: "Oil under the table" });
  await expect(plan.getByRole("link", { name: /^P-0001, .*stopped/ })).toBeVisible({ timeout: 3000 });
  await expect(maren.getByRole("list", { name: "Due" }).getByText("Work stopped: Oil under the table")).toBeVisible();
  await expect.poll(tones, { timeout: 10_000 }).toBeGreaterThanOrEqual(4);
  await maren.getByRole("button", { name: "Silence the sound here" }).click();
  await expect(maren.getByRole("button", { name: "Silence the sound here" })).toHaveCount(0);
  const then = await tones();
  await maren.waitForTimeout(5000);
  expect(await tones()).toBe(then);
  await expect(maren.getByText("Permit P-0001 has stopped.")).toBeVisible();
});

test("anybody stops the whole site; everybody is looked for; then work goes on permit by permit", async ({
  as,
  site,
}) => {
  const tomas = await as("Tomas Veyron");
  await tomas.goto("/");
  await tomas.locator("summary", { hasText: "Stop all work" }).click();
  await tomas.getByLabel("Why all work stops").fill("Fire at the boiler house");
  await tomas.getByRole("button", { name: "Stop all work now" }).click();
  await expect(tomas).toHaveURL(/\/muster\/M-0001$/);
  const left = tomas.getByRole("list", { name: "Not seen yet" }).getByRole("listitem");
  await expect(left).toHaveCount(4);

  const idris = await as("Idris Halloway");
  await idris.goto("/");
  await expect(idris.getByText("All work on the site is stopped:")).toBeVisible();
  await expect(idris.getByText("4 of 4 not seen.")).toBeVisible();
  // Nobody lets work go on, and nobody closes it, while somebody is missing.
  expect((await post(idris, "permit.resume", { permit: "P-0001", words: "all clear" })).body.sentence).toContain(
    "M-0001",
  );
  expect((await post(idris, "muster.close", { muster: "M-0001" })).body.sentence).toContain("Petra Quillon");
  for (let n = 4; n > 0; n--) {
    await left.first().getByRole("button", { name: "Seen" }).click();
    await expect(left).toHaveCount(n - 1);
  }
  await expect(tomas.getByText("Everybody was seen.")).toBeVisible();
  await expectNoAxeViolation(tomas, "muster");
  await idris.goto("/muster/M-0001");
  await idris.getByLabel("Your PIN").fill("4711");
  await idris.getByRole("button", { name: "Close the muster" }).click();
  // The words of before it is closed end alike.
  await expect(idris.getByText(/^Closed by Idris Halloway, .* Work goes on permit by permit\.$/)).toBeVisible();
  await done(idris, "permit.resume", { permit: "P-0001", words: "Looked at the place; all as it was." });
  await idris.goto("/");
  const plan = idris.getByRole("group", { name: "Site plan" });
  await expect(plan.getByRole("link", { name: /^P-0001, .*active/ })).toBeVisible();
  await expect(plan.getByRole("link", { name: /^P-0002, .*stopped/ })).toBeVisible();
  expect(site.lantern("verify").out).toContain("The state is as the ledger wrote it");
});
