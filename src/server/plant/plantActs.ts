import { createHash } from "node:crypto";
import { z } from "zod";
import type { Read } from "../../core/plant/problem";
import type { TextFile } from "../../core/plant/readPlantFiles";
import type { ReadyPlant } from "../../workers/tasks";
import { defineAct } from "../act/act";
import { keptAnswers } from "../runtime/keptSome";
import { heavy } from "../runtime/workers";
import { enterTags, savePlant } from "./plantStore";

const hashOf = (text: string) => createHash("sha256").update(text).digest("hex");

/** Files are looked at when they come and again when they are signed for: they are read once. */
const readings = keptAnswers<string, Read<ReadyPlant>>(2);

/** The register in these files, or everything that is wrong with them; read in another thread. */
export function readReady(files: readonly TextFile[]): Promise<Read<ReadyPlant>> {
  const name = files.map((file) => `${file.name} ${hashOf(file.text)}`).join(" ");
  return readings(name, () => heavy("read plant", files));
}

export const importPlant = defineAct({
  type: "plant.import",
  words: "import a plant register",
  roles: ["coordinator"],
  pin: true,
  input: z.object({
    files: z
      .array(z.object({ name: z.string().max(200), text: z.string() }))
      .min(1)
      .max(3),
  }),
  // The ledger keeps which files they were, not their text: that is in the plant revision.
  forLedger: ({ files }) => ({ files: files.map(({ name, text }) => ({ name, sha256: hashOf(text) })) }),
  prepare: async (db, { files }): Promise<ReadyPlant> => {
    const read = await readReady(files);
    if (!read.ok) throw new Error("the files were not checked before the act");
    await enterTags(db, read.value.tags);
    return read.value;
  },
  run: ({ tx, person, now_ms }, { files }, ready) => {
    const names = files.map(({ name }) => name);
    const { revision } = savePlant(tx, ready, person.id, now_ms, names);
    return { ok: true, subject: `plant ${revision}`, answer: { revision, items: ready.tags.length } };
  },
});
