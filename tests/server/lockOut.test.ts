import { countedFor } from "../../src/server/people/attempts";
import { hashPassword, hashPin } from "../../src/server/people/secrets";
import { people } from "../../src/server/db/schema";
import { pinFault, signerFault, signInByPassword } from "../../src/server/people/signIn";
import { TestSite } from "../support/testSite";

/** The limit on wrong tries is exact, shuts out who guesses, and never shuts out who is guessed at. */

const MINUTE_MS = 60_000;
let site: TestSite;
const now = { ms: 1_000_000_000_000 };
beforeEach(async () => {
  site = new TestSite();
  for (const signIn of ["maren", "ivo", "idris"]) await site.add({ signIn, roles: ["coordinator"] });
  site.db
    .update(people)
    .set({ passwordHash: await hashPassword("long enough"), pinHash: await hashPin("2468") })
    .run();
});
afterEach(() => site.close());

const idOf = (signIn: string) =>
  site.db
    .select()
    .from(people)
    .all()
    .find((one) => one.signIn === signIn)!.id as never;
const person = (signIn: string) => ({ id: idOf(signIn) });
const signIn = (password: string, address: string, device?: string) =>
  signInByPassword(site.db, { signIn: "maren", password }, now.ms, { address, device });

test("of 500 wrong PINs at once five are tested, and not one more", async () => {
  const tries = Array.from({ length: 500 }, (_, i) => pinFault(site.db, person("ivo"), String(1000 + i), now.ms));
  const said = await Promise.all(tries);
  expect(said.filter((one) => one?.startsWith("The PIN is not right")).length).toBe(5);
  expect(countedFor(site.db, `pin ${idOf("ivo") as string}`)).toBe(5);
  // The right one neither: then it could be guessed by what comes back.
  expect(await pinFault(site.db, person("ivo"), "2468", now.ms)).toMatch(/Too many wrong tries\. Wait 10 min/);
  expect(await pinFault(site.db, person("ivo"), "2468", now.ms + 10 * MINUTE_MS)).toBeNull();
});

test("one who keeps guessing waits for longer", async () => {
  for (let round = 0; round < 4; round++) {
    for (let i = 0; i < 5; i++) await pinFault(site.db, person("ivo"), "0000", now.ms + round * 11 * MINUTE_MS);
  }
  expect(await pinFault(site.db, person("ivo"), "2468", now.ms + 60 * MINUTE_MS)).toMatch(/Wait 7 h/);
});

test("many right PINs at once are all taken", async () => {
  const said = await Promise.all(Array.from({ length: 40 }, () => pinFault(site.db, person("ivo"), "2468", now.ms)));
  expect(said.filter((one) => one !== null)).toEqual([]);
});

test("wrong PINs in somebody else's field count against who sent them", async () => {
  const wrong = () => signerFault(site.db, { person: idOf("ivo"), pin: "0000" }, person("idris"), now.ms);
  for (let i = 0; i < 5; i++) expect(await wrong()).toMatch(/is not right/);
  expect(await wrong()).toMatch(/Too many/);
  expect(await pinFault(site.db, person("ivo"), "2468", now.ms)).toBeNull();
  expect(await signerFault(site.db, { person: idOf("ivo"), pin: "2468" }, person("maren"), now.ms)).toBeNull();
  // Nobody tries another's PIN there either, and the sender's own is not touched.
  expect(await signerFault(site.db, { person: idOf("maren"), pin: "2468" }, person("idris"), now.ms)).toMatch(
    /Too many/,
  );
  expect(await pinFault(site.db, person("idris"), "2468", now.ms)).toBeNull();
});

test("a stranger shuts out only strangers: at a device of her own the coordinator signs in", async () => {
  const first = await signIn("long enough", "10.0.0.1");
  if (!first.ok) throw new Error(first.sentence);
  for (let address = 0; address < 20; address++) {
    for (let i = 0; i < 6; i++) await signIn("guess", `203.0.113.${address}`);
  }
  // All strangers together have had their tries, from however many addresses.
  expect(countedFor(site.db, "password maren")).toBe(50);
  expect(await signIn("long enough", "203.0.113.99")).toMatchObject({
    ok: false,
    sentence: expect.stringMatching(/Too many/) as string,
  });
  expect(await signIn("long enough", "10.0.0.1", first.device)).toMatchObject({ ok: true });
  // A device of somebody else's is no device of hers.
  const ivo = await signInByPassword(site.db, { signIn: "ivo", password: "long enough" }, now.ms);
  if (!ivo.ok) throw new Error(ivo.sentence);
  expect(await signIn("long enough", "10.0.0.1", ivo.device)).toMatchObject({ ok: false });
});

test("one address that tries many names is shut, and others are not", async () => {
  for (let i = 0; i < 40; i++) {
    await signInByPassword(site.db, { signIn: `nobody${i}`, password: "x" }, now.ms, {
      address: "203.0.113.7",
      device: undefined,
    });
  }
  expect(await signIn("long enough", "203.0.113.7")).toMatchObject({ ok: false });
  expect(await signIn("long enough", "203.0.113.8")).toMatchObject({ ok: true });
});

test("a crowd at the door is told to come back, and a PIN is answered meanwhile", async () => {
  const crowd = Array.from({ length: 60 }, (_, i) =>
    signInByPassword(site.db, { signIn: `nobody${i}`, password: "x" }, now.ms, {
      address: `198.51.100.${i}`,
      device: undefined,
    }),
  );
  expect(await pinFault(site.db, person("ivo"), "2468", now.ms)).toBeNull();
  const said = await Promise.all(crowd);
  expect(said.filter((one) => !one.ok && /at the moment/.test(one.sentence)).length).toBeGreaterThan(20);
});
