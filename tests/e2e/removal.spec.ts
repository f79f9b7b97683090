import { expect, ownSite, post, sign } from "./site";

const test = ownSite();

test("a lock that was left on is cut only after search, attempts and a manager, and its owner reads it first", async ({
  as,
}) => {
  // Signed in before, and still so when he comes back.
  const tomas = await as("Tomas Veyron");
  const idris = await as("Idris Halloway");
  await idris.goto("/permits/P-0001");
  await idris.getByText("Somebody left their lock on").click();
  await idris.getByLabel("Whose lock").selectOption({ label: "Tomas Veyron, lock P-23" });
  const opened = idris.waitForResponse("**/api/acts");
  await sign(idris, "A lock was left on", { Why: "His lock hangs there and the shift has gone." });
  const { answer } = (await (await opened).json()) as { answer: { removal: string } };
  const removal = idris.getByRole("region", { name: "Removal of lock P-23" });
  await expect(removal.getByRole("heading")).toContainText("opened");

  // Nobody skips ahead, not even by posting.
  const signe = await as("Signe Aldane");
  await signe.goto("/permits/P-0001");
  const early = await post(signe, "removal.authorise", { removal: answer.removal, words: "hurry" });
  expect([early.status, early.body.code]).toEqual([409, "wrong state"]);

  await sign(idris, "Searched: not on site: P-23", {
    "Where you searched, how you know": "Tipping bay, canteen, changing room; the gate says he left at two.",
  });
  await expect(removal.getByRole("heading")).toContainText("missing");
  for (const attempt of ["Called him twice, no answer.", "Sent a driver to his house: nobody in."]) {
    await sign(idris, "Tried to reach them: P-23", { "How, and what came of it": attempt });
    await expect(removal.getByText(attempt)).toBeVisible();
  }
  await signe.reload();
  await sign(signe, "Authorise: P-23", { "Why it may be cut": "Searched and tried; the table is needed tonight." });
  await expect(signe.getByRole("region", { name: "Removal of lock P-23" }).getByRole("heading")).toContainText(
    "authorised",
  );
  await idris.reload();
  await sign(idris, "Cut, the lock is off: P-23", { "What you saw when you searched again": "Bay empty, barrier up." });
  await expect(idris.getByText("There now: 1")).toBeVisible();

  // Tomas sees that and nothing else, whichever page he opens, and can do nothing before he has read it.
  for (const page of ["/", "/permits/P-0001", "/jobs/J-0003/walk"]) {
    await tomas.goto(page);
    await expect(tomas.getByRole("heading", { name: "Your lock P-23 was cut" })).toBeVisible();
    await expect(tomas.getByRole("heading")).toHaveCount(1);
  }
  await expect(tomas.getByText("Sent a driver to his house: nobody in.")).toBeVisible();
  const held = await post(tomas, "permit.sign-on", { permit: "P-0001", lock: "P-24", answer: "CY-260", briefed: true });
  expect([held.status, held.body.code]).toEqual([409, "not read"]);
  // But stop work: it is looked for, and not kept from him by what he has not read.
  const stop = await post(tomas, "permit.stop", { permit: "P-9999", reason: "Fire." });
  expect(stop.body.code).toBe("unknown");
  await sign(tomas, "I have read it");
  await expect(tomas.getByRole("heading", { name: "Your lock P-23 was cut" })).toHaveCount(0);
  const free = await post(tomas, "permit.sign-on", { permit: "P-0001", lock: "P-24", answer: "CY-260", briefed: true });
  expect(free.status).toBe(200);

  // An auditor finds every step of it.
  const maren = await as("Maren Tolve");
  await maren.goto("/ledger?find=P-0001");
  for (const act of [
    "asked that the lock of Tomas Veyron be removed",
    "looked for the lock's owner",
    "tried to reach the lock's owner",
    "authorised cutting the lock",
    "cut the lock",
    "read how the lock came to be cut",
  ]) {
    await expect(maren.getByRole("cell").filter({ hasText: act }).first()).toBeVisible();
  }
});
