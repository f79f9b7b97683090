import { randomUUID } from "node:crypto";
import type Database from "better-sqlite3";

/** How many of each, besides what is there. */
export type Sizes = Readonly<{ open: number; closed: number; permits: number }>;

/** Work of the copies keeps so far from hot work, in metres: out of reach of sparks. */
const APART_m = 20;

/** What is over was done within so many days before: the past lies in the past. */
const PAST_DAYS = 250;
const DAY_MS = 86_400_000;
/** Moments of work, to be moved back together. */
const WHEN = [
  "window_from_ms",
  "window_to_ms",
  "asked_at_ms",
  "valid_from_ms",
  "valid_to_ms",
  "drafted_at_ms",
  "locked_at_ms",
];

function daysAgo(row: Row, days: number): Row {
  const moved = WHEN.filter((name) => typeof row[name] === "number");
  return { ...row, ...Object.fromEntries(moved.map((name) => [name, Number(row[name]) - days * DAY_MS])) };
}

/** Crews that the jobs of the past were done by. */
const CREWS = 100;

type Row = Readonly<Record<string, string | number | null>>;

/**
 * Makes a large site out of a small one: every job is copied again and again with its isolation, locks, box, permits and
 * log, each copy with people and a work location of its own so that copies do not stand in one another's way. `closed`
 * are copies that are over, and `permits` are further permits of those, closed too.
 */
