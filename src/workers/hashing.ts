import { hashSync, verifySync } from "@node-rs/argon2";

/**
 * What argon2id must cost at least, KiB and passes: each of these pairs is as good as the others by OWASP's password storage
 * advice, from memory. Less memory is sooner done where many sign at once, for the caches hold it.
 */
export const LEAST = [
  { memoryCost: 47_104, timeCost: 1 },
  { memoryCost: 19_456, timeCost: 2 },
  { memoryCost: 12_288, timeCost: 3 },
  { memoryCost: 9_216, timeCost: 4 },
  { memoryCost: 7_168, timeCost: 5 },
] as const;

/** Passwords are typed once a shift, PINs with every act; what a stranger may try costs most. */
export const COSTS = {
  password: { memoryCost: 19_456, timeCost: 2, parallelism: 1 },
  pin: { memoryCost: 7_168, timeCost: 5, parallelism: 1 },
  /** What tests use: as good as no hash at all. */
  cheap: { memoryCost: 8, timeCost: 1, parallelism: 1 },
} as const;
export type Cost = keyof typeof COSTS;

export type Hashing =
  /** The site's key, in hex, where it has one. */
  Readonly<{ key?: string }> &
    (Readonly<{ do: "hash"; secret: string; cost: Cost }> | Readonly<{ do: "verify"; stored: string; secret: string }>);

/** On the calling thread itself, so that decoding a picture in the common pool of threads holds nobody's PIN up. */
export function hashing(task: Hashing): string | boolean {
  const keyed = task.key === undefined ? {} : { secret: Buffer.from(task.key, "hex") };
  return task.do === "hash"
    ? hashSync(task.secret, { ...COSTS[task.cost], ...keyed })
    : verifySync(task.stored, task.secret, keyed);
}
