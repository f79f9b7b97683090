import { hashSecret, isCheap, secretFits } from "./secrets";

const asIfInUse = async <T>(work: () => Promise<T>): Promise<T> => {
  const was = process.env.LANTERN_TEST_HASHES;
  delete process.env.LANTERN_TEST_HASHES;
  try {
    return await work();
  } finally {
    process.env.LANTERN_TEST_HASHES = was;
  }
};

describe("secrets", () => {
  test("a test's cheap hash is taken in tests, and never by a server in use", async () => {
    const cheap = await hashSecret("4711");
    expect(isCheap(cheap)).toBe(true);
    expect(await secretFits(cheap, "4711")).toBe(true);
    expect(await asIfInUse(() => secretFits(cheap, "4711"))).toBe(false);
  });
  test("a server in use makes dear hashes, and knows them again", async () => {
    const dear = await asIfInUse(() => hashSecret("4711"));
    expect(isCheap(dear)).toBe(false);
    expect(await asIfInUse(() => secretFits(dear, "4711"))).toBe(true);
    expect(await asIfInUse(() => secretFits(dear, "4712"))).toBe(false);
  });
  test("nobody's hash fits nothing, and what is no hash of ours is cheap", async () => {
    expect(await secretFits(null, "4711")).toBe(false);
    expect(isCheap("plain")).toBe(true);
    expect(isCheap("$argon2i$v=19$m=19456,t=2,p=1$c2FsdA$aGFzaA")).toBe(true);
  });
});
