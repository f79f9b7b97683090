import { expect, ownSite } from "./site";

const test = ownSite();

test("every page says what may run in it, afresh each time, and runs nothing else", async ({ as, site }) => {
  const page = await as("Maren Tolve");
  const broken: string[] = [];
  page.on("console", (message) => {
    if (/Content Security Policy|Refused to/i.test(message.text())) broken.push(message.text());
  });
  const nonces = new Set<string>();
  for (const path of [
    "/",
    "/jobs/J-0003/energies",
    "/jobs/J-0001/walk",
    "/permits/P-0002",
    "/plant",
    "/bench/tank-drain",
    "/people",
    "/ledger",
  ]) {
    const response = await page.goto(path);
    const policy = (await response!.headerValue("content-security-policy")) ?? "";
    expect(policy).toContain("frame-ancestors 'none'");
    expect(policy).not.toContain("unsafe-eval");
    nonces.add(/'nonce-([^']+)'/.exec(policy)![1]!);
    await expect(page.getByRole("navigation", { name: "Main" })).toBeVisible();
  }
  expect(nonces.size).toBe(8);
  expect(broken).toEqual([]);
  // A script that somebody got into the page is not run.
  const ran = await page.evaluate(async () => {
    const script = document.createElement("div");
    script.innerHTML = "<img src='/nowhere.png' onerror='window.slipped = true'>";
    document.body.append(script);
    await new Promise((resolve) => setTimeout(resolve, 500));
    return "slipped" in window;
  });
  expect(ran).toBe(false);
  for (const header of ["x-content-type-options", "x-frame-options", "referrer-policy", "cross-origin-opener-policy"]) {
    expect((await page.request.get(`${site.url}/sign-in`)).headers()[header]).toBeTruthy();
  }
});
