import type { Page } from "@playwright/test";
import { expect, ownSite } from "./site";

const test = ownSite();

const answer = (page: Page, key: string) => page.locator(`[data-answer="${key}"]`);
/** The duration that stands beside a link of the critical path, in minutes. */
async function linkMinutes(page: Page, words: RegExp): Promise<number> {
  const row = page.getByRole("region", { name: "Critical path" }).getByRole("listitem").filter({ hasText: words });
  const said = (await row.locator(".num").first().textContent())!;
  const hours = Number(/(\d+) h/.exec(said)?.[1] ?? 0);
  const minutes = Number(/(\d+) min/.exec(said)?.[1] ?? 0);
  return hours * 60 + minutes + Number(/(\d+) s/.exec(said)?.[1] ?? 0) / 60;
}
const MONTHS = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"];
/** "Wed 25 Nov, 08:58" in minutes: enough to tell how far it moved, over the end of a month or a year too. */
async function moment(page: Page, key: string): Promise<number> {
  const said = (await answer(page, key).textContent())!;
  const [, day, name, hour, minute] = /(\d+) (\w+), (\d+):(\d+)/.exec(said)!;
  const now = new Date();
  const month = MONTHS.findIndex((one) => name!.startsWith(one));
  expect(month).toBeGreaterThanOrEqual(0);
  const year = now.getUTCFullYear() + (month < now.getUTCMonth() - 6 ? 1 : 0);
  return Date.UTC(year, month, Number(day), Number(hour), Number(minute)) / 60_000;
}

test("a second bend in the blower's hose moves the purge, the critical path and the earliest start", async ({ as }) => {
  const page = await as("Maren Tolve");
  await page.goto("/jobs/J-0005/time");
  await expect(answer(page, "decided-by")).toHaveText("Physics");
  const path = page.getByRole("region", { name: "Critical path" });
  for (const wait of [/drain T-235 through/, /T-235 cools/, /purge T-235.*longer/]) {
    await expect(path.getByRole("listitem").filter({ hasText: wait })).toHaveCount(1);
  }
  /** How long the work stands for each test of the air, in minutes: at a shift change there is one more. */
  const stands = async () => {
    const said = await page.locator("title", { hasText: "test the air again" }).allTextContents();
    return said.map((words) => {
      const [from, to] = [...words.matchAll(/(\d\d):(\d\d)/g)].map(([, hour, minute]) => +hour! * 60 + +minute!);
      return (to! - from! + 1440) % 1440;
    });
  };
  const sum = (all: readonly number[]) => all.reduce((before, one) => before + one, 0);
  const stood = await stands();
  const purge = /purge T-235.*longer/;
  const [purged, from, latest] = [
    await linkMinutes(page, purge),
    await moment(page, "work-from"),
    await moment(page, "latest-start"),
  ];

  await page.getByLabel("Bends in the blower's hose").fill("2");
  await expect.poll(() => linkMinutes(page, purge)).toBeCloseTo(purged / 0.7, 0);
  const moved = (await moment(page, "work-from")) - from;
  expect(moved).toBeGreaterThan(10);
  expect(Math.abs(moved - purged * (1 / 0.7 - 1))).toBeLessThanOrEqual(1.5);
  const sooner = latest - (await moment(page, "latest-start"));
  const stand = await stands();
  expect(stood.length).toBeGreaterThan(0);
  if (stand.length === stood.length) expect(sooner).toBe(moved);
  // The work now goes over a shift change, or no longer does. The chart says whole minutes.
  else expect(Math.abs(sooner - moved - (sum(stand) - sum(stood)))).toBeLessThanOrEqual(2);

  // A slip is said at its field, in the unit it was typed in, and the figures stay as they were.
  await page.getByLabel("The blower's rated flow").fill("1,5");
  await expect(page.getByRole("alert").filter({ hasText: "holds a comma" })).toBeVisible();
  await page.getByLabel("The blower's rated flow").fill("1692");
  await expect(page.getByRole("alert").filter({ hasText: "holds a comma" })).toHaveCount(0);

  // Kept with the job, it is there for the next person.
  await page.getByRole("button", { name: "Keep this set-up with the job" }).click();
  await expect(page.getByText("This is how it is kept with the job.")).toBeVisible();
  const petra = await as("Petra Quillon");
  await petra.goto("/jobs/J-0005/time");
  await expect(petra.getByLabel("Bends in the blower's hose")).toHaveValue("2");
  await expect.poll(() => linkMinutes(petra, purge)).toBeCloseTo(purged / 0.7, 0);
});

