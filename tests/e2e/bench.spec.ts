import { expect, openMenu, ownSite, post } from "./site";

const test = ownSite();

test("figures follow what is typed, the address carries them, and units change on the spot", async ({ as }) => {
  const page = await as("Petra Quillon");
  await page.goto("/bench");
  await page.getByRole("link", { name: "How long something hot cools" }).click();
  const main = page.locator('[data-result="time_s"]');
  // 150 to 50 °C at 25 °C with τ 2 h: 3.22 h.
  await expect(main).toHaveText("3 h 14 min");
  await page.getByRole("textbox", { name: "Down to" }).fill("40");
  await expect(main).toHaveText("4 h 15 min");
  await expect(page).toHaveURL(/target_C=40/);

  // The same link, opened by somebody else, in other units: the same figure.
  const other = await as("Tomas Veyron");
  await other.goto(page.url());
  await expect(other.locator('[data-result="time_s"]')).toHaveText("4 h 15 min");
  await openMenu(other);
  await other.getByRole("button", { name: "Units are metric: change to US" }).click();
  await expect(other.getByRole("textbox", { name: "Down to" })).toHaveValue("104");
  await expect(other.locator('[data-result="time_s"]')).toHaveText("4 h 15 min");
  await other.getByRole("textbox", { name: "Down to" }).fill("122");
  await expect(other.locator('[data-result="time_s"]')).toHaveText("3 h 14 min");
  // Units are the person's own: Petra's are as they were.
  await page.reload();
  await expect(page.getByRole("textbox", { name: "Down to" })).toHaveValue("40");
});

test("slips are said at the field and in a summary, nothing typed is lost, and no figure is shown", async ({ as }) => {
  const page = await as("Maren Tolve");
  await page.goto("/bench/purge-dilution");
  const answer = page.getByRole("region", { name: "Answer" });
  for (const [field, typed, says] of [
    ["Volume of the space", "0", "must be above 0"],
    ["Volume of the space", "-4", "must be above 0"],
    ["Volume of the space", "1000000000", "must be at most"],
    ["Volume of the space", "", "is missing"],
    ["Volume of the space", "1,5", "holds a comma"],
    ["Must come to", "0", "is never reached: the space ends at"],
  ] as const) {
    await page.goto("/bench/purge-dilution?volume_m3=30&flow_m3_s=0.25&c0=0.21&c=0.0125&cs=0.05");
    if (says !== "is never reached: the space ends at") await page.getByLabel(field).fill(typed);
    await expect(answer.getByRole("alert").filter({ hasText: says }), `${field} ${typed}`).toBeVisible();
    await expect(page.getByRole("form", { name: "Figures" }).getByText(says)).toBeVisible();
    if (says !== "is never reached: the space ends at") await expect(page.getByLabel(field)).toHaveValue(typed);
    await expect(page.locator("[data-result]")).toHaveCount(0);
    await expect(page.getByText(/NaN|Infinity|undefined/)).toHaveCount(0);
  }
});

test("every calculator opens with an example, a drawing and its source", async ({ as }) => {
  const page = await as("Maren Tolve");
  await page.goto("/bench");
  const links = await page
    .locator("main a[href^='/bench/']")
    .evaluateAll((all) => all.map((one) => one.getAttribute("href")!));
  expect(links.length).toBeGreaterThan(35);
  for (const link of links) {
    await page.goto(link);
    await expect(page.getByRole("region", { name: "Drawing" }).getByRole("img"), link).toBeVisible();
    await expect(page.getByText("How this comes about")).toBeVisible();
    expect(await page.locator("main").innerText()).not.toMatch(/NaN|Infinity|undefined|not a figure/);
  }
});

test("a figure is attached to a job with its inputs, worked out by the server; nonsense is refused", async ({ as }) => {
  const page = await as("Petra Quillon");
  await page.goto("/bench/capacitor");
  const form = page.getByRole("form", { name: "Attach the figure" });
  await form.getByLabel("Number").fill("J-9999");
  await form.getByLabel("Note").fill("Drive of the agitator");
  await form.locator('button[type="submit"]').click();
  await expect(page.getByRole("alert").filter({ hasText: "There is no job or permit J-9999" })).toBeVisible();
  await expect(form.getByLabel("Note")).toHaveValue("Drive of the agitator");
  await form.getByLabel("Number").fill("P-0001");
  await form.locator('button[type="submit"]').click();
  await expect(form.getByLabel("Number")).toHaveValue("");
  await page.goto("/permits/P-0001");
  const kept = page.getByRole("region", { name: "Attached figures" });
  await expect(kept).toContainText("Drive of the agitator");
  await expect(kept).toContainText("Petra Quillon");
  await kept.getByRole("link", { name: "Open with these figures" }).click();
  await expect(page).toHaveURL(/capacitance_F=0.0022/);
  await page.goto("/jobs/J-0001/time");
  await expect(page.getByRole("region", { name: "Attached figures" })).toContainText("Drive of the agitator");

  const refused = await post(page, "figure.attach", {
    calculator: "tank-drain",
    inputs: { diameter_m: -1 },
    to: "J-0005",
  });
  expect(refused.status).toBe(409);
  expect(refused.body.sentence).toContain("must be above 0");
  const worker = await as("Tomas Veyron");
  const forbidden = await post(worker, "job.set-up", { job: "J-0005", setup: {} });
  expect(forbidden.status).toBe(403);
});
