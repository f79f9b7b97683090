import { expect, test } from "./site";

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
