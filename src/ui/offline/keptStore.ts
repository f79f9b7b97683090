import { openDB, type DBSchema, type IDBPDatabase } from "idb";
import type { KeptAct } from "./keptAct";

/**
 * Kept acts on this device's disk, a row each: pages of one browser that keep, change and forget acts at the same time
 * never write over one another, and each change is one transaction.
 */
interface Kept extends DBSchema {
  acts: { key: number; value: KeptAct; indexes: { actId: string } };
}

const NAME = "heavy-lantern-kept";
/** Where acts were kept before, all in one value. */
const EARLIER = { database: "keyval-store", store: "keyval", key: "heavy-lantern-kept-acts" } as const;

let opened: Promise<IDBPDatabase<Kept>> | null = null;

function store(): Promise<IDBPDatabase<Kept>> {
  opened ??= openDB<Kept>(NAME, 1, {
    upgrade(db) {
      db.createObjectStore("acts", { autoIncrement: true }).createIndex("actId", "actId", { unique: true });
    },
    // A newer page wants to change the tables: this one lets go and opens again when it needs them.
    blocking: () => void opened?.then((db) => db.close()).finally(() => (opened = null)),
  }).then(async (db) => {
    await takeOver(db);
    return db;
  });
  // One that failed (a private window, a full disk) is tried again at the next asking.
  opened.catch(() => (opened = null));
  return opened;
}

/** Acts kept by the version before come along, and are taken away there once they are here. */
async function takeOver(db: IDBPDatabase<Kept>): Promise<void> {
  const found = (await indexedDB.databases?.()) ?? [{ name: EARLIER.database }];
  if (!found.some(({ name }) => name === EARLIER.database)) return;
  const earlier = await openDB(EARLIER.database);
  try {
    if (!earlier.objectStoreNames.contains(EARLIER.store)) return;
    const kept = (await earlier.get(EARLIER.store, EARLIER.key)) as readonly KeptAct[] | undefined;
    if (kept === undefined) return;
    const tx = db.transaction("acts", "readwrite", { durability: "strict" });
    for (const act of kept) {
      if ((await tx.store.index("actId").getKey(act.actId)) === undefined) await tx.store.add(act);
    }
    await tx.done;
    await earlier.delete(EARLIER.store, EARLIER.key);
  } finally {
    earlier.close();
  }
}

/** In the order in which they were done. */
export async function allKept(): Promise<readonly KeptAct[]> {
  return (await store()).getAll("acts");
}

/** On disk when it is answered: what a person was told is kept must be there after a restart. */
export async function addKept(act: KeptAct): Promise<void> {
  const tx = (await store()).transaction("acts", "readwrite", { durability: "strict" });
  const known = await tx.store.index("actId").getKey(act.actId);
  await (known === undefined ? tx.store.add(act) : tx.store.put(act, known));
  await tx.done;
}

/** Changes one that is still kept. One that another page has sent and forgotten meanwhile stays forgotten. */
export async function changeKept(actId: string, change: (act: KeptAct) => KeptAct): Promise<void> {
  const tx = (await store()).transaction("acts", "readwrite", { durability: "strict" });
  const key = await tx.store.index("actId").getKey(actId);
  const act = key === undefined ? undefined : await tx.store.get(key);
  if (act !== undefined) await tx.store.put(change(act), key);
  await tx.done;
}

export async function removeKept(actId: string): Promise<void> {
  const tx = (await store()).transaction("acts", "readwrite", { durability: "strict" });
  const key = await tx.store.index("actId").getKey(actId);
  if (key !== undefined) await tx.store.delete(key);
  await tx.done;
}
