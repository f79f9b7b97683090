import { eq } from "drizzle-orm";
import { ledger, permits } from "../../src/server/db/schema";
import { musterNumbered, openMusters } from "../../src/server/muster/musterStore";
import { expectReplay } from "../support/expectReplay";
import { TestSite } from "../support/testSite";
import { atWork, ITEMS, LINKS, peopleTwoJobs } from "../support/twoJobs";

let site: TestSite;
beforeEach(async () => {
  site = new TestSite();
  await peopleTwoJobs(site);
  const [head, ...rows] = ITEMS.trim().split("\n");
  const inHall = /^(WS|W-1|T|BL-T),/;
  const items = [`${head},area`, ...rows.map((row) => `${row},${inHall.test(row) ? "Hall" : "Yard"}`)].join("\n");
  const areas = "name,x_m,y_m,width_m,depth_m,level_m\nYard,0,0,20,10,0\nHall,40,0,20,10,0\n";
  const files = [
    { name: "items.csv", text: items },
    { name: "links.csv", text: LINKS },
    { name: "areas.csv", text: areas },
  ];
  await site.done("cora", "plant.import", { files });
  await site.stockGear("cora");
});
afterEach(async () => {
  await expectReplay(site);
  site.close();
});

const stateOf = (number: string) =>
  site.db.select({ state: permits.state }).from(permits).where(eq(permits.number, number)).get()!.state;
const rowsOf = (type: string) =>
  site.db.select({ subject: ledger.subject }).from(ledger).where(eq(ledger.type, type)).all();

async function twoAtWork() {
  const yard = await atWork(site, { place: "P" });
  await site.done("hal", "permit.sign-on", { permit: yard.permit, lock: "H-1" });
  const hall = await atWork(site, { place: "T", holder: "hob", crew: ["hob"] });
  await site.done("hob", "permit.sign-on", { permit: hall.permit, lock: "H-2" });
  expect([stateOf(yard.permit), stateOf(hall.permit)]).toEqual(["live", "live"]);
  return { yard: yard.permit, hall: hall.permit };
}

test("all work of an area stops by one act of anybody; other areas go on; nobody resumes before everybody was seen", async () => {
  const { yard, hall } = await twoAtWork();
  const { muster } = await site.done("wanda", "site.stop", { area: "Yard", reason: "gas alarm at the pumps" });
  const number = String(muster);
  expect([stateOf(yard), stateOf(hall)]).toEqual(["suspended", "live"]);
  expect(rowsOf("permit.stopped-by-itself").map(({ subject }) => subject)).toEqual([yard]);

  const people = musterNumbered(site.db, number)!.people.map(({ person }) => String(person));
  expect(people.length).toBeGreaterThan(0);
  expect(await site.refused("isa", "permit.resume", { permit: yard, words: "all clear" })).toContain(number);
  expect(await site.refused("cora", "muster.close", { muster: number })).toContain(people[0]);
  expect(await site.refused("wim", "muster.close", { muster: number })).toContain("coordinator");
  expect(await site.refused("wim", "muster.seen", { muster: number, person: "isa" })).toContain("isa");
  for (const person of people) await site.done("wanda", "muster.seen", { muster: number, person });
  await site.done("wim", "muster.not-seen", { muster: number, person: people[0] });
  expect(await site.refused("cora", "muster.close", { muster: number })).toContain(people[0]);
  await site.done("wanda", "muster.seen", { muster: number, person: people[0] });
  await site.done("cora", "muster.close", { muster: number });
  expect(openMusters(site.db)).toEqual([]);
  // It does not go on by itself: who answers for it looks, and lets it.
  expect(stateOf(yard)).toBe("suspended");
  await site.done("isa", "permit.resume", { permit: yard, words: "looked at the place, all as it was" });
  expect(stateOf(yard)).toBe("live");
  await expectReplay(site);
});

test("the whole site stops, and what is issued meanwhile begins only when the muster is closed", async () => {
  const { yard, hall } = await twoAtWork();
  const { muster } = await site.done("hal", "site.stop", { reason: "fire" });
  expect([stateOf(yard), stateOf(hall)]).toEqual(["suspended", "suspended"]);
  expect(await site.refused("isa", "permit.resume", { permit: hall, words: "all clear" })).toContain(String(muster));
  // A second stop of the same place stops nothing twice, and both are closed before work goes on.
  const again = await site.done("hob", "site.stop", { area: "Hall", reason: "smoke in the hall" });
  for (const number of [muster, again.muster]) {
    for (const { person } of musterNumbered(site.db, String(number))!.people) {
      await site.done("cora", "muster.seen", { muster: number, person });
    }
  }
  await site.done("cora", "muster.close", { muster });
  expect(await site.refused("isa", "permit.resume", { permit: hall, words: "all clear" })).toContain(
    String(again.muster),
  );
  await site.done("isa", "permit.resume", { permit: yard, words: "all clear here" });
  await site.done("cora", "muster.close", { muster: again.muster });
  await site.done("isa", "permit.resume", { permit: hall, words: "all clear" });
  expect([stateOf(yard), stateOf(hall)]).toEqual(["live", "live"]);
});

test("an area that the register does not have stops nothing, and says so", async () => {
  const { yard } = await twoAtWork();
  expect(await site.refused("wim", "site.stop", { area: "Yrad", reason: "gas" })).toContain("Yrad");
  expect(stateOf(yard)).toBe("live");
  expect(openMusters(site.db)).toEqual([]);
});
