import { ROLES } from "../../src/core/people/roles";
import { ACTS } from "../../src/server/acts/acts";
import { failedAttempts } from "../../src/server/db/schema";
import { verifyLedger } from "../../src/server/ledger/verify";
import { ATTACK_MS, IS_ATTACK } from "../support/attack";
import { DemoForAll } from "../support/demoSite";
import { someSoundInputs } from "../support/soundInput";
import { PIN } from "../support/testSite";

/**
 * Every field of every act with what breaks programs: each is taken as the letters it is, or refused by its name; nothing of
 * it ends in a fault, and the record stays whole. The acts are sent by somebody who may do all of them.
 */
jest.setTimeout(ATTACK_MS);

const INPUTS = IS_ATTACK ? 60 : 1;
/** No text: whatever the field, it is refused, and named. */
const NO_TEXT = {
  "half a letter": "L-\ud800",
  "a control character": "L-\u0007",
  nothing: "\u0000",
  "a megabyte": "x".repeat(1_000_000),
};
/** Letters like any others. */
const TEXT = {
  "a script": "<img src=x onerror=alert(1)><script>alert(1)</script>",
  "a question to a database": "'; DROP TABLE ledger; --",
  "a name of the language": "__proto__",
  "a template": "${7*7}{{7*7}}%s%n",
  "a way out of a folder": "../../../../etc/passwd",
  "written from right to left": "\u202egnirts\u202c",
  "an emoji": "👩🏽‍🔧".repeat(5),
  "spaces only": " ".repeat(30),
};

const demo = new DemoForAll({
  signIn: "all",
  roles: ROLES,
  competences: ["electrical", "mechanical", "process"],
});

type Path = readonly (string | number)[];

/** Where texts stand in an input. */
function textsIn(value: unknown, path: Path = []): Path[] {
  if (typeof value === "string") return [path];
  if (Array.isArray(value)) return value.flatMap((one, i) => textsIn(one, [...path, i]));
  if (value === null || typeof value !== "object") return [];
  return Object.entries(value).flatMap(([key, one]) => textsIn(one, [...path, key]));
}

function put(value: unknown, [at, ...rest]: Path, text: string): unknown {
  if (at === undefined) return text;
  const copy = (Array.isArray(value) ? [...(value as unknown[])] : { ...(value as object) }) as Record<string, unknown>;
  copy[at] = put(copy[at], rest, text);
  return copy;
}

let turn = 0;
/** All of them, or in the usual run a few for each field, in turn. */
const some = (of: Readonly<Record<string, string>>, n: number) => {
  const all = Object.entries(of);
  return IS_ATTACK ? all : Array.from({ length: n }, () => all[turn++ % all.length]!);
};

const done = new Map<string, number>();
async function said(type: string, input: unknown) {
  demo.site.db.delete(failedAttempts).run();
  const answer = await demo.site.act("all", type, input);
  done.set(answer.ok ? "done" : answer.code, (done.get(answer.ok ? "done" : answer.code) ?? 0) + 1);
  return answer;
}

const OWN_SECRET = new Set(["person.own-pin", "person.own-password"]);
const sound = (type: string, most: number, seed: number) =>
  someSoundInputs(ACTS.get(type)!, { known: demo.known, most, seed }).map((input) =>
    type === "person.own-pin" ? { next: PIN } : input,
  );

test.each([...ACTS.keys()])("%s: any input that its schema takes gets an answer", async (type) => {
  for (const input of sound(type, INPUTS, 7)) {
    const answer = await said(type, input);
    expect(answer.ok || answer.sentence.length > 10).toBe(true);
  }
});

test.each([...ACTS.values()].map((act) => [act.type, act.isLarge === true] as const))(
  "%s: what is no text is refused by its field, what is text breaks nothing",
  async (type, isLarge) => {
    const [input] = sound(type, 1, 3);
    for (const path of textsIn(input)) {
      for (const [what, text] of some(NO_TEXT, 1)) {
        const answer = await said(type, put(input, path, text));
        // A register's files are read as they are, and refused by what stands in them.
        if (isLarge) expect(answer.ok).toBe(false);
        else expect({ what, path, answer }).toMatchObject({ answer: { code: "bad input", field: path.join(".") } });
      }
      if (OWN_SECRET.has(type)) continue;
      for (const [, text] of some(TEXT, 2)) await said(type, put(input, path, text));
    }
  },
);

test("some was done, some refused for what it asked, and the record of all that is whole", () => {
  expect(done.get("done")).toBeGreaterThan(50);
  expect(done.get("bad input")).toBeGreaterThan(300);
  expect(done.get("unknown")).toBeGreaterThan(50);
  expect(verifyLedger(demo.site.db.$client, demo.site.headFile)).toMatchObject({ ok: true, stateKnown: true });
  expect(demo.site.db.$client.pragma("foreign_key_check")).toEqual([]);
});
