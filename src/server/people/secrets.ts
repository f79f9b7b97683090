import { randomBytes, randomInt } from "node:crypto";
import { LEAST, type Cost } from "../../workers/hashing";
import { hashed } from "../runtime/workers";
import { keyName, keyOfHash, secretKey } from "./secretKey";

/** Tests sign thousands of times. Nowhere else: a server that is not told so takes no cheap hash, whoever stored it. */
export function areTestHashes(): boolean {
  return process.env.LANTERN_TEST_HASHES === "1";
}

export const hashPassword = (password: string): Promise<string> => hashSecret(password, "password");
export const hashPin = (pin: string): Promise<string> => hashSecret(pin, "pin");

/** Made with the site's key where there is one, and says so. */
async function hashSecret(secret: string, as: Exclude<Cost, "cheap">): Promise<string> {
  const key = secretKey();
  const cost = areTestHashes() ? "cheap" : as;
  const made = String(await hashed({ do: "hash", secret, cost, key: key?.toString("hex") }));
  return key === null ? made : `key.${keyName(key)}:${made}`;
}

/** A password and a PIN to hand over: told once, and kept only as hashes. */
export function newSecrets(): Readonly<{ password: string; pin: string }> {
  return { password: randomBytes(9).toString("base64url"), pin: String(randomInt(0, 1_000_000)).padStart(6, "0") };
}

/** A hash of nothing anybody knows: unknown names cost the same time as known ones. */
let decoy: Promise<string> | undefined;

/** False for no hash, after the same work. */
export async function secretFits(stored: string | null, secret: string): Promise<boolean> {
  decoy ??= hashPassword(randomBytes(16).toString("hex"));
  const asked = stored ?? (await decoy);
  const named = keyOfHash(asked);
  const key = secretKey();
  const isOurs = named === null || (key !== null && named === keyName(key));
  const fits = await hashed({
    do: "verify",
    stored: bare(asked),
    secret,
    key: named === null ? undefined : key?.toString("hex"),
  });
  return stored !== null && isOurs && fits === true && (areTestHashes() || !isCheap(stored));
}

const bare = (stored: string) => stored.replace(/^key\.[0-9a-f]{8}:/, "");

/** A hash says itself what it cost: "$argon2id$v=19$m=19456,t=2,p=1$…". Cheap is what reaches none of the least costs. */
export function isCheap(stored: string): boolean {
  const said = /^\$argon2id\$v=\d+\$m=(\d+),t=(\d+),p=\d+\$/.exec(bare(stored));
  if (said === null) return true;
  return !LEAST.some(({ memoryCost, timeCost }) => Number(said[1]) >= memoryCost && Number(said[2]) >= timeCost);
}
