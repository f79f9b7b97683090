import { canonicalJson } from "../../src/core/ledger/canonicalJson";
import { ACTS } from "../../src/server/acts/acts";
import { withSecrets } from "../../src/server/acts/replayLedger";
import { DemoForAll } from "../support/demoSite";
import { someSoundInputs } from "../support/soundInput";

/** What the ledger keeps of an act is understood again, and means the same: else the record cannot be played again. */

const demo = new DemoForAll();
const plain = (value: unknown): unknown => JSON.parse(JSON.stringify(value)) as unknown;
/** A register is taken as it was staged, and secrets are never kept; both are made good where the record is played. */
const ELSEWHERE: ReadonlySet<string> = new Set(["plant.import"]);

test.each([...ACTS.values()].filter(({ type }) => !ELSEWHERE.has(type)).map((act) => [act.type, act] as const))(
  "%s",
  (type, act) => {
    const isSecret = type.startsWith("person.");
    let understood = 0;
    for (const input of someSoundInputs(act, { known: demo.known, most: 40 })) {
      const read = act.input.safeParse(input);
      if (!read.success) continue;
      understood++;
      const kept = plain(act.forLedger ? act.forLedger(read.data) : read.data);
      if (isSecret) continue;
      const again = act.input.safeParse(withSecrets(demo.site.db, { type, input: kept, answer: null }));
      expect({ input, again: again.success ? "understood" : again.error.issues }).toEqual({
        input,
        again: "understood",
      });
      const keptAgain = plain(act.forLedger ? act.forLedger(again.data) : again.data);
      expect(canonicalJson(keptAgain)).toBe(canonicalJson(kept));
    }
    expect(understood).toBeGreaterThan(0);
  },
);
