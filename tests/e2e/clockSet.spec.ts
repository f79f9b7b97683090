import { soundReport } from "../../src/core/isolation/soundReport";
import { MINUTE_MS, moving, sees } from "./moving";
import { expect, post, sign } from "./site";
import { done, read, stepsOf } from "./work";

/** Nobody else stops its permits. */
const test = moving();

test("a clock that was ahead: work stands until a coordinator sets it right, and then until it is proved again", async ({
  as,
  site,
  clock,
}) => {
  const [maren, odalys, idris, petra] = [
    await as("Maren Tolve"),
    await as("Odalys Brenn"),
    await as("Idris Halloway"),
    await as("Petra Quillon"),
  ];
  await petra.goto("/permits/P-0001");
  await sees(petra, "active");
  const proofs = stepsOf(site, "S-0001").filter(({ kind, done }) => kind === "prove" && done);
  expect(proofs.length).toBeGreaterThan(0);
  const prove = async () => {
    for (const proof of proofs) {
      await done(odalys, "step.prove-again", { isolation: "S-0001", step: proof.id, ...soundReport(proof) });
    }
  };
  // Ahead for as long as it takes to prove it once more; then somebody sets the server's clock back.
  await clock.on(40 * MINUTE_MS);
  await prove();
  await clock.on(-40 * MINUTE_MS);

  await petra.goto("/");
  const alert = petra.getByRole("alert").filter({ hasText: /The server's clock was at least (39|40) min ahead/ });
  await expect(alert).toContainText("Acts stand still at the time of the last one");
  await expect(alert.getByRole("form")).toHaveCount(0);
  await maren.goto("/");
  await sign(maren, "The clock is right", { "Compared with": "the radio's time signal" });
  await expect(maren.getByText("Acts stand still")).toHaveCount(0);

  // Everybody is told of each permit that it stopped, and the picture of the site says so.
  const plan = maren.getByRole("group", { name: "Site plan" });
  for (const permit of ["P-0001", "P-0002"]) {
    await expect(plan.getByRole("link", { name: new RegExp(`^${permit}, .*stopped`) })).toBeVisible();
    await expect(maren.getByText(`Permit ${permit} has stopped.`)).toBeVisible();
  }

  await petra.goto("/permits/P-0001");
  await sees(petra, "suspended");
  await expect(
    petra.getByText(/is right now \(the radio's time signal\): what was proved, read, purged or watched before/),
  ).toBeVisible();
  // Nothing in the record is dated later than now.
  const later = "SELECT step_id FROM steps WHERE done_at_ms > ? UNION SELECT id FROM holds WHERE locked_at_ms > ?";
  expect(read(site, later, clock.now_ms, clock.now_ms)).toEqual([]);

  const resume = { permit: "P-0001", words: "Looked at." };
  const early = await post(idris, "permit.resume", resume);
  expect(early.body).toMatchObject({ ok: false, sentence: expect.stringMatching(/timed by a clock that was wrong/) });
  await petra.goto("/jobs/J-0001/walk");
  await expect(petra.getByRole("heading", { name: /S-0001: proven before, to be proved again/ })).toBeVisible();
  await expect(petra.getByRole("region", { name: "Proofs to do again" })).toContainText(
    "timed by a clock that was wrong",
  );
  await expect(petra.getByText("Proved at every work location.")).toHaveCount(0);
  await prove();
  await expect(petra.getByText("Proved at every work location.")).toBeVisible();
  expect((await post(idris, "permit.resume", resume)).body.ok).toBe(true);
  await petra.goto("/permits/P-0001");
  await sees(petra, "active");
  expect(site.lantern("verify").status).toBe(0);
  const rows = read<{ type: string }>(
    site,
    "SELECT type FROM ledger WHERE outcome = 'done' ORDER BY seq DESC LIMIT 20",
  );
  expect(rows.map(({ type }) => type)).toEqual(
    expect.arrayContaining(["clock.settle", "step.prove-again", "permit.resume"]),
  );
});

test("a clock that jumps ahead while the server runs is seen at once: work stops, everybody is told, and it is proved again", async ({
  as,
  site,
  clock,
}) => {
  const [odalys, idris, petra] = [await as("Odalys Brenn"), await as("Idris Halloway"), await as("Petra Quillon")];
  await petra.goto("/permits/P-0001");
  await sees(petra, "active");
  await clock.set(70 * MINUTE_MS);
  await sees(petra, "suspended");
  await expect(petra.getByText("Permit P-0001 has stopped.")).toBeVisible();
  await expect(
    petra.getByRole("alert").filter({ hasText: /jumped ahead by 1 h 10 min \(seen by the machine's own count/ }),
  ).toBeVisible();
  const resume = { permit: "P-0001", words: "Looked at." };
  expect((await post(idris, "permit.resume", resume)).body).toMatchObject({ ok: false });
  for (const proof of stepsOf(site, "S-0001").filter(({ kind, done }) => kind === "prove" && done)) {
    await done(odalys, "step.prove-again", { isolation: "S-0001", step: proof.id, ...soundReport(proof) });
  }
  expect((await post(idris, "permit.resume", resume)).body.ok).toBe(true);
  await sees(petra, "active");
  await idris.goto("/ledger");
  await expect(idris.getByText(/the server's clock jumped ahead by 1 h 10 min/).first()).toBeVisible();
  expect(site.lantern("verify").status).toBe(0);
});
