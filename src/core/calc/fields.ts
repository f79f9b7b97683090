import { z } from "zod";
import { figure } from "../units/format";
import type { Quantity, UnitSystem } from "../units/units";

/**
 * What a calculator asks for. The command line, the page and the attach act all read the same description, so that
 * one refuses what the others refuse.
 */
export type NumberField = Readonly<{
  type: "number";
  words: string;
  quantity: Quantity;
  /** Bounds in SI. `above` excludes the bound itself. */
  above?: number;
  min?: number;
  max: number;
  whole?: boolean;
  default?: number;
  optional?: boolean;
  /** What the page fills in when it is opened without figures. An example, never a default of the sum. */
  example?: number;
  hint?: string;
}>;
export type ChoiceField<C extends string = string> = Readonly<{
  type: "choice";
  words: string;
  choices: readonly C[];
  default: C;
  hint?: string;
}>;
export type RowsField<F extends Readonly<Record<string, NumberField>> = Readonly<Record<string, NumberField>>> =
  Readonly<{
    type: "rows";
    words: string;
    columns: F;
    most: number;
    example: readonly Readonly<Record<string, number>>[];
  }>;
export type Field = NumberField | ChoiceField | RowsField;
export type Fields = Readonly<Record<string, Field>>;

type ValueOf<F extends Field> = F extends { type: "number"; optional: true }
  ? number | undefined
  : F extends NumberField
    ? number
    : F extends ChoiceField<infer C>
      ? C
      : F extends RowsField<infer Columns>
        ? readonly Readonly<Record<keyof Columns, number>>[]
        : never;
/** The figures of a calculator once its schema has passed them. */
export type Inputs<F extends Fields> = { readonly [K in keyof F]: ValueOf<F[K]> };

type Bounds = Omit<NumberField, "type" | "words" | "quantity" | "max"> & { max?: number };

/** No field takes more than this without saying so: 10⁹ typed by a leaning elbow is refused. */
const MOST = 1e8;

/** A figure that may be left out says so in its type. */
type Made<B extends Bounds> = NumberField & (B extends { optional: true } ? { readonly optional: true } : unknown);

export function number<const B extends Bounds>(words: string, quantity: Quantity, bounds: B): Made<B> {
  return { type: "number", words, quantity, max: MOST, ...(bounds as Bounds) } as Made<B>;
}
/** A size: above nothing. */
export function size<const B extends Bounds>(words: string, quantity: Quantity, bounds: B): Made<B> {
  return number(words, quantity, { above: 0, ...bounds });
}
export function choice<const C extends string>(words: string, choices: readonly [C, ...C[]], hint?: string) {
  return { type: "choice", words, choices, default: choices[0], hint } as const satisfies ChoiceField<C>;
}

/** A figure nearer to nothing than this, in SI, is a slip: a thousandth of a picofarad, less than an atom across. */
const TINY = 1e-15;

const plain = (value: number) =>
  Math.abs(value) >= 1e-4 && Math.abs(value) < 1e7 ? String(value) : value === 0 ? "0" : value.toExponential();

/**
 * What is wrong with a figure, in words; null when nothing is. Bounds are said in the person's unit, or in SI where
 * there is none: on the command line.
 */
export function faultIn(field: NumberField, value_SI: number, system?: UnitSystem): string | null {
  const said = (bound: number) => (system === undefined ? plain(bound) : figure(bound, field.quantity, system));
  if (!Number.isFinite(value_SI)) return "must be a number";
  if (field.above !== undefined && value_SI <= field.above) return `must be above ${said(field.above)}`;
  if ((field.above === 0 || field.min === 0) && value_SI !== 0 && Math.abs(value_SI) < TINY)
    return "is too small to be meant";
  if (field.min !== undefined && value_SI < field.min) return `must be at least ${said(field.min)}`;
  if (value_SI > field.max) return `must be at most ${said(field.max)}`;
  if (field.whole && !Number.isInteger(value_SI)) return "must be a whole number";
  return null;
}

function numberSchema(field: NumberField): z.ZodType<number | undefined> {
  const schema = z
    .number({ error: (issue) => (issue.input === undefined ? "is missing" : "must be a number") })
    .superRefine((value, context) => {
      const fault = faultIn(field, value);
      if (fault !== null) context.addIssue({ code: "custom", message: fault });
    });
  if (field.default !== undefined) return schema.default(field.default);
  return field.optional ? schema.optional() : schema;
}

function fieldSchema(field: Field): z.ZodType {
  switch (field.type) {
    case "number":
      return numberSchema(field);
    case "choice":
      return z
        .enum(field.choices as [string, ...string[]], { error: `must be ${listed(field.choices)}` })
        .default(field.default);
    case "rows":
      return z
        .array(z.strictObject(shapeOf(field.columns), { error: "must be an object of figures" }), {
          error: "must be a list",
        })
        .min(1, "must not be empty")
        .max(field.most, `must have at most ${field.most} rows`);
  }
}

function shapeOf(fields: Fields): Record<string, z.ZodType> {
  return Object.fromEntries(Object.entries(fields).map(([key, field]) => [key, fieldSchema(field)]));
}

/** The schema of a calculator's inputs. Keys that it does not have are refused: a slip in a name must not be ignored. */
export function schemaOf(fields: Fields): z.ZodType<Record<string, unknown>> {
  const keys = Object.keys(fields);
  return z.strictObject(shapeOf(fields), {
    error: (issue) =>
      issue.code === "unrecognized_keys"
        ? `${(issue.keys as string[]).join(", ")}: not known here; the keys are ${keys.join(", ")}`
        : `the input must be an object with ${keys.join(", ")}`,
  });
}

function listed(words: readonly string[]): string {
  return words.length < 2 ? words.join("") : `${words.slice(0, -1).join(", ")} or ${words.at(-1)}`;
}
