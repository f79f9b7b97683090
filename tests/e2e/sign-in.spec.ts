import { expectNoAxeViolation } from "./axe";
import { expect, openMenu, ownSite } from "./site";

const test = ownSite();

test("one signs in by one click in the demo, or by name and password; a wrong password says so and tells nothing", async ({
  browser,
  site,
}) => {
  const page = await (await browser.newContext({ baseURL: site.url })).newPage();
  await page.goto("/");
  await expect(page).toHaveURL(/sign-in/);
  await page.getByRole("button", { name: "Maren Tolve" }).click();
  await expect(page.getByRole("heading", { name: "Board" })).toBeVisible();
  await openMenu(page);
  await page.getByRole("button", { name: "Sign out" }).click();
  await expect(page).toHaveURL(/sign-in/);
  // Her lock is on a box, and nobody goes home from that unawares.
  await expect(page.getByText(/Still yours on the site: a lock on a box/)).toBeVisible();
  const form = page.getByRole("form", { name: /sign in/i });
  const tryWith = async (name: string, password: string) => {
    await form.getByLabel("Sign-in name").fill(name);
    await form.getByLabel("Password").fill(password);
    await form.getByRole("button").click();
  };
  await tryWith("maren", "not this one");
  await expect(form.getByText("The name or the password is not right. Try again.")).toBeVisible();
  // The answer to the second try comes late: what is typed meanwhile must still be there, and count.
  let answered: (() => void) | undefined;
  await page.route("**/sign-in", async (route) => {
    if (route.request().method() === "POST" && answered === undefined) {
      await new Promise<void>((resolve) => (answered = resolve));
    }
    await route.continue();
  });
  await tryWith("nobody", "not this one");
  await expect(form.getByRole("button")).toHaveText("Signing in…");
  await form.getByLabel("Sign-in name").fill("maren");
  await form.getByLabel("Password").fill("gannet-reach");
  answered?.();
  await expect(form.getByText("The name or the password is not right. Try again.")).toBeVisible();
  await expect(form.getByLabel("Sign-in name")).toHaveValue("maren");
  await form.getByRole("button").click();
  await expect(page.getByRole("heading", { name: "Board" })).toBeVisible();
  await page.context().close();
});

test("who signs out while they are on is told by which permit; words of others never come onto that page", async ({
  as,
  browser,
  site,
}) => {
  const tomas = await as("Tomas Veyron");
  await tomas.goto("/");
  await openMenu(tomas);
  await tomas.getByRole("button", { name: "Sign out" }).click();
  await expect(tomas.getByRole("alert").filter({ hasText: "Still yours on the site: P-0001" })).toBeVisible();
  await expectNoAxeViolation(tomas, "signed out, still on");
  const page = await (await browser.newContext({ baseURL: site.url })).newPage();
  await page.goto("/sign-in?still=Call+the+helpdesk+P-0007");
  await expect(page.getByRole("alert").filter({ hasText: "P-0007" })).toBeVisible();
  await expect(page.getByRole("main")).not.toContainText("helpdesk");
  await page.context().close();
});
