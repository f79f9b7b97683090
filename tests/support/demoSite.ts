import { join } from "node:path";
import { seedDemo } from "../../src/server/demo/seedDemo";
import type { Known } from "./soundInput";
import { TestSite, type TestPerson } from "./testSite";

/** The demo's day on a database of its own: permits live and closed, people on, instruments, procedures, alarms. */
export async function demoSite(): Promise<TestSite> {
  const site = new TestSite();
  await seedDemo(site.db, join(__dirname, "../../demo"), site.headFile, site.clock_ms);
  return site;
}

/**
 * The demo under everything that asks for the database, as long as a file of tests runs, with others who act there. The demo's
 * people keep the secrets that they have: acts name only them.
 */
export class DemoForAll {
  site!: TestSite;
  known!: Known;

  constructor(...people: readonly TestPerson[]) {
    const holder = globalThis as { heavyLanternDatabase?: unknown };
    beforeAll(async () => {
      this.site = await demoSite();
      holder.heavyLanternDatabase = this.site.db;
      this.known = namesOn(this.site);
      await this.site.add(...people);
    });
    afterAll(() => {
      delete holder.heavyLanternDatabase;
      this.site.close();
    });
  }
}

/** What there is on a site, by the fields in which acts name it. */
export function namesOn(site: TestSite): Known {
  const all = (sql: string) => site.db.$client.prepare(sql).pluck().all() as string[];
  const [jobs, permits, isolations] = ["jobs", "permits", "isolations"].map((of) => all(`SELECT number FROM ${of}`));
  const people = all("SELECT id FROM people");
  const tags = all("SELECT tag FROM items ORDER BY tag LIMIT 60");
  return {
    job: jobs!,
    permit: permits!,
    isolation: isolations!,
    to: [...jobs!, ...permits!],
    box: all("SELECT number FROM lock_boxes"),
    step: all("SELECT step_id FROM steps"),
    person: people,
    owner: people,
    holder: people,
    lead: people,
    coming: people,
    reader: people,
    crew: people,
    procedure: all("SELECT number FROM procedures"),
    detector: all("SELECT id FROM detectors"),
    instrument: [...all("SELECT id FROM detectors"), ...all("SELECT number FROM gear")],
    number: all("SELECT number FROM gear"),
    place: tags,
    point: tags,
    device: tags,
    from: tags,
    lift: tags,
    plantRevision: [1],
    alarm: all("SELECT seq FROM ledger ORDER BY seq DESC LIMIT 20"),
    seq: all("SELECT seq FROM ledger ORDER BY seq DESC LIMIT 20"),
  };
}
