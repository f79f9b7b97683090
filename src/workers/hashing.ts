import { hashSync, verifySync } from "@node-rs/argon2";

/** argon2id with 19 MiB and two passes, as commonly recommended. */
export const FULL = { memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;
/** What tests use: as good as no hash at all. */
export const CHEAP = { memoryCost: 8, timeCost: 1, parallelism: 1 } as const;

export type Hashing =
  /** The site's key, in hex, where it has one. */
  Readonly<{ key?: string }> &
    (
      | Readonly<{ do: "hash"; secret: string; cheap: boolean }>
      | Readonly<{ do: "verify"; stored: string; secret: string }>
    );

/** On the calling thread itself, so that decoding a picture in the common pool of threads holds nobody's PIN up. */
export function hashing(task: Hashing): string | boolean {
  const keyed = task.key === undefined ? {} : { secret: Buffer.from(task.key, "hex") };
  return task.do === "hash"
    ? hashSync(task.secret, { ...(task.cheap ? CHEAP : FULL), ...keyed })
    : verifySync(task.stored, task.secret, keyed);
}
