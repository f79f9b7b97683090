import { spawnSync } from "node:child_process";
import { join } from "node:path";
import { isGiven } from "../../src/core/access/access";
import { ACTS } from "../../src/server/acts/acts";
import { openApi } from "../../src/server/acts/openApi";

/** The description of the interface, by the published schema of OpenAPI 3.1 and by what the acts themselves read. */

type Document = Readonly<{ paths: Readonly<Record<string, Readonly<{ post?: Operation; get?: Operation }>>> }>;
type Operation = Readonly<{
  operationId: string;
  requestBody?: Readonly<{ content: Readonly<Record<string, Readonly<{ schema: object }>>> }>;
}>;
const made = openApi("https://lantern.example") as Document;

/** By validators of the registry: of OpenAPI 3.1 by its published schema, of JSON Schema 2020-12 by ajv. */
function checked(description: object) {
  const program = join(__dirname, "../support/openApiCheck.mjs");
  const done = spawnSync("node", [program], { input: JSON.stringify(description), encoding: "utf8" });
  if (done.status !== 0) throw new Error(done.stderr);
  return JSON.parse(done.stdout) as Readonly<{ valid: boolean; errors?: unknown; lax: readonly string[] }>;
}

test("it is what the published schema says such a description is, and every schema in it compiles and lets nothing else through", () => {
  expect(checked(made)).toEqual({ valid: true, lax: [] });
  const broken = { ...made, paths: { "/x": { post: { operationId: 3 } } } };
  expect(checked(broken).valid).toBe(false);
});

test("every act that programs are given is in it, once, and no other", () => {
  const operations = Object.values(made.paths).flatMap(({ post, get }) =>
    [post, get].filter((one) => one !== undefined),
  );
  const ids = operations.map(({ operationId }) => operationId);
  expect(new Set(ids).size).toBe(ids.length);
  const acts = operations.filter(({ requestBody }) => requestBody).map(({ operationId }) => operationId);
  expect([...acts].sort()).toEqual([...ACTS.keys()].filter(isGiven).sort());
  expect(acts.filter((type) => /^(person|access|clock|crew|instrument)\./.test(type))).toEqual([]);
});
