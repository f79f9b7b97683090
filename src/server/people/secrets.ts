import { randomBytes, randomInt } from "node:crypto";
import { FULL } from "../../workers/hashing";
import { hashed } from "../runtime/workers";

/** Tests sign thousands of times. Nowhere else: a server that is not told so takes no cheap hash, whoever stored it. */
export function areTestHashes(): boolean {
  return process.env.LANTERN_TEST_HASHES === "1";
}

export async function hashSecret(secret: string): Promise<string> {
  return String(await hashed({ do: "hash", secret, cheap: areTestHashes() }));
}

/** A password and a PIN to hand over: told once, and kept only as hashes. */
export function newSecrets(): Readonly<{ password: string; pin: string }> {
  return { password: randomBytes(9).toString("base64url"), pin: String(randomInt(0, 1_000_000)).padStart(6, "0") };
}

/** A hash of nothing anybody knows: unknown names cost the same time as known ones. */
let decoy: Promise<string> | undefined;

/** False for no hash, after the same work. */
export async function secretFits(stored: string | null, secret: string): Promise<boolean> {
  decoy ??= hashSecret(randomBytes(16).toString("hex"));
  const fits = await hashed({ do: "verify", stored: stored ?? (await decoy), secret });
  return stored !== null && fits === true && (areTestHashes() || !isCheap(stored));
}

/** A hash says itself what it cost: "$argon2id$v=19$m=19456,t=2,p=1$…". */
export function isCheap(stored: string): boolean {
  const said = /^\$argon2id\$v=\d+\$m=(\d+),t=(\d+),p=\d+\$/.exec(stored);
  return said === null || Number(said[1]) * Number(said[2]) < FULL.memoryCost * FULL.timeCost;
}
