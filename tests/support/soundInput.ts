import fc from "fast-check";
import { z } from "zod";
import type { Act } from "../../src/server/act/act";

/** What of JSON Schema the acts' inputs use. */
type Shape = Readonly<{
  type?: string | readonly string[];
  const?: unknown;
  enum?: readonly unknown[];
  anyOf?: readonly Shape[];
  oneOf?: readonly Shape[];
  allOf?: readonly Shape[];
  properties?: Readonly<Record<string, Shape>>;
  required?: readonly string[];
  additionalProperties?: Shape | boolean;
  propertyNames?: Shape;
  items?: Shape;
  minItems?: number;
  maxItems?: number;
  minLength?: number;
  maxLength?: number;
  pattern?: string;
  format?: string;
  minimum?: number;
  maximum?: number;
  exclusiveMinimum?: number;
  exclusiveMaximum?: number;
}>;

/** Names that there are, by the field that they belong in: so that an act gets farther than "there is none of that". */
export type Known = Readonly<Record<string, readonly (string | number)[]>>;

const WORDS = ["Looked at.", "V-1", "as asked", "ivo", "L-900", "1", "12.5", "on", ""];

function texts(shape: Shape): fc.Arbitrary<string> {
  if (shape.format === "uuid") return fc.uuid({ version: 4 });
  if (shape.pattern !== undefined) return fc.stringMatching(new RegExp(shape.pattern));
  const [least, most] = [shape.minLength ?? 0, shape.maxLength ?? 200];
  const bounds = { minLength: least, maxLength: Math.min(most, least + 40) };
  const letters = fc.string({ ...bounds, unit: fc.constantFrom(..."abcdefghij KLMNOP-0123456789.") });
  const fit = WORDS.filter((word) => word.length >= least && word.length <= most);
  if (fit.length === 0) return letters;
  return fc.oneof({ weight: 3, arbitrary: fc.constantFrom(...fit) }, { weight: 1, arbitrary: letters });
}

function numbers({ type, minimum, maximum, exclusiveMinimum, exclusiveMaximum }: Shape): fc.Arbitrary<number> {
  const least = exclusiveMinimum ?? minimum ?? -1e6;
  const most = Math.min(exclusiveMaximum ?? maximum ?? 1e6, Math.max(least + 1e6, 1e6));
  if (type === "integer") return fc.integer({ min: Math.max(Math.ceil(least), -1e6), max: Math.floor(most) });
  return fc.double({
    min: least,
    max: most,
    noNaN: true,
    minExcluded: exclusiveMinimum !== undefined,
    maxExcluded: exclusiveMaximum !== undefined,
  });
}

function objects(shape: Shape, known: Known): fc.Arbitrary<unknown> {
  const rest = typeof shape.additionalProperties === "object" ? shape.additionalProperties : {};
  const named = { ...Object.fromEntries((shape.required ?? []).map((key) => [key, rest])), ...shape.properties };
  const fields = Object.entries(named).map(([key, of]) => [key, values(of, known, key)] as const);
  const fixed = fc.record(Object.fromEntries(fields), { requiredKeys: [...(shape.required ?? [])] });
  if (typeof shape.additionalProperties !== "object") return fixed;
  const keys = shape.propertyNames
    ? (values(shape.propertyNames, known, "") as fc.Arbitrary<string>)
    : texts({ minLength: 1 });
  const others = fc.dictionary(keys, values(shape.additionalProperties, known, ""), { maxKeys: 5 });
  return fc.tuple(fixed, others).map(([some, more]) => ({ ...more, ...some }));
}

function values(shape: Shape, known: Known, field: string): fc.Arbitrary<unknown> {
  const named = known[field];
  const made = valuesOf(shape, known, field);
  const isText = shape.type === "string" || shape.type === "integer";
  return named && isText && named.length > 0
    ? fc.oneof({ weight: 4, arbitrary: fc.constantFrom<string | number>(...named) }, { weight: 1, arbitrary: made })
    : made;
}

function valuesOf(shape: Shape, known: Known, field: string): fc.Arbitrary<unknown> {
  if ("const" in shape) return fc.constant(shape.const);
  if (shape.enum) return fc.constantFrom(...shape.enum);
  const any = shape.anyOf ?? shape.oneOf;
  if (any) return fc.oneof(...any.map((one) => values(one, known, field)));
  if (shape.allOf) return values(Object.assign({}, ...shape.allOf) as Shape, known, field);
  const types = typeof shape.type === "string" ? [shape.type] : (shape.type ?? []);
  if (types.length > 1) return fc.oneof(...types.map((type) => valuesOf({ ...shape, type }, known, field)));
  switch (types[0]) {
    case "string":
      return texts(shape);
    case "number":
    case "integer":
      return numbers(shape);
    case "boolean":
      return fc.boolean();
    case "null":
      return fc.constant(null);
    case "array":
      return fc.array(values(shape.items ?? {}, known, field), {
        minLength: shape.minItems ?? 0,
        maxLength: Math.min(shape.maxItems ?? 3, (shape.minItems ?? 0) + 2),
      });
    case "object":
      return objects(shape, known);
    default:
      return fc.constantFrom(...WORDS);
  }
}

/** Inputs of an act that its own schema takes, made from that schema: nobody has to write them, and no field is left out. */
export function soundInputs(act: Pick<Act, "input">, known: Known = {}): fc.Arbitrary<unknown> {
  const shape = z.toJSONSchema(act.input, { io: "input", unrepresentable: "any" }) as Shape;
  return values(shape, known, "");
}

/** Some that the schema takes, of `tries`: what refines it further is known to the schema only. */
export function someSoundInputs(
  act: Pick<Act, "input">,
  {
    known = {},
    tries = 200,
    most = 1,
    seed = 1,
  }: Readonly<{ known?: Known; tries?: number; most?: number; seed?: number }>,
): unknown[] {
  return fc
    .sample(soundInputs(act, known), { numRuns: tries, seed })
    .filter((input) => act.input.safeParse(input).success)
    .slice(0, most);
}
