import { expect, ownSite, post } from "./site";

const test = ownSite();

test("a point under live work is swapped only with the proof that nobody loses a barrier", async ({ as, site }) => {
  // Two people are on at the tipper cylinder, behind V-2601 alone. The pump's isolator does not hold the oil tank.
  const jonas = await as("Jonas Ekeberg");
  const swap = { isolation: "S-0001", from: "V-2601", to: "Q-212", plate: "2.12", lock: "X-1", reason: "handle loose" };
  const refused = await post(jonas, "point.swap", swap);
  expect(refused.status).toBe(409);
  expect(refused.body.sentence).toMatch(/0 barriers to CY-260 of job J-0001, where Petra Quillon, Tomas Veyron are on/);
  await jonas.goto("/jobs/J-0001/walk");
  await expect(jonas.getByLabel("Lift the lock from")).toHaveText(/V-2601/);

  // The agitator may be held at its coupling as well as at its drive; the new lock and the old are both in the ledger.
  const sunniva = await as("Sunniva Rask");
  await sunniva.goto("/jobs/J-0002/walk");
  await sunniva.getByText("Swap a point for another").click();
  const form = sunniva.getByRole("form", { name: "Swap a point" });
  await form.getByLabel("Lock instead").fill("CPL-230");
  await form.getByLabel("Plate reads").fill("CPL-999");
  await form.getByLabel("Lock number").fill("X-230");
  await form.getByLabel("Reason").fill("the isolator is wanted for a test");
  await form.getByLabel("Your PIN").fill("4711");
  await form.locator('button[type="submit"]').click();
  await expect(form.getByRole("alert")).toContainText("not what the plate of this point says");
  await form.getByLabel("Plate reads").fill("CPL-230");
  await form.getByLabel("Your PIN").fill("4711");
  await form.locator('button[type="submit"]').click();
  await expect(sunniva.getByText(/Lock CPL-230 in place of Q-211/)).toBeVisible();
  await expect(sunniva.getByLabel("Lift the lock from")).toHaveText("CPL-230");
  expect(site.lantern("verify").out).toContain("The ledger is whole");

  // A worker may not, whatever the screen shows.
  const tomas = await as("Tomas Veyron");
  expect((await post(tomas, "point.swap", { ...swap, lock: "X-2" })).status).toBe(403);
});
