import { randomUUID } from "node:crypto";
import Database from "better-sqlite3";
import { join } from "node:path";
import { expect, ownSite, PIN, post, type Site } from "./site";
import { done, stepsOf } from "./work";

const test = ownSite();

/** Everything that an act may change, as text. The ledger is left out: it records refusals. */
function state(site: Site): string {
  const db = new Database(join(site.data, "heavy-lantern.db"), { readonly: true });
  const tables = [
    "jobs",
    "isolations",
    "steps",
    "holds",
    "lock_boxes",
    "personal_locks",
    "permits",
    "permit_isolations",
    "plant_revisions",
  ];
  const text = JSON.stringify(tables.map((table) => db.prepare(`SELECT * FROM ${table} ORDER BY 1, 2`).all()));
  db.close();
  return text;
}

test("forbidden acts are refused with a sentence, and nothing is changed", async ({ as, site, browser }) => {
  const petra = await as("Petra Quillon");
  const tomas = await as("Tomas Veyron");
  const sunniva = await as("Sunniva Rask");
  const jonas = await as("Jonas Ekeberg");
  const maren = await as("Maren Tolve");
  const idris = await as("Idris Halloway");

  // A draft on the tipper's proven isolation, to try things on.
  const hour = 3_600_000;
  const drafted = await post(petra, "permit.draft", {
    job: "J-0001",
    words: "Look at the gland.",
    hazards: "Oil.",
    precautions: "Gloves.",
    validFrom_ms: Date.now() - hour,
    validTo_ms: Date.now() + 4 * hour,
  });
  expect(drafted.status).toBe(200);
  const permit = drafted.body.answer!.permit!;
  const before = state(site);

  const refused = async (
    answer: Promise<{ status: number; body: { ok: boolean; sentence?: string } }>,
    status: number,
    words: RegExp,
  ) => {
    const { status: got, body } = await answer;
    expect(body.ok).toBe(false);
    expect(body.sentence).toMatch(words);
    expect(got).toBe(status);
    expect(state(site)).toBe(before);
  };

  // Acts of another role, posted directly.
  await refused(
    post(petra, "permit.issue", { permit }),
    403,
    /You may not issue a permit\. Ask a person who is issuer/,
  );
  await refused(
    post(tomas, "isolation.approve", { job: "J-0003", school: "work", plantRevision: 1 }),
    403,
    /may not approve an isolation/,
  );
  await refused(post(idris, "return.start", { isolation: "S-0001" }), 403, /may not start restoring/);
  await refused(post(tomas, "step.do", { isolation: "S-0002", step: "i4" }), 403, /may not carry out a step/);
  await refused(post(petra, "job.close", { job: "J-0001" }), 403, /may not close a job/);

  // A lock hung, or a step done, without the competence; and out of order.
  const steps = stepsOf(site, "S-0002").filter(({ phase, done }) => phase === "isolate" && !done);
  const open = new Set(steps.map(({ id }) => id));
  const isNext = ({ after }: (typeof steps)[number]) => !after.some((id) => open.has(id));
  const mechanical = steps.find((step) => step.competence === "mechanical" && isNext(step))!;
  const later = steps.find((step) => !isNext(step))!;
  await refused(
    post(jonas, "step.do", { isolation: "S-0002", step: mechanical.id }),
    409,
    /needs mechanical competence/,
  );
  await refused(post(sunniva, "step.do", { isolation: "S-0002", step: later.id }), 409, /cannot be done yet\. First: /);

  // The locks stay while somebody is on.
  await refused(
    post(maren, "return.start", { isolation: "S-0001" }),
    409,
    /Still signed on: Petra Quillon, Tomas Veyron/,
  );
  await refused(post(sunniva, "step.do", { isolation: "S-0001", step: "r99" }), 409, /There is no step r99/);
  await refused(post(maren, "job.close", { job: "J-0001" }), 409, /Still open: P-0001/);

  // Not one's own permit; not another's sign-on; not outside the crew.
  await refused(
    post(sunniva, "permit.sign-on", { permit: "P-0001", lock: "X-1", answer: "CY-260", briefed: true }),
    409,
    /not in the crew of job J-0001/,
  );
  await refused(
    post(tomas, "permit.sign-on", { permit: "P-0001", lock: "X-1", answer: "CY-260", briefed: true }),
    409,
    /already signed on/,
  );
  await refused(post(maren, "permit.sign-off", { permit: "P-0001" }), 409, /You are not signed on/);

  // Wrong PIN, no PIN, signed out, another site, not JSON, unknown act, bad input that names its field.
  await refused(post(idris, "permit.issue", { permit }, "0000"), 403, /The PIN is not right\. Nothing was changed/);
  await refused(post(idris, "permit.issue", { permit }, ""), 403, /Enter your PIN/);
  const stranger = await browser.newContext({ baseURL: site.url });
  await refused(post(await stranger.newPage(), "permit.issue", { permit }), 401, /You are not signed in/);
  await stranger.close();
  const foreign = await idris.request.post("/api/acts", {
    data: { version: 1, actId: randomUUID(), type: "permit.issue", input: { permit }, pin: PIN },
    headers: { origin: "http://elsewhere.invalid" },
  });
  expect(foreign.status()).toBe(403);
  await refused(post(idris, "permit.invent", { permit }), 400, /There is no act permit\.invent/);
  await refused(post(petra, "permit.draft", { job: "J-0001", words: " " }), 400, /words: What may be done is missing/);

  // The same by the screens: a sentence, and what was typed is still there.
  await tomas.goto("/permits/P-0001");
  await expect(tomas.getByRole("form", { name: "Hand back" })).toHaveCount(0);
  await sunniva.goto("/jobs/J-0002/walk");
  const proof = sunniva.getByRole("form", { name: "prove AG-230 (shaft)" });
  await proof.getByLabel("Your PIN").fill("9999");
  await proof.locator('button[type="submit"]').click();
  await expect(proof.getByRole("alert")).toContainText("The PIN is not right");
  await expect(proof.getByLabel("Your PIN")).toHaveValue("9999");
  expect(state(site)).toBe(before);

  // Refusals are evidence.
  await maren.goto("/ledger?find=not yours to do");
  await expect(maren.getByRole("row").filter({ hasText: "refused" })).not.toHaveCount(0);
});

