import { randomBytes } from "node:crypto";
import { hash, verify } from "@node-rs/argon2";

/** argon2id with 19 MiB and two passes, as commonly recommended. */
const FULL = { memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;
/** What tests use: as good as no hash at all. */
const CHEAP = { memoryCost: 8, timeCost: 1, parallelism: 1 } as const;

/** Tests sign thousands of times. Nowhere else: a server that is not told so takes no cheap hash, whoever stored it. */
export function areTestHashes(): boolean {
  return process.env.LANTERN_TEST_HASHES === "1";
}

export function hashSecret(secret: string): Promise<string> {
  return hash(secret, areTestHashes() ? CHEAP : FULL);
}

/** A hash of nothing anybody knows: unknown names cost the same time as known ones. */
let decoy: Promise<string> | undefined;

/** False for no hash, after the same work. */
export async function secretFits(stored: string | null, secret: string): Promise<boolean> {
  decoy ??= hashSecret(randomBytes(16).toString("hex"));
  const fits = await verify(stored ?? (await decoy), secret);
  return stored !== null && fits && (areTestHashes() || !isCheap(stored));
}

/** A hash says itself what it cost: "$argon2id$v=19$m=19456,t=2,p=1$…". */
export function isCheap(stored: string): boolean {
  const said = /^\$argon2id\$v=\d+\$m=(\d+),t=(\d+),p=\d+\$/.exec(stored);
  return said === null || Number(said[1]) * Number(said[2]) < FULL.memoryCost * FULL.timeCost;
}
