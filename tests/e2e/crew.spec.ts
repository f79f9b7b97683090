import { expectNoAxeViolation } from "./axe";
import { Hand } from "./hand";
import { MINUTE_MS, moving } from "./moving";
import { expect, PIN, post } from "./site";
import { done, idOf } from "./work";

const test = moving();

/** A crew at one screen at the box: one of them in at most 7 taps and 5 digits, and nothing else on that screen. */

test("one of a crew signs on at the screen at the box in at most 7 taps and 5 digits; the screen does nothing else", async ({
  as,
  site,
  clock,
}) => {
  test.setTimeout(300_000);
  const maren = await as("Maren Tolve");
  const [mika, ...there] = [idOf(site, "Mika Thorne"), idOf(site, "Petra Quillon"), idOf(site, "Tomas Veyron")];
  await done(maren, "job.crew", { job: "J-0001", crew: [...there, mika] });
  await done(maren, "gear.enter", { kind: "lock", number: "H-777", owner: mika });

  // Who neither leads nor issued the work is told who does.
  await maren.goto("/permits/P-0001/crew");
  await expect(maren.getByText(/Petra Quillon or .* begins it/)).toBeVisible();
  await expect(maren.getByRole("form", { name: "Begin a crew round" })).toHaveCount(0);

  const box = await as("Petra Quillon");
  await box.setViewportSize({ width: 1024, height: 768 });
  await box.goto("/permits/P-0001");
  await box.getByRole("link", { name: "Crew at one screen, roll-call" }).click();
  const begin = box.getByRole("form", { name: "Begin a crew round" });
  await begin.getByLabel("Your PIN").fill(PIN);
  await begin.getByRole("button").click();
  await expect(box.getByRole("heading", { name: "Touch your name" })).toBeVisible();
  await expectNoAxeViolation(box, "crew, nobody signs");
  // People are asked where they work: it does not stand there.
  await expect(box.getByRole("main")).not.toContainText("CY-260");
  const theme = (to: string) => box.evaluate((one) => document.documentElement.setAttribute("data-theme", one), to);

  const hand = new Hand();
  await hand.tap(box.getByRole("button", { name: /Mika Thorne/ }));
  const on = box.getByRole("form", { name: "Sign Mika Thorne on" });
  for (const place of await on.getByRole("radio").all()) await expect(place).not.toBeChecked();
  await expect(on.getByRole("checkbox")).not.toBeChecked();
  await expect(on.getByLabel("My lock, on the box")).toHaveValue("");
  for (const shade of ["day", "night"]) {
    await theme(shade);
    await expectNoAxeViolation(box, `crew, one signs on, ${shade}`);
  }
  await hand.tick(on.getByRole("radio", { name: "CY-260" }));
  await hand.tap(on.getByRole("button", { name: "Put in H-777" }));
  await hand.tick(on.getByRole("checkbox", { name: /I was told/ }));
  await hand.send(box, on, "sign on at the box");
  await expect(box.getByRole("status").filter({ hasText: "Mika Thorne is on." })).toBeVisible();
  await expect(box.getByRole("button", { name: /Mika Thorne.*on, lock H-777/ })).toBeVisible();
  expect(hand.taps).toBeLessThanOrEqual(7);
  expect(PIN.length).toBeLessThanOrEqual(5);
  expect({ fields: hand.fields, pins: hand.pins }).toEqual({ fields: 0, pins: 1 });
  test.info().annotations.push({ type: "taps", description: String(hand.taps) });

  // Whoever passes by finds the crew and nothing else, and does nothing as its leader.
  await box.goto("/people");
  await expect(box).toHaveURL(/\/permits\/P-0001\/crew$/);
  await expect(box.getByRole("navigation")).toHaveCount(0);
  const other = await post(box, "permit.sign-off", { permit: "P-0001" });
  expect(other.body.sentence).toMatch(/stands at the box/);

  await box.getByRole("button", { name: "Call the roll" }).click();
  const roll = box.getByRole("form", { name: "Call the roll" });
  for (const one of await roll.getByRole("checkbox").all()) await expect(one).not.toBeChecked();
  await expectNoAxeViolation(box, "crew, roll-call");
  await roll.getByRole("checkbox", { name: "Petra Quillon" }).check();
  await roll.getByRole("checkbox", { name: "Mika Thorne" }).check();
  await roll.getByLabel("Your PIN").fill(PIN);
  await roll.getByRole("button").click();
  await expect(box.getByRole("paragraph").filter({ hasText: /Not seen at the roll-call/ })).toContainText(
    "Tomas Veyron",
  );

  // Off by two letters and the keyboard.
  await box.getByLabel("Name or number").fill("mi");
  await box.getByLabel("Name or number").press("Enter");
  const off = box.getByRole("form", { name: "Sign Mika Thorne off" });
  await off.getByLabel("Your PIN").fill("0000");
  await off.getByRole("button").click();
  await expect(off.getByRole("alert")).toContainText("Mika Thorne: The PIN is not right");
  await off.getByLabel("Your PIN").fill(PIN);
  await off.getByRole("button").click();
  await expect(box.getByRole("status").filter({ hasText: "Mika Thorne is off." })).toBeVisible();

  // Ten minutes without anybody: nobody signs any more until Petra is back.
  await clock.on(11 * MINUTE_MS);
  await box.reload();
  await expect(box.getByRole("heading", { name: "This round is over" })).toBeVisible();
  await expectNoAxeViolation(box, "crew, round over");
  const again = box.getByRole("form", { name: "Begin a crew round" });
  await again.getByLabel("Your PIN").fill(PIN);
  await again.getByRole("button").click();
  await expect(box.getByRole("heading", { name: "Touch your name" })).toBeVisible();

  await box.getByRole("button", { name: "End the round" }).click();
  const end = box.getByRole("form", { name: "End the crew round" });
  await expect(end.locator("xpath=..")).toContainText("Still on");
  await expectNoAxeViolation(box, "crew, end");
  await end.getByLabel("Your PIN").fill(PIN);
  await end.getByRole("button").click();
  await expect(box).toHaveURL(/\/permits\/P-0001$/);
  await expect(box.getByRole("navigation").first()).toBeVisible();
});
