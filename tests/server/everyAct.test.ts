import { ROLES, type Role } from "../../src/core/people/roles";
import type { Act } from "../../src/server/act/act";
import { ACTS } from "../../src/server/acts/acts";
import { failedAttempts } from "../../src/server/db/schema";
import { ledgerHead } from "../../src/server/ledger/append";
import { verifyLedger } from "../../src/server/ledger/verify";
import { ownPin } from "../../src/server/people/attempts";
import { ATTACK_MS, IS_ATTACK } from "../support/attack";
import { DemoForAll } from "../support/demoSite";
import { replay, stateOf } from "../support/replay";
import { someSoundInputs } from "../support/soundInput";
import { PIN, TestSite } from "../support/testSite";

/**
 * Every act by somebody of every role, with the right PIN, a wrong one, none, and the right one of somebody who is shut out:
 * who may not is refused before anything of it is read, who did not sign is refused by name, and neither changes anything.
 */
jest.setTimeout(ATTACK_MS);

const PINS = ["right", "wrong", "none", "shut out"] as const;
type Pins = (typeof PINS)[number];
const INPUTS = IS_ATTACK ? 5 : 1;

const demo = new DemoForAll(...ROLES.map((role) => ({ signIn: role, roles: [role] })), { signIn: "nobody", roles: [] });

/** What somebody is answered who signs so. */
async function tried(who: string, act: Act, input: unknown, pins: Pins): Promise<string> {
  const { db } = demo.site;
  db.delete(failedAttempts).run();
  if (pins === "shut out") {
    const { subject } = ownPin(who)[0]!;
    const tries = Array.from({ length: 5 }, () => ({ subject, at: demo.site.clock_ms }));
    db.insert(failedAttempts).values(tries).run();
  }
  const pin = { right: PIN, "shut out": PIN, wrong: "1357", none: "" }[pins];
  const answer = await demo.site.act(who, act.type, input, { pin });
  return answer.ok ? "done" : answer.code;
}
const mayNot = ({ roles }: Act, role: Role | "nobody") => roles.length > 0 && !roles.some((one) => one === role);
/** Of the acts that anybody may try, somebody of one role stands for all of them in the usual run. */
const allowed = (act: Act): readonly (Role | "nobody")[] =>
  act.roles.length > 0 ? act.roles : IS_ATTACK ? [...ROLES, "nobody"] : ["worker", "nobody"];

test.each([...ACTS.values()].map((act) => [act.type, act] as const))("%s", async (_, act) => {
  const made = someSoundInputs(act, { known: demo.known, most: INPUTS });
  const inputs = act.type === "person.own-pin" ? made.map(() => ({ next: PIN })) : made;
  expect(inputs).toHaveLength(INPUTS);
  const before = stateOf(demo.site.db);
  const wrong: unknown[] = [];
  const expected = async (who: Role | "nobody", pins: Pins, input: unknown, code: string) => {
    const said = await tried(who, act, input, pins);
    if (said !== code) wrong.push({ who, pins, said, code });
  };
  for (const input of inputs) {
    for (const who of [...ROLES, "nobody"] as const) {
      if (!mayNot(act, who)) continue;
      for (const pins of PINS) await expected(who, pins, input, "not yours to do");
    }
    if (act.pin) {
      for (const who of allowed(act)) {
        await expected(who, "wrong", input, "wrong pin");
        await expected(who, "none", input, "pin missing");
        await expected(who, "shut out", input, "wrong pin");
      }
    }
  }
  expect(wrong).toEqual([]);
  expect(stateOf(demo.site.db)).toEqual(before);
  // Signed as it should be, and where nothing is to be signed however it comes, it is judged on what it asks: an answer, no fault.
  const unsigned = ["pin missing", "bad input", ...(act.signers ? [] : ["wrong pin"])];
  for (const input of inputs) {
    for (const who of allowed(act)) {
      for (const pins of act.pin ? (["right"] as const) : PINS) {
        expect(unsigned).not.toContain(await tried(who, act, input, pins));
      }
    }
  }
});

test("the record of all that is whole", () => {
  expect(verifyLedger(demo.site.db.$client, demo.site.headFile)).toMatchObject({ ok: true, stateKnown: true });
});

test("and the ledger of it, played again on an empty database, comes to the same", async () => {
  const again = new TestSite("again.db");
  try {
    expect(await replay(demo.site.db, again.db)).toBe(ledgerHead(demo.site.db).hash);
  } finally {
    again.close();
  }
});
