import { eq } from "drizzle-orm";
import { soundReport } from "../../src/core/isolation/soundReport";
import { ledger, people } from "../../src/server/db/schema";
import { secretFits } from "../../src/server/people/secrets";
import { expectReplay } from "../support/expectReplay";
import { TestSite } from "../support/testSite";
import { approved, atWork, openTwoJobs } from "../support/twoJobs";

let site: TestSite;
beforeEach(async () => {
  site = new TestSite();
  await openTwoJobs(site);
});
afterEach(() => site.close());

const HEAD = "name;signs in as;roles;competences;until;firm;inducted until";
const all = () => site.db.select().from(people).all();
const find = (signIn: string) => all().find((one) => one.signIn === signIn)!;

test("a list enters everybody with secrets of their own, shown once and in no row of the ledger", async () => {
  const list = `${HEAD}
Aksel Bru;aksel;isolator;process;process 2099-03-12;;
Berit Lund;berit;worker, holder;;;Skerry Rope and Rig;2028-03-12
`;
  site.clock_ms = Date.UTC(2027, 0, 1);
  const done = await site.act("cora", "person.enter-list", { list: list.replace("2099", "2029") });
  if (!done.ok) throw new Error(done.sentence);
  expect(Object.keys(done.once ?? {})).toEqual(["aksel", "berit"]);
  for (const [signIn, both] of Object.entries(done.once ?? {})) {
    const [password, pin] = both.split(" ");
    const row = find(signIn);
    expect([await secretFits(row.passwordHash, password!), await secretFits(row.pinHash, pin!)]).toEqual([true, true]);
    const bodies = site.db
      .select()
      .from(ledger)
      .all()
      .map(({ body }) => body);
    for (const body of bodies) expect(body.includes(`"${password}"`) || body.includes(`"${pin}"`)).toBe(false);
  }
  expect(find("aksel")).toMatchObject({
    competences: ["process"],
    appointed: { process: { by: "cora" } },
    induction: null,
  });
  expect(find("berit")).toMatchObject({
    roles: ["holder", "worker"],
    firm: "Skerry Rope and Rig",
    induction: { by: "cora", until_ms: Date.UTC(2028, 2, 12, 23, 59, 59) },
  });
  await expectReplay(site);
});

test("nobody is entered where one may not be, and only by a coordinator with their PIN", async () => {
  const before = all().length;
  const one = "Aksel Bru;aksel;worker;;;;";
  const list = (...rows: string[]) => ({ list: [HEAD, ...rows].join("\n") });
  expect(await site.act("isa", "person.enter-list", list(one))).toMatchObject({ ok: false, code: "not yours to do" });
  const wrong = await site.act("cora", "person.enter-list", list(one), { pin: "0000" });
  expect(wrong).toMatchObject({ ok: false, code: "wrong pin" });
  expect(await site.act("cora", "person.enter-list", list(one, "Wim;wim;worker;;;;"))).toMatchObject({
    ok: false,
    code: "sign-in taken",
  });
  const bad = await site.act("cora", "person.enter-list", list(one, "Berit;berit;boss;;;;"));
  expect(bad).toMatchObject({ ok: false, code: "bad list" });
  expect(!bad.ok && bad.sentence).toMatch(/^List row 3, berit, roles: "boss" is none of .* Nothing was stored\.$/);
  const over = await site.act("cora", "person.enter-list", list("Aksel;aksel;isolator;process;process 2001-01-01;;"));
  expect(over).toMatchObject({ ok: false, code: "date over" });
  expect(all()).toHaveLength(before);
});

test("whoever of a firm was not shown the site begins no work, and does once the coordinator wrote the day down", async () => {
  const { permit, job } = await atWork(site, { place: "T", crew: ["hal", "wim", "rick"] });
  await site.done("hal", "permit.sign-on", { permit, lock: "H-1" });
  const exchange = { job, lead: "rick", leadPin: "2468", ours: "Lock, tag, try.", theirs: "Own locks, red tags." };
  await site.done("cora", "contractor.exchange", exchange);
  const on = (lock: string) => site.act("rick", "permit.sign-on", { permit, lock });
  const rights = { person: "rick", roles: ["worker"], firm: "Skerry Rope and Rig" };
  await site.done("cora", "person.change", rights);
  const never = await on("W-rick");
  expect(never).toMatchObject({ ok: false, code: "not inducted" });
  expect(!never.ok && never.sentence).toMatch(
    /Nobody wrote down that rick, of Skerry Rope and Rig, was shown this site/,
  );
  const inductedUntil_ms = site.clock_ms + 3_600_000;
  await site.done("cora", "person.change", { ...rights, inductedUntil_ms });
  expect(await on("W-rick")).toMatchObject({ ok: true });
  // Whoever is on when it runs out can still go off.
  site.clock_ms = inductedUntil_ms + 1;
  expect(await site.act("rick", "permit.sign-off", { permit })).toMatchObject({ ok: true });
  const over = await on("W-rick");
  expect(over).toMatchObject({ ok: false, code: "not inducted" });
  expect(!over.ok && over.sentence).toMatch(/counted until/);
  // Of another firm they are shown the site anew.
  await site.done("cora", "person.change", { ...rights, inductedUntil_ms: site.clock_ms + 3_600_000 });
  await site.done("cora", "person.change", { ...rights, firm: "Another firm" });
  expect(find("rick").induction).toBeNull();
});

test("a record is played again with what each could do then, though it was taken from them since", async () => {
  const list = [HEAD, "Aksel Bru;aksel;isolator;electrical,mechanical,process;;;"].join("\n");
  await site.done("cora", "person.enter-list", { list });
  const { id, pinHash } = find("aksel");
  const { pinHash: known } = find("ivo");
  site.db.update(people).set({ pinHash: known }).where(eq(people.id, id)).run();
  const { isolation } = await approved(site, { place: "P" });
  await site.walk(isolation, { first: id, second: "vera", until: ({ kind }) => kind === "prove" });
  const next = site.open(isolation)[0]!;
  expect(soundReport(next)).toBeDefined();
  await site.done("cora", "person.change", { person: id, roles: ["worker"] });
  await site.done("cora", "person.leave", { person: id, words: "Gone." });
  expect(pinHash).not.toBe(known);
  await expectReplay(site);
});