export function multiplySite(client: Database.Database, { open, closed, permits }: Sizes): void {
  const all = (sql: string, ...values: unknown[]) => client.prepare(sql).all(...values) as Row[];
  const insert = (table: string, row: Row) => {
    const columns = Object.keys(row);
    client
      .prepare(`INSERT INTO ${table} (${columns.join(", ")}) VALUES (${columns.map(() => "?").join(", ")})`)
      .run(...Object.values(row));
  };
  const templates = all("SELECT * FROM jobs WHERE state = 'open' AND number LIKE 'J-0%' ORDER BY number");
  const flames = all("SELECT details_json FROM permits WHERE kind = 'hot work'").map(
    ({ details_json }) => JSON.parse(String(details_json)) as { x_m: number; y_m: number },
  );
  const standing = new Map(
    all("SELECT text FROM plant_texts")
      .flatMap(
        ({ text }) =>
          (JSON.parse(String(text)) as { items?: { tag: string; x_m?: number; y_m?: number }[] }).items ?? [],
      )
      .map(({ tag, x_m, y_m }) => [tag, { x_m, y_m }]),
  );
  const nearHotWork = (tag: string) => {
    const { x_m, y_m } = standing.get(tag) ?? {};
    return flames.some(
      (at) => x_m === undefined || y_m === undefined || Math.hypot(at.x_m - x_m, at.y_m - y_m) < APART_m,
    );
  };
  const tags = all("SELECT tag FROM items WHERE tag NOT LIKE 'V-%' ORDER BY tag")
    .map(({ tag }) => String(tag))
    // Nobody works where a template does, nor within reach of its sparks: what stands there is left in peace.
    .filter((tag) => !templates.some((job) => String(job.job_json).includes(tag)) && !nearHotWork(tag));
  const people = all("SELECT * FROM people WHERE sign_in NOT LIKE '%-%'");
  // Called again it goes on where it left off.
  let made = all("SELECT number FROM jobs WHERE number NOT LIKE 'J-0%'").length;

  /** Everybody named in a text, replaced by people of this copy's own; each is made when they are first named. */
  const engaged = new Set<string>(all("SELECT id FROM people").map(({ id }) => String(id)));
  const crewOf = (n: number) => (text: string) =>
    people.reduce((out, person) => {
      const was = String(person.id);
      if (!out.includes(was)) return out;
      const id = `${was}-${n}`;
      if (!engaged.has(id)) {
        engaged.add(id);
        insert("people", { ...person, id, name: `${person.name} ${n}`, sign_in: `${person.sign_in}-${n}` });
      }
      return out.replaceAll(was, id);
    }, text);

  const copy = (template: Row, over: boolean) => {
    const n = ++made;
    // What is over was done by the same people: a site does not engage new ones for every job.
    const mine = crewOf(over ? n % CREWS : n);
    const ago = over ? 1 + (n % PAST_DAYS) : 0;
    const renamed = (row: Row): Row =>
      daysAgo(
        Object.fromEntries(
          Object.entries(row).map(([key, value]) => [key, typeof value === "string" ? mine(value) : value]),
        ),
        ago,
      );
    const jobId = randomUUID();
    const place = tags[(n * 7) % tags.length]!;
    const job = JSON.parse(String(template.job_json)) as { faces: object[] };
    job.faces = [{ ...job.faces[0], place }];
    const face = JSON.stringify(job);
    insert("jobs", {
      ...renamed(template),
      id: jobId,
      number: `J-${10_000 + n}`,
      title: `${template.title}, ${n}`,
      job_json: face,
      state: over ? "closed" : "open",
    });
    const isolationOf = new Map<string, string>();
    const boxOf = new Map<string, string>();
    for (const isolation of all(
      "SELECT i.* FROM isolations i JOIN job_isolations j ON j.isolation_id = i.id WHERE j.job_id = ?",
      template.id,
    )) {
      const id = randomUUID();
      isolationOf.set(String(isolation.id), id);
      insert("isolations", {
        ...renamed(isolation),
        id,
        number: `S-${10_000 + n}`,
        inputs_json: face,
        state: over ? "restored" : isolation.state!,
      });
      insert("job_isolations", { job_id: jobId, isolation_id: id });
      for (const step of all("SELECT * FROM steps WHERE isolation_id = ?", isolation.id)) {
        insert("steps", { ...renamed(step), isolation_id: id });
      }
      for (const hold of all("SELECT * FROM holds WHERE isolation_id = ?", isolation.id)) {
        const lifted: Row = over
          ? {
              lifted_at_ms: Number(hold.locked_at_ms) - ago * DAY_MS,
              lifted_by: mine(String(hold.locked_by)),
              key_at: "gone",
            }
          : {};
        insert("holds", { ...renamed(hold), id: randomUUID(), isolation_id: id, lock: `${hold.lock}-${n}`, ...lifted });
      }
      for (const box of all(
        "SELECT b.* FROM lock_boxes b JOIN box_isolations i ON i.box_id = b.id WHERE i.isolation_id = ?",
        isolation.id,
      )) {
        const boxId = randomUUID();
        boxOf.set(String(box.id), boxId);
        insert("lock_boxes", { id: boxId, number: `B-${10_000 + n}`, state: over ? "returned" : box.state! });
        insert("box_isolations", { box_id: boxId, isolation_id: id });
        for (const lock of all("SELECT * FROM standing_locks WHERE box_id = ?", box.id)) {
          const off: Row = over ? { off_at_ms: lock.on_at_ms! } : {};
          insert("standing_locks", {
            ...renamed(lock),
            id: randomUUID(),
            box_id: boxId,
            lock: `${lock.lock}-${n}`,
            ...off,
          });
        }
      }
    }
    for (const permit of all("SELECT * FROM permits WHERE job_id = ?", template.id)) {
      const id = randomUUID();
      insert("permits", {
        ...renamed(permit),
        id,
        number: `P-${10_000 + n}`,
        job_id: jobId,
        state: over ? "closed" : permit.state!,
      });
      for (const { isolation_id } of all("SELECT * FROM permit_isolations WHERE permit_id = ?", permit.id)) {
        insert("permit_isolations", { permit_id: id, isolation_id: isolationOf.get(String(isolation_id))! });
      }
      for (const entry of all("SELECT * FROM permit_log WHERE permit_id = ?", permit.id)) {
        insert("permit_log", { ...renamed(entry), permit_id: id });
      }
      for (const lock of all("SELECT * FROM personal_locks WHERE permit_id = ?", permit.id)) {
        const off: Row = over ? { off_at_ms: lock.on_at_ms! } : {};
        insert("personal_locks", {
          ...renamed(lock),
          id: randomUUID(),
          permit_id: id,
          box_id: boxOf.get(String(lock.box_id))!,
          lock: `${lock.lock}-${n}`,
          ...off,
        });
      }
    }
    return jobId;
  };

  client.transaction(() => {
    for (let i = 0; i < open; i++) copy(templates[i % templates.length]!, false);
    const over: string[] = [];
    for (let i = 0; i < closed; i++) over.push(copy(templates[i % templates.length]!, true));
    const [permit] = all("SELECT * FROM permits ORDER BY number LIMIT 1");
    const first = all("SELECT number FROM permits WHERE number LIKE 'P-1_____'").length;
    for (let i = first; i < first + permits; i++) {
      const id = randomUUID();
      const job = over[i % over.length]!;
      const past = daysAgo(permit!, 1 + (i % PAST_DAYS));
      insert("permits", { ...past, id, number: `P-${100_000 + i}`, job_id: job, state: "closed" });
      for (const entry of all("SELECT * FROM permit_log WHERE permit_id = ?", permit!.id)) {
        insert("permit_log", { ...entry, permit_id: id });
      }
    }
  })();
}
