import { z } from "zod";
import type { Refusal } from "../../core/refusal/refusal";
import { authorisedApart } from "../../core/rounds/authorisedApart";
import { isRound, MOST_IN_A_ROUND, ROUND_KINDS, type RoundKind } from "../../core/rounds/rounds";
import type { Tx } from "../db/database";
import type { Person } from "../people/signIn";
import { permitNow } from "../permit/permitFacts";
import { ACTS } from "./acts";
import type { ActAnswer } from "./answer";
import { actSchema, readAct, type ReadAct } from "./readAct";
import type { Said } from "./recordActs";

/** How a round arrives: its acts in their order, and one PIN. */
export const roundSchema = z.object({
  version: z.literal(1),
  round: z.enum(ROUND_KINDS as [RoundKind, ...RoundKind[]], "is no round that there is"),
  entries: z
    .array(
      actSchema.extend({
        /** A field that the answer of an earlier act fills: the number of a permit that is only now written. */
        from: z.object({ entry: z.number().int().min(0), field: z.string().max(40) }).optional(),
      }),
    )
    .min(1, "a round holds at least one act")
    .max(MOST_IN_A_ROUND, `a round holds at most ${MOST_IN_A_ROUND} acts`),
  pin: z.string().max(20).optional(),
});

export type ReadRound = Readonly<{
  kind: RoundKind;
  /** Any of its acts is signed. */
  needsPin: boolean;
  entries: readonly Readonly<{
    /** As it came; null where an earlier act has to be done before it can be read. */
    first: ReadAct | null;
    /** Whole, once those before it are done. */
    complete: (answers: readonly Said[]) => ReadAct | ActAnswer;
  }>[];
  /** Why an act is done apart from this round, with what is there now; the refusal changes nothing. */
  faultInside: (tx: Tx, read: ReadAct, now_ms: number) => Refusal | null;
}>;

const NO_ROUND: ActAnswer = {
  ok: false,
  status: 400,
  code: "bad input",
  sentence: "These acts are not signed together. Load the page again and do them one by one.",
};

/** Reads a round: that it is one, and each of its acts. Nothing of it is done. */
export function roundOf(sent: z.output<typeof roundSchema>, person: Person): ReadRound | ActAnswer {
  const kind = sent.round;
  const named = sent.entries.map(({ type, input, from }, at) => ({
    type,
    // What an earlier act will name is the same for all that take it from there.
    input: { ...asObject(input), ...(from ? { [from.field]: `of ${from.entry}` } : {}) },
    from,
    at,
  }));
  const isTaken = named.every(({ from, at }) => from === undefined || from.entry < at);
  const ids = new Set(sent.entries.map(({ actId }) => actId));
  if (!isTaken || ids.size < sent.entries.length || !isRound(kind, named)) return NO_ROUND;
  // Others' signatures, and what comes in large files, never travel in a round.
  const acts = sent.entries.map(({ type }) => ACTS.get(type)!);
  if (acts.some((act) => act.signers !== undefined || act.isLarge || act.protects)) return NO_ROUND;
  const entries: ReadRound["entries"][number][] = [];
  for (const [at, { from, ...one }] of sent.entries.entries()) {
    if (from !== undefined) {
      const complete = (answers: readonly Said[]) => {
        const input = { ...asObject(one.input), [from.field]: answers[from.entry]?.[from.field] };
        return readAct({ ...one, input }, person);
      };
      entries.push({ first: null, complete });
      continue;
    }
    const read = readAct(one, person);
    if ("ok" in read) return read.ok ? read : { ...read, entry: at };
    entries.push({ first: read, complete: () => read });
  }
  const isAuthorised = kind === "issued on the spot" && sent.entries.some(({ type }) => type === AUTHORISE);
  return {
    kind,
    needsPin: acts.some(({ pin }) => pin),
    entries,
    faultInside: (tx, read, now_ms) => {
      if (!isAuthorised || read.act.type !== AUTHORISE) return null;
      const { permit } = z.object({ permit: z.string() }).parse(read.input);
      const found = permitNow(tx, permit, now_ms);
      if (found === null) return null;
      const why = authorisedApart({ permit: found.now, facts: found.facts });
      return why === null ? null : { code: "authorised apart", permit, why };
    },
  };
}
const AUTHORISE = "permit.authorise";

function asObject(input: unknown): Record<string, unknown> {
  return typeof input === "object" && input !== null && !Array.isArray(input) ? { ...input } : {};
}
