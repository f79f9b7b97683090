import type { Page } from "@playwright/test";
import { expectNoAxeViolation } from "./axe";
import { expect, ownSite, PIN, post } from "./site";
import { expectDone, fillStep, walk } from "./walk";
import { approvedJob, read, stepsOf } from "./work";
import { soundReport } from "../../src/core/isolation/soundReport";
import QRCode from "qrcode";

const test = ownSite();

const FACE = { place: "K-207", how: ["touch"], carriers: ["power", "control"], reason: "the motor stays coupled" };

/** The form of a step on a phone, filled as it should be. */
async function prepare(page: Page, label: string, lock = "") {
  const form = page.getByRole("form", { name: label, exact: true });
  await fillStep(form, { tag: /[A-Z]+-\d+[A-Z]?/.exec(label)?.[0] ?? "", lock });
  await form.getByLabel("Your PIN").fill(PIN);
  return form;
}
const press = (form: Awaited<ReturnType<typeof prepare>>) => form.locator('button[type="submit"]').click();

test("a whole walk on a phone, the network cut in the middle, and a lock that no longer fits when it is back", async ({
  as,
  site,
}) => {
  const { job, isolation, box } = await approvedJob(as, site, {
    title: "Look at the terminals of the starter of pump A",
    face: FACE,
    lead: "Petra Quillon",
    crew: ["Petra Quillon"],
  });
  const steps = stepsOf(site, isolation).filter((step) => step.phase === "isolate");
  const locks = steps.filter((step) => step.kind === "lock" && step.competence === "electrical");
  expect(locks.length).toBeGreaterThan(1);
  const [first, second] = [locks[0]!, locks[1]!];
  const jonas = await as("Jonas Ekeberg");
  await jonas.setViewportSize({ width: 390, height: 844 });
  const page = `/jobs/${job}/walk`;
  await jonas.goto(page);
  const item = (label: string) =>
    jonas.getByRole("listitem", { name: new RegExp(`^Step \\d+: ${label.replace(/[().]/g, "\\$&")}$`) });
  const doIt = async (label: string, lock = "") => {
    const name = (await item(label).getAttribute("aria-label"))!;
    const form = await prepare(jonas, label, lock);
    await press(form);
    await expectDone(jonas, name, form, "Jonas Ekeberg");
  };
  const named = (kind: string) => steps.find((step) => step.kind === kind)!;
  await doIt(`tell ${named("tell").subject}`);
  await doIt(`stop ${named("stop").subject}`);
  const losses = named("accept losses");
  const byJonas = await post(jonas, "step.do", { isolation, step: losses.id, ...soundReport(losses) });
  expect(byJonas.body.sentence).toMatch(/Ask a person who is operator/);
  expect(
    (await post(await as("Ruth Amberley"), "step.do", { isolation, step: losses.id, ...soundReport(losses) })).status,
  ).toBe(200);
  await jonas.reload();

  // A wrong plate is refused on the spot, and what was typed stays.
  const wrong = await prepare(jonas, `lock ${first.subject}`, "N-1");
  await wrong.getByLabel("Plate reads").fill("9.99");
  await press(wrong);
  await expect(wrong.getByRole("alert")).toContainText("The plate you read says 9.99");
  await expect(wrong.getByLabel("Lock number")).toHaveValue("N-1");
  // The camera reads the code of the tag sheet; a picture without one says so.
  const code = `http://plant.invalid${page}?point=${first.subject}&plate=${encodeURIComponent(first.plate!)}`;
  const scan = wrong.getByLabel("Scan the code on the plate");
  const picture = (buffer: Buffer) => ({ name: "plate.png", mimeType: "image/png", buffer });
  await scan.setInputFiles(picture(await QRCode.toBuffer(code, { width: 420 })));
  await expect(wrong.getByLabel("Plate reads")).toHaveValue(first.plate!);
  await scan.setInputFiles(picture(Buffer.from("no picture")));
  await expect(wrong.getByText("No code found in the picture.", { exact: false })).toBeVisible();

  // By now the phone has the page; it takes a moment after it was first opened.
  await expect
    .poll(() => jonas.evaluate(async (path) => (await caches.match(path)) !== undefined, page), { timeout: 60_000 })
    .toBe(true);

  // The network goes. Two points are locked all the same; each act is kept, without the PIN.
  await jonas.context().setOffline(true);
  await expect(jonas.getByText("No network.")).toBeVisible();
  for (const [step, lock] of [
    [first, "N-1"],
    [second, "N-2"],
  ] as const) {
    await press(await prepare(jonas, `lock ${step.subject}`, lock));
    await expect(item(`lock ${step.subject}`).getByText("Done, not signed")).toBeVisible();
  }
  await expect(
    jonas.getByRole("region", { name: "Kept on this device" }).getByText("2 done, not signed"),
  ).toBeVisible();
  // Signing on is not kept: it needs the server.
  await expect(jonas.getByText(/Signing on and off, issuing, closing and lifting locks wait/)).toBeVisible();
  // The phone restarts: everything is still there, for it was on disk.
  await jonas.reload();
  await expect(item(`lock ${second.subject}`).getByText("Done, not signed")).toBeVisible();
  expect(stepsOf(site, isolation).some((step) => step.kind === "lock" && step.done)).toBe(false);

  // Meanwhile somebody else locks the first point.
  const odalys = await as("Odalys Brenn");
  const report = soundReport(first, { lock: "N-9" });
  expect((await post(odalys, "step.do", { isolation, step: first.id, ...report })).status).toBe(200);

  // Back again: a wrong PIN sends nothing; the right one sends all in their order, and one no longer fits.
  await jonas.context().setOffline(false);
  const send = jonas.getByRole("form", { name: "Sign the round" });
  await send.getByLabel("Your PIN").fill("0000");
  await send.locator('button[type="submit"]').click();
  await expect(jonas.getByText("The PIN is not right. Nothing was changed.")).toBeVisible();
  await send.getByLabel("Your PIN").fill(PIN);
  await send.locator('button[type="submit"]').click();
  await expect(item(`lock ${second.subject}`).getByText("Done", { exact: true })).toBeVisible();
  const conflict = jonas.getByRole("region", { name: `No longer fits: lock ${first.subject}` });
  await expect(conflict.getByText(/is already done, by Odalys Brenn/)).toBeVisible();
  await expect(conflict.getByText(/Done .* by Odalys Brenn, lock N-9/)).toBeVisible();
  await expect(conflict.getByText("N-1").first()).toBeVisible();

  await expectNoAxeViolation(jonas, "a lock that no longer fits");

  // Both locks hang there, and he says so; both keys then go into the box.
  const hangs = conflict.getByRole("form", { name: `My lock hangs there too: lock ${first.subject}` });
  await hangs.getByLabel("What is so on the spot").fill("Both locks on one hasp.");
  await hangs.getByLabel("Your PIN").fill(PIN);
  await hangs.locator('button[type="submit"]').click();
  await expect(conflict).toHaveCount(0);
  await expect(jonas.getByRole("region", { name: "Kept on this device" })).toHaveCount(0);
  const hung = () =>
    read<{ lock: string }>(
      site,
      `SELECT h.lock FROM holds h JOIN isolations i ON i.id = h.isolation_id
       WHERE i.number = ? AND h.lifted_at_ms IS NULL ORDER BY h.lock`,
      isolation,
    ).map(({ lock }) => lock);
  expect(hung()).toEqual(["N-1", "N-2", "N-9"]);

  // The rest of the walk, each on a phone, to the end.
  for (const who of ["Sunniva Rask", "Odalys Brenn"])
    await (await as(who)).setViewportSize({ width: 390, height: 844 });
  await walk(as, job, "walk");
  await jonas.goto(page);
  await expect(jonas.getByRole("heading", { name: `Isolation ${isolation}: proven` })).toBeVisible();
  await jonas.goto(`/boxes/${box}`);
  await expect(jonas.getByRole("row").filter({ hasText: "N-1" }).first()).toContainText("in the box");
  const [kept] = read<{ apart: number }>(
    site,
    "SELECT recorded_at_ms - done_at_ms AS apart FROM ledger WHERE type = 'step.do' AND outcome = 'done' AND body LIKE '%\"N-2\"%'",
  );
  expect(kept!.apart).toBeGreaterThan(0);
  expect(site.lantern("verify").out).toContain("The ledger is whole");
});
