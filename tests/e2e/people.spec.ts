import { expect, ownSite, post, sign } from "./site";
import { read } from "./work";

const test = ownSite();

test("somebody is entered, signs in with what was handed over, changes, is shut out and let in, and leaves", async ({
  as,
  site,
  browser,
}) => {
  const maren = await as("Maren Tolve");
  await maren.goto("/people");
  const form = maren.getByRole("form", { name: "Enter a person" });
  await form.getByLabel("Name", { exact: true }).fill("Aksel Bru");
  await form.getByLabel("Sign-in name").fill("aksel");
  await form.getByLabel("isolator").check();
  await form.getByLabel("process", { exact: true }).check();
  const year = new Date().getFullYear() + 1;
  await form.getByLabel("Process until").fill(`12 Mar ${year}`);
  await sign(maren, "Enter a person");
  const told = maren.getByRole("status").filter({ hasText: "Aksel Bru" });
  await expect(told).toContainText("shown once");
  const [password, pin] = await told.locator("dd").allTextContents();
  await told.getByRole("button", { name: "Written down" }).click();
  await expect(told).toHaveCount(0);

  // What they were found able to do has an end, and a name beside it.
  await expect(maren.getByText(`process isolations until ${year}-03-12, by Maren Tolve`)).toBeVisible();

  // Neither is anywhere in the record.
  const bodies = read<{ body: string }>(site, "SELECT body FROM ledger WHERE type = 'person.enter'");
  expect(bodies).toHaveLength(1);
  for (const { body } of bodies) for (const secret of [password!, pin!]) expect(body).not.toContain(`"${secret}"`);

  const own = await browser.newContext({ baseURL: site.url });
  const aksel = await own.newPage();
  await aksel.goto("/sign-in");
  const door = aksel.getByRole("form", { name: /sign in/i });
  await door.getByLabel("Sign-in name").fill("aksel");
  await door.getByLabel("Password").fill(password!);
  await door.getByRole("button").click();
  await expect(aksel.getByRole("heading", { name: "Board" })).toBeVisible();
  await aksel.goto("/people");
  await expect(aksel.getByText("Account of")).toHaveCount(0);
  const pinForm = aksel.getByRole("form", { name: "Your own PIN" });
  await pinForm.getByLabel("New PIN").fill("97531");
  await pinForm.getByLabel("Your PIN").fill(pin!);
  await pinForm.getByRole("button").click();
  await expect(pinForm.getByLabel("New PIN")).toHaveValue("");

  // Five wrong PINs, and a coordinator sees it and forgives them.
  const id = read<{ id: string }>(site, "SELECT id FROM people WHERE sign_in = 'aksel'")[0]!.id;
  for (let i = 0; i < 5; i++) await post(aksel, "person.own-pin", { next: "1111" }, "0000");
  expect((await post(aksel, "person.own-pin", { next: "1111" }, "97531")).body.sentence).toMatch(
    /Too many wrong tries/,
  );
  await maren.reload();
  const row = maren.getByRole("listitem").filter({ hasText: "Aksel Bru" });
  await expect(row).toContainText("Shut out by wrong tries until");
  await row.getByText("Account of Aksel Bru").click();
  await sign(maren, "Let Aksel Bru try again");
  await expect(row).not.toContainText("Shut out");
  expect((await post(aksel, "person.own-pin", { next: "86420" }, "97531")).status).toBe(200);

  // Nobody keeps their own account, and nobody else's without being a coordinator.
  const self = read<{ id: string }>(site, "SELECT id FROM people WHERE name = 'Maren Tolve'")[0]!.id;
  const rights = { roles: ["coordinator", "approver"], competences: [], firm: "" };
  expect((await post(maren, "person.change", { person: self, ...rights })).body.sentence).toMatch(
    /Nobody changes their own/,
  );
  expect((await post(aksel, "person.change", { person: id, ...rights }, "86420")).status).toBe(403);

  await row.getByLabel("fire watch").check();
  await sign(maren, "Change Aksel Bru");
  await expect(row).toContainText("isolator, fire watch");
  await row.getByLabel("Why").fill("Moved to the other site.");
  await sign(maren, "Aksel Bru has left");
  await expect(row).toContainText("Signs in no more");
  await aksel.goto("/");
  await expect(aksel).toHaveURL(/sign-in/);
  expect(site.lantern("verify").out).toContain("The state is as the ledger wrote it");
  await own.close();
});

test("many come from a list at once, or nobody; a stranger is shown the site, and an issuer is appointed for an area", async ({
  as,
  site,
}) => {
  const maren = await as("Maren Tolve");
  await maren.goto("/people");
  const form = maren.getByRole("form", { name: "Enter a list of people" });
  const head = "name\tsigns in as\troles\tfirm\tinducted until";
  const year = new Date().getFullYear() + 1;
  await form.getByLabel("The list").fill(`${head}\nTorben Lie\ttorben\tworker\t\t\nBerit Lund\tberit\tboss\t\t`);
  await sign(maren, "Enter a list of people");
  await expect(form.getByRole("alert")).toContainText('List row 3, berit, roles: "boss" is none of');
  expect(read(site, "SELECT 1 FROM people WHERE sign_in IN ('torben', 'berit')")).toEqual([]);
  // What was typed is still there, and mended.
  await expect(form.getByLabel("The list")).toHaveValue(/boss/);
  const firm = "Skerry Rope and Rig";
  await form
    .getByLabel("The list")
    .fill(
      `${head}\nTorben Lie\ttorben\tworker\t\t\nBerit Lund\tberit\tworker\t${firm}\t\nCato Nes\tcato\tissuer\t${firm}\t${year}-03-12`,
    );
  await sign(maren, "Enter a list of people");
  const slips = maren.getByRole("status").filter({ hasText: "shown once" });
  await expect(slips.getByRole("row")).toHaveCount(4);
  await slips.getByRole("button", { name: "Written down" }).click();
  const rowOf = (name: string) => maren.getByRole("listitem").filter({ hasText: name });
  await expect(rowOf("Berit Lund")).toContainText(`${firm}, not inducted: begins no work`);
  await expect(rowOf("Cato Nes")).toContainText(`${firm}, inducted until ${year}-03-12, by Maren Tolve`);

  await rowOf("Berit Lund").getByText("Account of Berit Lund").click();
  await maren.getByRole("form", { name: "Change Berit Lund" }).getByLabel("Site induction until").fill(`1 Jun ${year}`);
  await sign(maren, "Change Berit Lund");
  await expect(rowOf("Berit Lund")).toContainText(`inducted until ${year}-06-01`);
  await rowOf("Cato Nes").getByText("Account of Cato Nes").click();
  const cato = maren.getByRole("form", { name: "Change Cato Nes" });
  await cato.getByText("for which areas and shifts").click();
  const areas = cato.getByRole("group", { name: /^Areas/ });
  await areas.getByRole("checkbox").first().check();
  await cato.getByLabel("06:00", { exact: true }).check();
  await sign(maren, "Change Cato Nes");
  const [area] = await areas.locator("label").allTextContents();
  await expect(rowOf("Cato Nes")).toContainText(`Appointed for ${area} in the shift from 06:00`);
});
