import type { z } from "zod";
import type { Refusal } from "../../core/refusal/refusal";
import type { Role } from "../../core/people/roles";
import type { Db, Tx } from "../db/database";
import type { LedgerHead } from "../ledger/headFile";
import type { Person } from "../people/signIn";

/** What an act is given: the transaction, who acts (from the session, never the body) and the time. */
export type ActContext = Readonly<{
  tx: Tx;
  person: Person;
  now_ms: number;
  /** When it was done: before `now_ms` where a device kept it while it had no network. */
  done_ms: number;
  /** It was kept by a device while it had no network. */
  kept: boolean;
}>;

export type ActOutcome =
  | Readonly<{
      ok: true;
      subject: string;
      answer: Readonly<Record<string, string | number | null>>;
      corrects?: number;
      /** Told to whoever did it, once, and kept nowhere. */
      once?: Readonly<Record<string, string>>;
      /** What follows from it, written after its own row in the same transaction. */
      then?: (tx: Tx, now_ms: number) => Consequences;
    }>
  | Readonly<{ ok: false; subject: string; refusal: Refusal }>;

/**
 * What an act brought on: the ledger's head after it, null where nothing was written, whose pages show it, and the
 * isolations that may have ceased to hold by it.
 */
export type Consequences = Readonly<{
  head: LedgerHead | null;
  about: readonly string[];
  fallen: readonly string[];
}>;

/** What was worked out before, in another thread, no longer fits what is there: it is worked out again. */
export class PrepareAgain extends Error {}

/**
 * One thing a user can do. Everything in `run` happens in one synchronous transaction, or not at all. What is too heavy
 * for that is done by `prepare` before it, from what is there then; `run` looks whether it is still so, inside, and throws
 * PrepareAgain where it is not.
 */
export type Act<Schema extends z.ZodType = z.ZodType, Prepared = unknown> = Readonly<{
  type: string;
  input: Schema;
  /** Any one of these roles; empty means everyone who is signed in, and `run` decides. */
  roles: readonly Role[];
  /** What it is called in a refusal: "you may not …". */
  words: string;
  /** Carries responsibility: asks for the PIN again. */
  pin: boolean;
  /** What the ledger keeps of the input, when not all of it. */
  forLedger?: (input: z.output<Schema>) => unknown;
  /** Others who sign the same act with their own PINs, at the same device. */
  signers?: (input: z.output<Schema>) => readonly Readonly<{ person: string; pin: string; field: string }>[];
  /**
   * Others sign it at a screen that stands at the box: why nobody's PIN is even tried there now; null where they are, each
   * counted by whose it is.
   */
  atCrewRound?: (tx: Tx, person: Person, input: z.output<Schema>, clock_ms: number) => Refusal | null;
  /** Done at a screen that stands at the box, as nothing else is but what protects somebody. */
  isOfCrewRound?: boolean;
  /** A device may keep it while it has no network, and send it later with its own time. Never what protects somebody. */
  offline?: boolean;
  /** Files come in it: their texts are as long as they are. */
  isLarge?: boolean;
  /** It only stops work: it is done even where the record is broken, and says so in it. */
  protects?: boolean;
  /** It says that the clock is right: once it is done, times run from the clock as it is, whatever the ledger's last is. */
  setsTheClock?: boolean;
  prepare?: (db: Db, input: z.output<Schema>, now_ms: number) => Promise<Prepared>;
  run: (context: ActContext, input: z.output<Schema>, prepared: Prepared) => ActOutcome;
}>;

export function defineAct<Schema extends z.ZodType, Prepared = undefined>(
  act: Act<Schema, Prepared>,
): Act<Schema, Prepared> {
  return act;
}