test("more electricians bring the end of the steps forward where the crew decides; the window is dragged by keys", async ({
  as,
}) => {
  const page = await as("Maren Tolve");
  await page.goto("/jobs/J-0006/time");
  await expect(answer(page, "decided-by")).toHaveText("Crew");
  // One way is held worse than asked and nobody has answered for it: no start is promised, whatever the hands.
  await expect(answer(page, "no-start")).toHaveText("Not yet");
  await expect(page.getByText("Nobody has answered for one way that is held worse than asked")).toBeVisible();
  const from = await moment(page, "steps-done");
  const electricians = page.getByRole("slider", { name: "People, electrical" });
  await electricians.focus();
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("ArrowRight");
  await expect.poll(() => moment(page, "steps-done")).toBeLessThan(from - 60);
  await expect(page.getByRole("region", { name: "Timeline" }).getByText("Electrical 3", { exact: true })).toBeVisible();

  const soon = await moment(page, "steps-done");
  await page.getByRole("slider", { name: "Start of the shutdown" }).focus();
  await page.keyboard.press("PageUp");
  await expect.poll(() => moment(page, "steps-done")).toBe(soon + 60);
  const latest = await moment(page, "latest-start");
  await page.getByRole("slider", { name: "End of the window" }).focus();
  await page.keyboard.press("PageUp");
  await expect.poll(() => moment(page, "latest-start")).toBe(latest + 60);
});

test("the start is dragged with a pointer too", async ({ as }) => {
  const page = await as("Maren Tolve");
  await page.goto("/jobs/J-0006/time");
  const from = await moment(page, "steps-done");
  const handle = page.getByRole("slider", { name: "Start of the shutdown" }).locator("rect");
  const box = (await handle.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 120, box.y + box.height / 2, { steps: 5 });
  await page.mouse.up();
  await expect.poll(() => moment(page, "steps-done")).toBeGreaterThan(from + 60);
});

test("the kit is set against the store, and counting it takes the shortage away", async ({ as }) => {
  const page = await as("Ruth Amberley");
  await page.goto("/jobs/J-0005/kit");
  // Other tests of this worker may have isolations of their own that take things: only the gasket is looked at.
  const short = page.getByText(/Short of (.*; )?2 × gasket DN 80, PN 16/);
  await expect(short).toBeVisible();
  await expect(page.getByRole("row").filter({ hasText: "isolation lock" })).toContainText("J-0001");
  await page.goto("/store");
  await page.getByLabel("Thing").fill("gasket");
  await page.getByLabel("Size, where it has one").fill("DN 80, PN 16");
  await page.getByRole("textbox", { name: "Count" }).fill("1,5");
  await page.getByRole("button", { name: "Write the count" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "must be a whole number" })).toBeVisible();
  await expect(page.getByLabel("Thing")).toHaveValue("gasket");
  await page.getByRole("textbox", { name: "Count" }).fill("6");
  await page.getByRole("button", { name: "Write the count" }).click();
  await expect(page.getByRole("row").filter({ hasText: "gasket" })).toContainText("6");
  await page.goto("/jobs/J-0005/kit");
  await expect(page.getByRole("row").filter({ hasText: "gasket" })).not.toContainText("short");
  await expect(short).toHaveCount(0);
});

test("once everything is isolated nobody is asked when to begin the shutdown: when the work must end is said", async ({
  as,
}) => {
  const page = await as("Maren Tolve");
  await page.goto("/jobs/J-0001/time");
  await expect(answer(page, "before")).toHaveText("All done");
  await expect(answer(page, "end-work")).toBeVisible();
  for (const key of ["work-from", "latest-start", "decided-by"]) await expect(answer(page, key)).toHaveCount(0);
  await expect(page.getByText("Every step before the work is done: nothing is left to wait for.")).toBeVisible();
  await expect(page.getByText(/^work may start \d/)).toHaveCount(0);
});
