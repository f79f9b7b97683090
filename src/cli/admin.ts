import { randomBytes } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { basename, join, resolve } from "node:path";
import { randomUUID } from "node:crypto";
import { count, eq } from "drizzle-orm";
import { COMPETENCES, ROLES } from "../core/people/roles";
import { problemLine } from "../core/plant/problem";
import { runAct } from "../server/acts/runAct";
import { addPerson } from "../server/acts/addPerson";
import { closeDatabase, database, databasePath, dataFolder, openToRead, type Db } from "../server/db/database";
import { migrationsOf } from "../server/db/migrations";
import { INSTRUMENT_KINDS, type InstrumentKind } from "../core/gear/instrumentKinds";
import { detectors, people, plantRevisions, sessions } from "../server/db/schema";
import { seedDemo } from "../server/demo/seedDemo";
import { stage, Taken } from "../server/plant/plantActs";
import { brokenAt, BODY_VERSION, ledgerHead } from "../server/ledger/append";
import { onCommandLine, takeOver } from "../server/ledger/byTheServer";
import { headFilePath, writeHeadFile } from "../server/ledger/headFile";
import { verifyLedger } from "../server/ledger/verify";
import { forgive } from "../server/people/attempts";
import { openKey } from "../server/people/secretKey";
import { areTestHashes, hashPassword, hashPin, newSecrets } from "../server/people/secrets";
import { toPerson } from "../server/people/signIn";
import { tokenHash } from "../server/permit/detectorStore";
import { currentPlant } from "../server/plant/plantStore";
import { holdFolder } from "../server/runtime/folderLock";
import { settingFaults } from "../server/runtime/settings";
import { endQuietly } from "./endQuietly";
import { recover } from "./recover";

endQuietly();

const say = (text: string) => process.stdout.write(`${text}\n`);

class BadInput extends Error {}
const TAKEN = `A server runs on ${dataFolder()}. Stop it first: two would not hear of each other's alarms.`;

