import { sees } from "./moving";
import { expect, ownSite, PIN, post } from "./site";
import { read } from "./work";

const test = ownSite();
const PHONE = { width: 390, height: 844 };

test("of the crew somebody reads the locks at the points first; an audit that finds something else stops the work", async ({
  as,
  site,
}) => {
  const [petra, tomas, signe] = [await as("Petra Quillon"), await as("Tomas Veyron"), await as("Signe Aldane")];
  expect((await post(tomas, "permit.sign-off", { permit: "P-0001" })).body.ok).toBe(true);
  await tomas.setViewportSize(PHONE);
  await tomas.goto("/permits/P-0001");
  await expect(tomas.getByText("Nobody of the crew has read the locks at their points.")).toBeVisible();
  await tomas.getByRole("link", { name: "Read them yourself first" }).click();
  const [hung] = read<{ lock: string }>(
    site,
    "SELECT lock FROM holds JOIN items ON items.id = item_id WHERE tag = 'V-2601' AND lifted_at_ms IS NULL",
  );
  const form = tomas.getByRole("form", { name: "Read the locks" });
  await form.getByLabel("Lock on V-2601").fill(hung!.lock);
  await form.getByLabel("Your PIN").fill(PIN);
  await form.getByRole("button", { name: "I read these at the points" }).click();
  await expect(tomas).toHaveURL(/\/walk$/);
  await tomas.goto("/permits/P-0001");
  await expect(tomas.getByText(/Locks read at their points by Tomas Veyron/)).toBeVisible();
  // Who does not work behind them reads them not.
  const joss = await as("Joss Perrin");
  const found = [{ point: "V-2601", lock: hung!.lock }];
  const stranger = await post(joss, "isolation.check-locks", { isolation: "S-0001", found });
  expect(stranger.body).toMatchObject({ ok: false, code: "not in the crew" });

  // The holder is part of the work.
  await petra.goto("/permits/P-0001");
  await expect(petra.getByText("Audit on the spot")).toHaveCount(0);
  await signe.goto("/permits/P-0001");
  await signe.getByText("Audit on the spot").click();
  const audit = signe.getByRole("form", { name: "Audit on the spot" });
  for (const look of ["The copy at the work", "People and their locks", "Precautions"]) {
    await audit.getByLabel(look).selectOption("as written");
  }
  await audit.getByLabel("Watch and air").selectOption("not asked here");
  await audit.getByLabel("Locks and tags").selectOption("not as written");
  const sign = async () => {
    await audit.getByLabel("Your PIN").fill(PIN);
    await audit.getByRole("button", { name: "Sign the audit" }).click();
  };
  await sign();
  await expect(audit.getByRole("alert")).toContainText("Say what was found: locks and tags");
  await audit.getByLabel("What you found").fill("A tag is gone.");
  await sign();
  await sees(petra, "suspended");
  await expect(
    petra.getByRole("alert").filter({ hasText: "not as written: locks and tags. A tag is gone." }),
  ).toBeVisible();
  await expect(petra.getByText("Permit P-0001 has stopped.")).toBeVisible();
  await expect(signe.getByRole("list", { name: "Audits" })).toContainText("not as written: locks and tags");
  expect(site.lantern("verify").out).toContain("The ledger is whole");
});

test("a fire is reported from the phone without a PIN, and stops the work; a refusal is written down; paper is typed in late", async ({
  as,
  site,
}) => {
  const [edda, bram, nils] = [await as("Edda Morrow"), await as("Bram Ostler"), await as("Nils Harrow")];
  await bram.goto("/permits/P-0002");
  await edda.setViewportSize(PHONE);
  await edda.goto("/permits/P-0002");
  await edda.getByText("Somebody would not sign").click();
  const refusal = edda.getByRole("form", { name: "A refusal" });
  await refusal.getByLabel("Who would not").fill("A rigger of the crane crew");
  await refusal.getByLabel("What they would not sign or write").fill("fill in the watch log");
  await refusal.getByLabel("What they said").fill("No time.");
  await refusal.getByLabel("Your PIN").fill(PIN);
  await refusal.getByRole("button", { name: "Write it down" }).click();
  await sees(bram, "active");
  await edda.getByText("Something burned").click();
  const fire = edda.getByRole("form", { name: "Report a fire" });
  await fire.getByLabel("Where it burned").fill("under the bench");
  await fire.getByLabel("What burned").fill("a rag");
  await fire.getByRole("button", { name: "Report the fire" }).click();
  await expect(fire.getByRole("alert")).toContainText("How it was put out");
  await fire.getByLabel("How it was put out").fill("stamped on");
  await fire.getByRole("button", { name: "Report the fire" }).click();
  await sees(bram, "suspended");
  await expect(bram.getByText("Permit P-0002 has stopped.")).toBeVisible();
  const rows = read<{ type: string }>(
    site,
    "SELECT type FROM ledger WHERE subject = 'P-0002' ORDER BY seq DESC LIMIT 2",
  );
  expect(rows.map(({ type }) => type)).toEqual(["permit.report-fire", "permit.note-refusal"]);

  // Drawn before that, it is kept and counts for nothing.
  const now = Date.now();
  const paper = {
    permit: "P-0002",
    point: "at the frame",
    instrument: "GI-03",
    reader: read<{ id: string }>(site, "SELECT id FROM people WHERE sign_in = 'nils'")[0]!.id,
    drawn_ms: now - 10 * 60_000,
    read_ms: now - 5 * 60_000,
    oxygen_percent: 20.9,
    flammable_percent: 0,
  };
  const late = await post(nils, "permit.enter-paper-reading", { ...paper, read_ms: now + 10 * 60_000 });
  expect(late.body).toMatchObject({ ok: false, code: "paper order" });
  expect((await post(nils, "permit.enter-paper-reading", paper)).body).toMatchObject({ ok: true });
  await nils.goto("/permits/P-0002");
  await nils.getByText(/^Log: /).click();
  await expect(nils.getByRole("list", { name: "Log", exact: true })).toContainText(
    "typed in late and counted for nothing",
  );
  // Their own row: of others they read nothing there.
  await nils.goto("/ledger");
  await expect(nils.getByText(/typed in from paper what Nils Harrow read at the frame/)).toBeVisible();
});
