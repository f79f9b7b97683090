import { expect, openSite, PIN, post, SITE_TIMEOUT_MS, perWorker as shared, type Site } from "./site";
import { read } from "./work";

/** A site of its own: its work is stopped. */
const test = shared.extend<object, { site: Site }>({
  site: [
    async ({}, use, worker) => openSite(use, 4360 + worker.parallelIndex),
    { scope: "worker", timeout: SITE_TIMEOUT_MS },
  ],
});

const typesAfter = (site: Site, seq: number) =>
  read<{ type: string; subject: string }>(site, "SELECT type, subject FROM ledger WHERE seq > ? ORDER BY seq", seq).map(
    ({ type, subject }) => `${type} ${subject}`,
  );
const lastRow = (site: Site) => read<{ seq: number }>(site, "SELECT max(seq) AS seq FROM ledger")[0]!.seq;

test("a lock that is not found where it was hung stops the work on the holder's phone, and another finds it", async ({
  as,
  site,
}) => {
  const [petra, jonas, sunniva] = [await as("Petra Quillon"), await as("Jonas Ekeberg"), await as("Sunniva Rask")];
  await petra.setViewportSize({ width: 390, height: 844 });
  await petra.goto("/permits/P-0001");
  await jonas.setViewportSize({ width: 390, height: 844 });
  await jonas.goto("/jobs/J-0001/locks");
  // The number that is to be read stands nowhere on the page.
  const [hung] = read<{ lock: string }>(
    site,
    "SELECT lock FROM holds JOIN items ON items.id = item_id WHERE tag = 'V-2601' AND lifted_at_ms IS NULL",
  );
  expect(await jonas.content()).not.toContain(hung!.lock);
  const reads = async (page: typeof jonas, lock: string) => {
    const form = page.getByRole("form", { name: "Read the locks" });
    await form.getByLabel("Lock on V-2601").fill(lock);
    await form.getByLabel("Your PIN").fill(PIN);
    await form.getByRole("button", { name: "I read these at the points" }).click();
    await expect(page).toHaveURL(/\/jobs\/J-0001\/walk$/);
  };
  const before = lastRow(site);
  await reads(jonas, "G-9999");
  await expect(petra.getByText(/the lock of S-0001 was not found on V-2601/).first()).toBeVisible({ timeout: 5_000 });
  await expect(jonas.getByText("Stop, everybody off:")).toBeVisible();
  expect(typesAfter(site, before).slice(0, 2)).toEqual([
    "isolation.check-locks S-0001",
    "permit.stopped-by-itself P-0001",
  ]);
  await sunniva.goto("/");
  await expect(sunniva.getByText("the lock was not found on V-2601.")).toBeVisible();
  await sunniva.getByRole("link", { name: "Its locks" }).click();
  await reads(sunniva, hung!.lock);
  await expect(sunniva.getByText("Stop, everybody off:")).toHaveCount(0);
  // Found again, it is not proved again: nobody goes on before that.
  const idris = await as("Idris Halloway");
  const again = await post(idris, "permit.resume", { permit: "P-0001", words: "It hangs." });
  expect(again.body.sentence).toContain("Prove again");
  expect(site.lantern("verify").status).toBe(0);
});