const COMMANDS: Record<string, (args: readonly string[]) => Promise<void> | void> = {
  async "seed-demo"() {
    if (!holdFolder(dataFolder())) throw new BadInput(TAKEN);
    for (const suffix of ["", "-wal", "-shm"]) rmSync(databasePath() + suffix, { force: true });
    rmSync(headFilePath(), { force: true });
    keyOpen();
    await seedDemo(database(), resolve(process.env.LANTERN_HOME ?? ".", "demo"), headFilePath(), Date.now());
  },

  /**
   * Opens the database, so that it is migrated; the first time, adds a coordinator and prints how to sign in. A record that
   * does not go on where it ended is not opened, and one that is not whole is not upgraded.
   */
  async prepare() {
    const faults = settingFaults(process.env);
    if (faults.length > 0) throw new BadInput(faults.join("\n"));
    if (!holdFolder(dataFolder())) throw new BadInput(TAKEN);
    const upgrade = upgradeOf(databasePath());
    const db = database();
    if (upgrade !== null) {
      writeHeadFile(ledgerHead(db));
      takeOver(db, upgrade);
    }
    const broken = brokenAt(ledgerHead(db), headFilePath());
    if (broken !== null) {
      throw new BadInput(
        `The record does not go on where it ended: ${broken}. The server does not start. See what ./lantern verify says; ./lantern recover FILE puts a backup in its place.`,
      );
    }
    keyOpen();
    const known = db.select({ n: count() }).from(people).get()?.n ?? 0;
    if (known > 0) return;
    const secrets = newSecrets();
    await addPerson(db, {
      name: "Coordinator",
      signIn: "coordinator",
      roles: ["coordinator"],
      competences: [],
      ...secrets,
    });
    say("A first account was made. Write these down; they are shown once.");
    say(`  sign-in coordinator   password ${secrets.password}   PIN ${secrets.pin}`);
    say("Add the others with: ./lantern person NAME SIGN-IN ROLES [COMPETENCES]");
  },

  async person([name, signIn, roles = "", competences = ""]) {
    if (!name || !signIn)
      throw new BadInput("write: ./lantern person NAME SIGN-IN ROLES [COMPETENCES], lists with commas");
    const pick = <T extends string>(list: string, known: readonly T[], what: string): T[] =>
      list
        .split(",")
        .filter(Boolean)
        .map((word) => {
          const found = known.find((one) => one === word);
          if (found === undefined) throw new BadInput(`${what} ${word}: must be among ${known.join(", ")}`);
          return found;
        });
    const db = database();
    if (db.select().from(people).where(eq(people.signIn, signIn.toLowerCase())).get()) {
      throw new BadInput(`sign-in ${signIn} is taken`);
    }
    keyOpen();
    const secrets = newSecrets();
    const person = {
      name,
      signIn,
      roles: pick(roles, ROLES, "role"),
      competences: pick(competences, COMPETENCES, "competence"),
    };
    await addPerson(db, { ...person, ...secrets });
    say(`${name} added.  sign-in ${signIn.toLowerCase()}   password ${secrets.password}   PIN ${secrets.pin}`);
  },

  /** Wrong tries forgiven: for the coordinator whom nobody else can let in. */
  unlock([signIn]) {
    const db = database();
    const row = personCalled(db, signIn);
    const did = `${row.name} may try again.`;
    onCommandLine(db, { type: "person.let-in", subject: row.signIn, input: { person: row.id }, did }, (tx) =>
      forgive(tx, row),
    );
    say(did);
  },

  /** New secrets for one person, by whoever keeps the server; with a new key where the site's was lost. */
  async secrets([signIn]) {
    const db = database();
    const row = personCalled(db, signIn);
    const fault = openKey(db, true);
    if (fault !== null) throw new BadInput(fault);
    const made = newSecrets();
    const [passwordHash, pinHash] = await Promise.all([hashPassword(made.password), hashPin(made.pin)]);
    const did = `${row.name} has a new password and a new PIN, and is signed out everywhere.`;
    onCommandLine(db, { type: "person.new-secrets", subject: row.signIn, input: { person: row.id }, did }, (tx) => {
      tx.update(people).set({ passwordHash, pinHash }).where(eq(people.id, row.id)).run();
      tx.delete(sessions).where(eq(sessions.personId, row.id)).run();
    });
    say(`${did}  password ${made.password}   PIN ${made.pin}`);
  },

  /** A detector or gauge that sends by itself; its token is printed once and kept as a hash. */
  instrument([id, kind, ...gases]) {
    if (!id || !/^[\w-]{1,20}$/.test(id) || !INSTRUMENT_KINDS.some((one) => one === kind)) {
      throw new BadInput(
        "write: ./lantern instrument ID gas, with the gases it reads if it reads more than oxygen and what burns; or ID gauge, or ID blower",
      );
    }
    const db = database();
    if (db.select().from(detectors).where(eq(detectors.id, id)).get()) throw new BadInput(`${id} is entered already`);
    const token = randomBytes(24).toString("base64url");
    const reads = kind === "gas" ? ["oxygen", "flammable", ...gases] : [];
    onCommandLine(
      db,
      { type: "instrument.entered", subject: id, input: { id, kind, reads }, did: `${id} entered: ${kind}.` },
      (tx) =>
        tx
          .insert(detectors)
          .values({ id, kind: kind as InstrumentKind, tokenHash: tokenHash(token), reads })
          .run(),
    );
    say(`${id} entered.  token ${token}`);
  },

  verify() {
    if (!existsSync(databasePath())) throw new BadInput(`there is no database in ${dataFolder()}`);
    const client = openToRead(databasePath());
    const result = verifyLedger(client, headFilePath());
    client.close();
    if (!result.ok) {
      for (const fault of result.faults) process.stderr.write(`${fault}\n`);
      process.exitCode = 1;
      return;
    }
    say(`The ledger is whole: ${result.rows} rows, head ${result.head}.`);
    if (result.stateKnown) say(`The state is as the ledger wrote it: ${result.stateRows} rows.`);
    else if (result.rows > 0) say("Of the state nothing is known yet: it is taken into the record at the next start.");
  },

  /** Puts a backup in the place of the database. */
  recover([file]) {
    if (!file || !existsSync(file)) throw new BadInput("write: ./lantern recover FILE, with the backup to go on from");
    if (!holdFolder(dataFolder())) throw new BadInput(TAKEN);
    const done = recover(resolve(file), databasePath());
    if (!done.ok) throw new BadInput(`${file} is not whole, and nothing was changed:\n${done.faults.join("\n")}`);
    for (const line of done.said) say(line);
  },

  async backup([target]) {
    const stamp = new Date().toISOString().slice(0, 19).replaceAll(":", "-");
    const path = resolve(target ?? join(dataFolder(), `backup-${stamp}.db`));
    if (existsSync(path)) throw new BadInput(`${path} exists already; a backup overwrites nothing`);
    await database().$client.backup(path);
    say(`Backed up to ${path}`);
  },

  /** The plant register of today as plant.json, on standard output or into a file. */
  export([target]) {
    const plant = currentPlant(database());
    if (plant === null) throw new BadInput("no plant was imported yet");
    const text = JSON.stringify(plantFile(plant.plant), null, 2);
    if (target === undefined) say(text);
    else writeFileSync(target, `${text}\n`, { flag: "wx" });
  },

  /** A plant register from files, in the name of a coordinator who signs with the PIN in LANTERN_PIN. */
  async import([signIn, ...paths]) {
    if (!signIn || paths.length === 0)
      throw new BadInput("write: ./lantern import SIGN-IN plant.json, or items.csv links.csv");
    const files = paths.map((path) => {
      if (!existsSync(path)) throw new BadInput(`${path}: cannot be read`);
      return { name: basename(path), text: readFileSync(path, "utf8") };
    });
    // Its signature is checked like every other.
    keyOpen();
    const db = database();
    const read = await stage(db, files, Date.now());
    if (!read.ok) throw new BadInput(read.problems.map(problemLine).join("\n"));
    const row = db.select().from(people).where(eq(people.signIn, signIn.toLowerCase())).get();
    const envelope = {
      version: 1,
      actId: randomUUID(),
      type: "plant.import",
      input: { files: [], taken: new Taken(read.value) },
      pin: process.env.LANTERN_PIN,
    };
    const answer = await runAct(envelope, row ? toPerson(row, Date.now()) : null, Date.now());
    if (!answer.ok) throw new BadInput(answer.sentence);
    const { revision } = db.select({ revision: plantRevisions.revision }).from(plantRevisions).all().at(-1)!;
    say(`Imported as revision ${revision}: ${read.value.items} items, ${read.value.links} links.`);
  },
};

