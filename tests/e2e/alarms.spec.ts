import { MINUTE_MS, moving } from "./moving";
import { expect, post } from "./site";
import { done } from "./work";

const test = moving();

test("an alarm that nobody answers is back and says for how long; who sees to it is named on every screen", async ({
  as,
  clock,
}) => {
  const [maren, petra] = [await as("Maren Tolve"), await as("Petra Quillon")];
  await maren.goto("/permits");
  await petra.goto("/permits");
  await done(petra, "permit.stop", { permit: "P-0001", reason: "Oil under the table" });
  // Seen here it is gone here.
  await petra.getByRole("button", { name: "I have seen it" }).click();
  await expect(petra.getByText("Permit P-0001 has stopped.")).toHaveCount(0);
  await clock.on(3 * MINUTE_MS);
  await petra.reload();
  await expect(petra.getByText(/Nobody has answered for \d+ min/)).toBeVisible();
  // Somebody sees to it.
  await maren.getByRole("button", { name: "I see to it" }).click();
  await expect(petra.getByText("Maren Tolve sees to it.")).toBeVisible();
  await expect(maren.getByRole("button", { name: "I see to it" })).toHaveCount(0);
  expect((await post(petra, "alarm.answer", { alarm: 1 })).body.sentence).toContain("alarm");
});
