import { gzipSync } from "node:zlib";
import type { Page, Response } from "@playwright/test";
import { expect, ownSite } from "./site";

const test = ownSite();

/** What a phone on the plant fetches of a job before anything is opened. */
const MOST_BYTES = 200_000;

test("the energies and the points of every job of the demo are light enough for a phone", async ({ as }) => {
  const maren = await as("Maren Tolve");
  for (const job of ["J-0001", "J-0002", "J-0003", "J-0004", "J-0005", "J-0006", "J-0007"]) {
    for (const stage of ["energies", "points"]) {
      const response = await maren.request.get(`/jobs/${job}/${stage}`);
      expect(response.status()).toBe(200);
      expect([job, stage, (await response.body()).length < MOST_BYTES]).toEqual([job, stage, true]);
    }
  }
});

/** kB of script, compressed, over a page that shows next to nothing: the sign-in of the same build. */
const MOST_SCRIPT_kB = { page: 60, large: 100 };

test("a page fetches little script over an empty one: at most 60 kB, the board and a job's pages 100", async ({
  as,
  browser,
  site,
}) => {
  const weigh = async (page: Page, path: string) => {
    const sizes = new Map<string, Promise<number>>();
    const weighed = (response: Response) => {
      const { pathname } = new URL(response.url());
      if (pathname.endsWith(".js"))
        sizes.set(
          pathname,
          response.body().then((body) => gzipSync(body).length),
        );
    };
    page.on("response", weighed);
    expect([path, (await page.goto(path))!.status()]).toEqual([path, 200]);
    await page.waitForLoadState("networkidle");
    page.off("response", weighed);
    // What came back from a cache was answered too.
    expect(sizes.size).toBeGreaterThan(3);
    return (await Promise.all(sizes.values())).reduce((sum, size) => sum + size, 0) / 1000;
  };
  const stranger = await browser.newPage({ baseURL: site.url });
  const empty_kB = await weigh(stranger, "/sign-in");
  await stranger.close();
  const maren = await as("Maren Tolve");
  const large = [
    "/",
    ...["ask", "energies", "hazards", "points", "time", "walk", "permits", "return"].map(
      (stage) => `/jobs/J-0001/${stage}`,
    ),
  ];
  const pages = [
    "/permits",
    "/permits/P-0001",
    "/permits/P-0002",
    "/boxes/B-0001",
    "/jobs",
    "/jobs/new",
    "/locks",
    "/locks/register",
    "/plant",
    "/ledger",
    "/bench",
    "/bench/tank-drain",
    "/handover",
    "/people",
    "/procedures",
    "/store",
  ];
  const over: Record<string, number> = {};
  for (const path of [...large, ...pages]) over[path] = Math.round((await weigh(maren, path)) - empty_kB);
  test.info().annotations.push({ type: "script over an empty page, kB", description: JSON.stringify(over) });
  const most = (path: string) => (large.includes(path) ? MOST_SCRIPT_kB.large : MOST_SCRIPT_kB.page);
  expect(Object.entries(over).filter(([path, kB]) => kB > most(path))).toEqual([]);
});
