import { expect, ownSite } from "./site";

const test = ownSite();

test("every register goes out as CSV and as a workbook from the page where it stands; people's only to a coordinator", async ({
  as,
}) => {
  const maren = await as("Maren Tolve");
  const pages: readonly [string, readonly string[]][] = [
    ["/permits", ["permits", "jobs"]],
    ["/locks", ["locks"]],
    ["/locks/register", ["gear"]],
    ["/store", ["stores"]],
    ["/people", ["people"]],
    ["/procedures", ["procedures"]],
  ];
  for (const [page, lists] of pages) {
    await maren.goto(page);
    for (const list of lists) {
      for (const ending of ["csv", "xlsx"]) {
        await expect(maren.locator(`a[href="/lists/${list}.${ending}"]`)).toBeVisible();
        const answer = await maren.request.get(`/lists/${list}.${ending}`);
        expect([list, answer.status()]).toEqual([list, 200]);
        expect(answer.headers()["content-disposition"]).toMatch(new RegExp(`${list}-\\d{4}-\\d\\d-\\d\\d\\.${ending}`));
        expect((await answer.body()).byteLength).toBeGreaterThan(20);
      }
    }
  }
  expect((await maren.request.get("/lists/secrets.csv")).status()).toBe(404);
  const tomas = await as("Tomas Veyron");
  await tomas.goto("/people");
  await expect(tomas.locator('a[href="/lists/people.csv"]')).toHaveCount(0);
  expect((await tomas.request.get("/lists/people.csv")).status()).toBe(403);
  expect((await tomas.request.get("/lists/permits.csv")).status()).toBe(200);
});

test("a list is searched, put in order by its heads and kept in its address, by keyboard too", async ({ as }) => {
  const maren = await as("Maren Tolve");
  await maren.goto("/permits");
  const numbers = () => maren.getByRole("table").first().locator("tbody td:first-child a.tag").allInnerTexts();
  const head = (name: string) => maren.getByRole("columnheader", { name });
  const open = await numbers();
  expect(open.length).toBeGreaterThan(1);
  await expect(head("Permit")).toHaveAttribute("aria-sort", "descending");
  // A head touched, then again: the other way round.
  await head("Permit").getByRole("link").focus();
  await maren.keyboard.press("Enter");
  await expect(head("Permit")).toHaveAttribute("aria-sort", "ascending");
  expect(await numbers()).toEqual(open.toReversed());
  await expect(maren).toHaveURL(/sort=number/);
  // What is over too, and the order stays.
  await maren.getByRole("combobox", { name: "State" }).selectOption("every state");
  await maren.getByRole("button", { name: "Show", exact: true }).click();
  await expect(maren).toHaveURL(/state=every/);
  await expect(head("Permit")).toHaveAttribute("aria-sort", "ascending");
  expect((await numbers()).length).toBeGreaterThan(open.length);
  await head("Until").getByRole("link").click();
  await expect(head("Until")).toHaveAttribute("aria-sort", "ascending");
  await expect(maren).toHaveURL(/state=every/);

  // A job that is closed is found by its place and holder.
  await maren.goto("/jobs");
  await maren.getByRole("combobox", { name: "State" }).selectOption("closed");
  await maren.getByRole("searchbox", { name: "Number, work, place or holder" }).fill("m-501 quillon");
  await maren.keyboard.press("Enter");
  await expect(maren.getByRole("link", { name: /J-0008/ })).toBeVisible();
  await maren.goto("/locks/register?kind=lock&find=no+such+lock");
  await expect(maren.getByText("Nothing in the register is like that.")).toBeVisible();
  await maren.goto("/people?role=isolator&find=electrical");
  await expect(maren.getByText("Odalys Brenn").first()).toBeVisible();
  await expect(maren.getByText("Petra Quillon")).toHaveCount(0);
});
