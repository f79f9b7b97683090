// Reads a description of an interface and says whether it is what the published schema of OpenAPI says, and which of its
// bodies' schemas compile and let through what they should not. A program of its own: the validators are modules of the newer kind.
import { createRequire } from "node:module";
import { text } from "node:stream/consumers";
import { Validator } from "@seriousme/openapi-schema-validator";

const beside = createRequire(import.meta.resolve("@seriousme/openapi-schema-validator"));
const Ajv = beside("ajv/dist/2020.js").default;
const description = JSON.parse(await text(process.stdin));
const { valid, errors } = await new Validator().validate(description);
const ajv = new Ajv({ strict: false, validateFormats: false });
const lax = [];
for (const [path, { post }] of Object.entries(description.paths)) {
  const schema = post?.requestBody?.content["application/json"].schema;
  if (schema === undefined) continue;
  const check = ajv.compile(schema);
  if (check("no object") || check({ input: {} })) lax.push(path);
}
process.stdout.write(JSON.stringify({ valid, errors, lax }));
