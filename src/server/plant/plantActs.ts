import { createHash } from "node:crypto";
import { z } from "zod";
import { problemLine, type Read } from "../../core/plant/problem";
import type { TextFile } from "../../core/plant/readPlantFiles";
import type { StagedRegister } from "../../workers/stageRegister";
import { defineAct, PrepareAgain } from "../act/act";
import type { Db } from "../db/database";
import { heavy } from "../runtime/workers";
import { judgeBefore, writeVerdicts, type Judged } from "../isolation/verdicts";
import { revisionToday } from "../isolation/verdictStore";
import { readAhead, savePlant } from "./plantStore";

const hashOf = (text: string) => createHash("sha256").update(text).digest("hex");

/** The register in these files, staged; or everything that is wrong with them. */
export function stage(db: Db, files: readonly TextFile[], now_ms: number): Promise<Read<StagedRegister>> {
  return heavy("stage register", { file: db.$client.name, files, now_ms });
}

/**
 * A register that the server itself has taken from an upload and staged. Nothing that is sent can be one. `on` is the revision that
 * was today's when a person looked at what it changes.
 */
export class Taken {
  constructor(
    readonly register: StagedRegister,
    readonly on: number | null = null,
  ) {}
}

type Prepared = Readonly<{ read: Read<StagedRegister>; judged: Judged }>;

export const importPlant = defineAct({
  type: "plant.import",
  isLarge: true,
  words: "import a plant register",
  roles: ["coordinator"],
  pin: true,
  input: z
    .object({
      files: z.array(z.object({ name: z.string().max(200), text: z.string() })).max(3),
      taken: z.instanceof(Taken).optional(),
    })
    .refine(({ files, taken }) => taken !== undefined || files.length > 0, {
      path: ["files"],
      message: "send plant.json, or items.csv and links.csv",
    }),
  // The ledger keeps which files they were, not their text: that is in the plant revision.
  forLedger: ({ files, taken }) => ({
    files: taken ? taken.register.files : files.map(({ name, text }) => ({ name, sha256: hashOf(text) })),
  }),
  prepare: async (db, { files, taken }, now_ms): Promise<Prepared> => {
    const read: Read<StagedRegister> = taken
      ? { ok: true, warnings: [], value: taken.register }
      : await stage(db, files, now_ms);
    if (!read.ok) return { read, judged: new Map() };
    await readAhead(db, read.value.hash);
    return { read, judged: await judgeBefore(db, { file: db.$client.name, hash: read.value.hash }) };
  },
  run: ({ tx, person, now_ms }, { taken }, { read, judged }: Prepared) => {
    const today = revisionToday(tx);
    if (taken !== undefined && taken.on !== null && taken.on !== today) {
      return { ok: false, subject: "", refusal: { code: "register came in", revision: today } };
    }
    if (!read.ok) {
      const [first, ...others] = read.problems;
      const refusal = { code: "bad register", first: problemLine(first!), more: others.length } as const;
      return { ok: false, subject: "", refusal };
    }
    const saved = savePlant(tx, read.value, person.id, now_ms);
    // Thrown away meanwhile as left over: staged again.
    if (saved === null) throw new PrepareAgain();
    return {
      ok: true,
      subject: `plant ${saved.revision}`,
      answer: {
        revision: saved.revision,
        items: read.value.items,
        tags: read.value.identities.count,
        tagsHash: read.value.identities.sha256,
      },
      // In the same transaction: at no moment does a permit count on a plan that nobody judged on this register.
      then: (now, at_ms) => {
        // Those that hold stop no permit: they are not looked at again here, where everybody else waits.
        const { written, fallen, head } = writeVerdicts(now, judged, at_ms);
        return { head, about: written, fallen };
      },
    };
  },
});
