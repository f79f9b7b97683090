import { createHash } from "node:crypto";
import { z } from "zod";
import { readPlantFiles } from "./readPlantFiles";
import { savePlant } from "./plantStore";
import { defineAct } from "../act/act";

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
  forLedger: ({ files }) => ({
    files: files.map(({ name, text }) => ({ name, sha256: createHash("sha256").update(text).digest("hex") })),
  }),
  run: ({ tx, person, now_ms }, { files }) => {
    const read = readPlantFiles(files);
    if (!read.ok) throw new Error("the files were not checked before the act");
    const names = files.map(({ name }) => name);
    const { revision } = savePlant(tx, read.value, person.id, now_ms, names);
    return { ok: true, subject: `plant ${revision}`, answer: { revision, items: read.value.items.length } };
  },
});
