import { expect, test } from "./site";

test("one signs in by one click in the demo, or by name and password; a wrong password says so and tells nothing", async ({
  browser,
  site,
}) => {
  const page = await (await browser.newContext({ baseURL: site.url })).newPage();
  await page.goto("/");
  await expect(page).toHaveURL(/sign-in/);
  await page.getByRole("button", { name: "Maren Tolve" }).click();
  await expect(page.getByRole("heading", { name: "Board" })).toBeVisible();
  await page.getByRole("button", { name: "Sign out" }).click();
  await expect(page).toHaveURL(/sign-in/);
  const form = page.getByRole("form", { name: /sign in/i });
  const tryWith = async (name: string, password: string) => {
    await form.getByLabel("Sign-in name").fill(name);
    await form.getByLabel("Password").fill(password);
    await form.getByRole("button").click();
  };
  await tryWith("maren", "not this one");
  await expect(form.getByText("The name or the password is not right. Try again.")).toBeVisible();
  await tryWith("nobody", "not this one");
  await expect(form.getByText("The name or the password is not right. Try again.")).toBeVisible();
  await tryWith("maren", "gannet-reach");
  await expect(page.getByRole("heading", { name: "Board" })).toBeVisible();
  await page.context().close();
});
