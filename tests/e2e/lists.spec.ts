import { expect, test } from "./site";

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