function personCalled(db: Db, signIn = ""): typeof people.$inferSelect {
  const row = db.select().from(people).where(eq(people.signIn, signIn.toLowerCase())).get();
  if (row === undefined) throw new BadInput(`nobody signs in as ${signIn}`);
  return row;
}

/** The key of passwords and PINs, read or made. */
function keyOpen(): void {
  if (areTestHashes()) return;
  const fault = openKey(database());
  if (fault !== null) throw new BadInput(fault);
}

/** What an upgrade of this database will change, in words; null where there is nothing to upgrade. */
function upgradeOf(path: string): string | null {
  if (!existsSync(path)) return null;
  const client = openToRead(path);
  try {
    const had = migrationsOf(client);
    if (had === null) return null;
    const said = client.prepare("SELECT count(*) AS rows, max(body_version) AS version FROM ledger").get() as {
      rows: number;
      version: number | null;
    };
    if (said.rows === 0) return null;
    const isPending = had.applied < had.all;
    if (!isPending && (said.version ?? 0) >= BODY_VERSION) return null;
    const found = verifyLedger(client, headFilePath());
    if (!found.ok) {
      throw new BadInput(`The record is not whole, so nothing was upgraded:\n${found.faults.join("\n")}`);
    }
    return isPending ? `migrations ${had.applied + 1} to ${had.all}` : "before, the ledger did not say what it wrote";
  } finally {
    client.close();
  }
}

/** The core's plant as the file format writes it. */
function plantFile(plant: NonNullable<ReturnType<typeof currentPlant>>["plant"]) {
  return {
    format: "heavy-lantern/plant",
    version: 1,
    kinds: plant.kinds,
    areas: plant.areas,
    items: plant.items.map(({ sources, device, ...item }) => {
      const file = device && { ...device, effort: device.effort_min, effort_min: undefined };
      return { ...item, source: sources, ...(file ? { device: file } : {}) };
    }),
    links: plant.links,
  };
}

async function main([command = "", ...args]: string[]): Promise<void> {
  const run = COMMANDS[command];
  if (run === undefined) throw new BadInput(`unknown command ${command}`);
  process.umask(0o077);
  mkdirSync(dataFolder(), { recursive: true });
  try {
    await run(args);
  } finally {
    closeDatabase();
  }
}

main(process.argv.slice(2)).catch((error: unknown) => {
  if (!(error instanceof BadInput)) throw error;
  process.stderr.write(`${error.message}\n`);
  process.exitCode = 1;
});