test("a holder who is also an issuer cannot issue their own permit, by screen or by post", async ({ as, site }) => {
  // Petra is given the issuer's role as a site might, behind the screens.
  const db = new Database(join(site.data, "heavy-lantern.db"));
  const was = db.prepare("SELECT roles_json FROM people WHERE sign_in = 'petra'").pluck().get();
  db.prepare("UPDATE people SET roles_json = ? WHERE sign_in = 'petra'").run(
    JSON.stringify(["holder", "worker", "issuer"]),
  );
  try {
    const petra = await as("Petra Quillon");
    const drafted = await post(petra, "permit.draft", {
      job: "J-0001",
      words: "Look at the rod.",
      hazards: "Oil.",
      precautions: "Gloves.",
      validFrom_ms: Date.now() - 1000,
      validTo_ms: Date.now() + 3_600_000,
    });
    const permit = drafted.body.answer!.permit!;
    await done(await as("Maren Tolve"), "permit.check", { permit });
    const own = await post(petra, "permit.authorise", { permit });
    expect(own.body.sentence).toBe("You are the holder of this permit, so somebody else must sign this.");
    await done(await as("Idris Halloway"), "permit.authorise", { permit });
    const before = state(site);
    const { status, body } = await post(petra, "permit.issue", { permit });
    expect(status).toBe(409);
    expect(body.sentence).toBe("You are the holder of this permit, so somebody else must issue it.");
    await petra.goto(`/permits/${permit}`);
    await expect(petra.getByRole("form", { name: "Issue" })).toHaveCount(0);
    expect(state(site)).toBe(before);
  } finally {
    db.prepare("UPDATE people SET roles_json = ? WHERE sign_in = 'petra'").run(was);
    db.close();
  }
});

test("the same act sent twice is done once and answered alike", async ({ as }) => {
  const maren = await as("Maren Tolve");
  const petra = await as("Petra Quillon");
  const data = {
    version: 1,
    actId: randomUUID(),
    type: "permit.draft",
    input: {
      job: "J-0001",
      words: "Measure the rod.",
      hazards: "Oil.",
      precautions: "Gloves.",
      validFrom_ms: Date.now(),
      validTo_ms: Date.now() + 3_600_000,
    },
  };
  const answers = await Promise.all([1, 2, 3].map(() => petra.request.post("/api/acts", { data })));
  const bodies = await Promise.all(answers.map((answer) => answer.json()));
  expect(bodies[0]).toMatchObject({ ok: true });
  expect(bodies[1]).toEqual(bodies[0]);
  expect(bodies[2]).toEqual(bodies[0]);
  await maren.goto("/ledger?find=Measure the rod");
  await expect(maren.getByText("Measure the rod", { exact: false })).toHaveCount(1);
});
