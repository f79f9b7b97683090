import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, openSite, PIN, SITE_TIMEOUT_MS, perWorker as shared, type Site } from "./site";
import { HOME } from "./seeded";
import { done, read } from "./work";

/** A site of its own: its register changes under the work. */
const test = shared.extend<object, { site: Site }>({
  site: [
    async ({}, use, worker) => openSite(use, 4320 + worker.parallelIndex),
    { scope: "worker", timeout: SITE_TIMEOUT_MS },
  ],
});

const PROOF = "prove CY-260 (hydraulic)";
const DAY_MS = 86_400_000;

/** The demo's register, with an old main under the floor that nobody had drawn, joined to the cylinder. */
function withOldMain() {
  const file = (name: string) => readFileSync(join(HOME, "demo", name), "utf8").trimEnd();
  const row = (text: string, cells: Record<string, string>) =>
    text
      .split("\n")[0]!
      .split(",")
      .map((head) => cells[head] ?? "")
      .join(",");
  const [items, links] = [file("items.csv"), file("links.csv")];
  return {
    files: [
      { name: "items.csv", text: `${items}\n${row(items, { tag: "N-7701", kind: "header", source: "pneumatic" })}\n` },
      { name: "links.csv", text: `${links}\n${row(links, { from: "N-7701", to: "CY-260", carries: "pneumatic" })}\n` },
      { name: "areas.csv", text: file("areas.csv") },
    ],
  };
}

const typesAfter = (site: Site, seq: number) =>
  read<{ type: string; subject: string }>(site, "SELECT type, subject FROM ledger WHERE seq > ? ORDER BY seq", seq).map(
    ({ type, subject }) => `${type} ${subject}`,
  );
const lastRow = (site: Site) => read<{ seq: number }>(site, "SELECT max(seq) AS seq FROM ledger")[0]!.seq;

test("a failed proof stops the work on every screen, stays, and is answered by a cause and another instrument", async ({
  as,
  site,
}) => {
  const [petra, odalys, idris] = [await as("Petra Quillon"), await as("Odalys Brenn"), await as("Idris Halloway")];
  await petra.goto("/permits/P-0001");
  await expect(petra.getByText("active", { exact: true })).toBeVisible();
  await odalys.goto("/jobs/J-0001/walk");
  await odalys.getByText("Prove again at any time").click();
  const again = odalys.getByRole("form", { name: `again: ${PROOF}`, exact: true });
  await again.getByLabel("Reading, bar").fill("3.2");
  await again.getByLabel("Pressure gauge number").fill("PG-04");
  await again.getByLabel("Your PIN").fill(PIN);
  const before = lastRow(site);
  await again.getByRole("button", { name: "Proved dead again" }).click();
  await expect(petra.getByText("Work is stopped.")).toBeVisible();
  expect(typesAfter(site, before)).toEqual(["step.prove-again S-0001", "permit.stopped-by-itself P-0001"]);

  // What was seen, and where it may come from; nobody types nought over it.
  const step = odalys.getByRole("listitem", { name: new RegExp(`${PROOF.replace(/[()]/g, "\\$&")}$`) });
  await expect(step.getByText("Not proved.")).toBeVisible();
  await expect(step).toContainText("3.2 bar read with PG-04, Odalys Brenn");
  await expect(step.getByRole("listitem").filter({ hasText: "V-2601 alone stands in the way" })).toBeVisible();
  await expect(step.getByRole("form", { name: PROOF, exact: true })).toHaveCount(0);
  await expect(odalys.getByText("Not proved, whatever the plan says:")).toBeVisible();
  const cause = step.getByRole("form", { name: `cause: ${PROOF}`, exact: true });
  await cause.getByLabel("What it came from").fill("the relief BL-2602 was plugged");
  await cause.getByLabel("Your PIN").fill(PIN);
  await cause.getByRole("button", { name: "That was it" }).click();
  const proof = step.getByRole("form", { name: PROOF, exact: true });
  await proof.getByLabel("Reading, bar").fill("0");
  await proof.getByLabel("Pressure gauge number").fill("PG-04");
  await proof.getByLabel("Your PIN").fill(PIN);
  await proof.getByRole("button", { name: "Proved dead" }).click();
  await expect(proof.getByRole("alert")).toContainText("failed in your hands");
  const until = Date.now() + 100 * DAY_MS;
  await done(await as("Maren Tolve"), "gear.enter", {
    kind: "pressure gauge",
    number: "PG-09",
    error: 0.02,
    inDateUntil_ms: until,
  });
  await proof.getByLabel("Pressure gauge number").fill("PG-09");
  await proof.getByLabel("Your PIN").fill(PIN);
  await proof.getByRole("button", { name: "Proved dead" }).click();
  await expect(odalys.getByRole("heading", { name: "Isolation S-0001: proven" })).toBeVisible();
  await expect(step).toContainText("Came from: the relief BL-2602 was plugged.");
  // The issuer lets the same permit go on.
  await done(idris, "permit.resume", { permit: "P-0001", words: "Relief cleared, proved by another gauge." });
  await expect(petra.getByText("active", { exact: true })).toBeVisible();
});

test("a register that joins something new to live work stops it on the phone and at the box at once", async ({
  as,
  site,
}) => {
  const [petra, tomas, maren] = [await as("Petra Quillon"), await as("Tomas Veyron"), await as("Maren Tolve")];
  await petra.setViewportSize({ width: 390, height: 844 });
  await petra.goto("/permits/P-0001");
  await expect(petra.getByText("active", { exact: true })).toBeVisible();
  await tomas.goto("/boxes/B-0001");
  const before = lastRow(site);
  // Looked at in each frame: what waits for an element looks seldomer and seldomer.
  const shows = (page: typeof petra, words: string) =>
    page.waitForFunction((said) => document.body.innerText.includes(said), words).then(() => Date.now());
  const alarms = Promise.all([petra, tomas].map((page) => shows(page, "P-0001 has stopped.")));
  const seen = Promise.all([shows(petra, "Work is stopped."), shows(tomas, "Stop, everybody off:")]);
  await done(maren, "plant.import", withOldMain());
  const since = Date.now();
  const [alarm, last] = [Math.max(...(await alarms)), Math.max(...(await seen))];
  await expect(petra.getByText("Work is stopped.")).toBeVisible();
  const says = /on revision 2 of the plant register S-0001 does not hold: N-7701 reaches CY-260/;
  await expect(petra.getByText(says).first()).toBeVisible();
  await expect(tomas.getByText("Stop, everybody off:")).toBeVisible();
  // Told, not asked: a busy machine takes what it takes, a quiet one some tenths of a second.
  test
    .info()
    .annotations.push(
      { type: "alarm on both after, ms", description: String(alarm - since) },
      { type: "seen on both after, ms", description: String(last - since) },
    );
  expect(typesAfter(site, before)).toEqual(
    expect.arrayContaining(["plant.import plant 2", "isolation.fell S-0001", "permit.stopped-by-itself P-0001"]),
  );
  await maren.goto("/");
  await expect(maren.getByText("the plant changed, and its points no longer hold")).toBeVisible();
});
