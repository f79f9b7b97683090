import { COSTS, LEAST } from "../../workers/hashing";
import { hashPassword, hashPin, isCheap, secretFits } from "./secrets";

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
    const cheap = await hashPin("4711");
    expect(isCheap(cheap)).toBe(true);
    expect(await secretFits(cheap, "4711")).toBe(true);
    expect(await asIfInUse(() => secretFits(cheap, "4711"))).toBe(false);
  });
  test("a server in use makes dear hashes, and knows them again", async () => {
    const dear = await asIfInUse(() => hashPin("4711"));
    expect(isCheap(dear)).toBe(false);
    expect(await asIfInUse(() => secretFits(dear, "4711"))).toBe(true);
    expect(await asIfInUse(() => secretFits(dear, "4712"))).toBe(false);
  });
  test("nobody's hash fits nothing, and what is no hash of ours is cheap", async () => {
    expect(await secretFits(null, "4711")).toBe(false);
    expect(isCheap("plain")).toBe(true);
    expect(isCheap("$argon2i$v=19$m=19456,t=2,p=1$c2FsdA$aGFzaA")).toBe(true);
  });
  test("what costs as much as one of the least is dear, and what falls short of all of them in one figure is cheap", async () => {
    const costing = (m: number, t: number) => isCheap(`$argon2id$v=19$m=${m},t=${t},p=1$c2FsdA$aGFzaA`);
    for (const { memoryCost, timeCost } of [COSTS.password, COSTS.pin, ...LEAST]) {
      expect([costing(memoryCost, timeCost), costing(memoryCost - 1, timeCost)]).toEqual([false, true]);
      expect(costing(memoryCost, timeCost - 1)).toBe(true);
    }
    // A hash says the cost that it was made at: a password's is not a PIN's.
    const [password, pin] = await asIfInUse(() => Promise.all([hashPassword("long enough"), hashPin("4711")]));
    expect([password, pin]).toEqual([
      expect.stringContaining("$m=19456,t=2,p=1$"),
      expect.stringContaining("$m=7168,t=5,p=1$"),
    ]);
  });
});
