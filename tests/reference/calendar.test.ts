import ICAL from "ical.js";
import { calendarEntries, calendarFile } from "../../src/server/access/calendar";
import { entriesFor } from "../../src/core/calendar/entries";
import { openPermits } from "../../src/server/permit/openPermits";
import { currentPlant } from "../../src/server/plant/plantStore";
import { DemoForAll } from "../support/demoSite";

/** Calendars read back by another program's reader (ical.js, for RFC 5545): nothing is lost, moved or shown twice. */

const demo = new DemoForAll();
const origin = "https://lantern.example";

function readBack(text: string) {
  return new ICAL.Component(ICAL.parse(text) as unknown[]).getAllSubcomponents("vevent").map((one) => {
    const event = new ICAL.Event(one);
    return {
      uid: event.uid,
      words: event.summary,
      from_ms: event.startDate.toJSDate().getTime(),
      to_ms: event.endDate.toJSDate().getTime(),
      url: String(one.getFirstPropertyValue("url")),
    };
  });
}
/** A calendar knows whole seconds. */
const seconds = (at_ms: number) => Math.floor(at_ms / 1000) * 1000;

test("the site's calendar holds every time that is to come, each once, as it is", () => {
  const { db, clock_ms: now_ms } = demo.site;
  expect(currentPlant(db)).not.toBeNull();
  const text = calendarFile(db, { person: null, name: "The site", origin, now_ms });
  const events = readBack(text);
  const entries = entriesFor(calendarEntries(db, now_ms), null, now_ms);
  expect(events.length).toBe(entries.length);
  expect(new Set(events.map(({ uid }) => uid)).size).toBe(events.length);
  for (const { words, from_ms, to_ms, path } of entries) {
    expect(events).toContainEqual(
      expect.objectContaining({
        words,
        from_ms: seconds(from_ms),
        to_ms: seconds(to_ms ?? from_ms),
        url: `${origin}${path}`,
      }),
    );
  }
  // Of each kind of thing the demo has one.
  const all = entries.map(({ words }) => words).join("\n");
  for (const kind of [
    /^P-\d+ hot work, live: /m,
    /: read the air again$/m,
    /^J-\d+: review/m,
    /yearly inspection/m,
    /test it anew$/m,
  ]) {
    expect(all).toMatch(kind);
  }
});

test("of a permit it says how it stands, and of everything when that was so", () => {
  const { db, clock_ms: now_ms } = demo.site;
  const states = new Map(openPermits(db, now_ms).map(({ now }) => [now.number, now.state]));
  const text = calendarFile(db, { person: null, name: "The site", origin, now_ms });
  const valid = readBack(text).filter(({ uid }) => uid.includes("-valid@"));
  expect(valid.length).toBe(states.size);
  for (const { words } of valid) expect(words).toContain(`, ${states.get(words.split(" ")[0]!)}: `);
  expect(text.replace(/\r\n /g, "").match(/^DESCRIPTION:As it stood at /gm)!.length).toBe(readBack(text).length);
});

test("somebody's own calendar holds nothing that is not theirs", () => {
  const { db, clock_ms: now_ms } = demo.site;
  const holder = entriesFor(calendarEntries(db, now_ms), null, now_ms).find(({ people }) => people.length > 0)!
    .people[0]!;
  const own = readBack(calendarFile(db, { person: holder, name: "Own", origin, now_ms }));
  const theirs = calendarEntries(db, now_ms).filter(({ people }) => people.includes(holder));
  expect(own.length).toBeGreaterThan(0);
  for (const { words } of own) expect(theirs.map((one) => one.words)).toContain(words);
});

test("words with commas, semicolons, lines and letters of other alphabets come back as they were", () => {
  const { db, clock_ms: now_ms } = demo.site;
  const words = 'Seal; valve, \\n "ö" \n 阀门';
  db.$client.prepare("UPDATE jobs SET title = ? WHERE number = 'J-0001'").run(words);
  const events = readBack(calendarFile(db, { person: null, name: "The site", origin, now_ms }));
  const title = events.find((one) => one.words.startsWith("J-0001 "))?.words;
  expect(title).toBe(`J-0001 ${words}`);
});
