import type { z } from "zod";
import { NoFigure, type Calculation } from "./calculation";
import { NotConverged } from "../flow/quadrature";
import type { UnitSystem } from "../units/units";
import { schemaOf, type Fields, type Inputs } from "./fields";

/** What people come to the bench for; the page is ordered by these, never by formula. */
export const TASKS = [
  "Make the air fit to enter",
  "Test the air",
  "Empty and let the pressure go",
  "Wait until it is harmless",
  "Prove it dead",
  "Test with pressure",
  "Work with flame and sparks",
  "Look after people",
  "Lift, pin and hold",
  "Blinds, locks and the day",
] as const;
export type Task = (typeof TASKS)[number];

export type Calculator = Readonly<{
  /** The name on the command line and in the address. */
  name: string;
  task: Task;
  /** The question it answers, as a person asks it. */
  title: string;
  fields: Fields;
  /** Reads the inputs where they are more than figures, choices and rows of figures: then it is not on the page. */
  schema?: z.ZodType<Record<string, unknown>>;
  /** On inputs that its own schema has read, and no others: see `calculate`. */
  compute: (inputs: Readonly<Record<string, unknown>>) => Calculation;
}>;

export function calculator<const F extends Fields>(made: {
  name: string;
  task: Task;
  title: string;
  fields: F;
  schema?: Calculator["schema"];
  /** @throws NoFigure where what is asked never happens or figures contradict each other. */
  compute: (inputs: Inputs<F>) => Calculation;
}): Calculator {
  const { compute, ...rest } = made;
  return { ...rest, compute: (inputs) => compute(inputs as Inputs<F>) };
}

export type Calculated =
  | Readonly<{ ok: true; inputs: Readonly<Record<string, unknown>>; calculation: Calculation }>
  | Readonly<{ ok: false; key: string; message: string }>;

/**
 * Runs a calculator on whatever came in. Answers figures or one fault that names the key; a result that is not finite
 * is a broken promise and thrown.
 */
export function calculate(which: Calculator, raw: unknown, units: UnitSystem = "metric"): Calculated {
  const parsed = (which.schema ?? schemaOf(which.fields)).safeParse(raw);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    const key = (issue?.path ?? []).map((part) => (typeof part === "number" ? part + 1 : String(part))).join(".");
    return { ok: false, key, message: issue?.message ?? "cannot be read" };
  }
  try {
    const calculation = which.compute(parsed.data);
    for (const { key, value } of calculation.results) {
      if (value !== null && !Number.isFinite(value)) throw new Error(`${which.name}: ${key} came out as ${value}`);
    }
    return { ok: true, inputs: parsed.data, calculation };
  } catch (error) {
    if (error instanceof NoFigure) return { ok: false, key: error.key, message: error.why(units) };
    if (error instanceof NotConverged) {
      const [key = ""] = Object.keys(which.fields);
      return { ok: false, key, message: "and the other figures are too far apart to compute with: check their units" };
    }
    throw error;
  }
}

/** The answer of the command line: results by key, then what else the calculator says, then how it came about. */
export function answerOf({ calculation }: Extract<Calculated, { ok: true }>): Record<string, unknown> {
  return {
    ...Object.fromEntries(calculation.results.map(({ key, value }) => [key, value])),
    ...calculation.also,
    governs: calculation.governs,
    ...(calculation.because === undefined ? {} : { because: calculation.because }),
    formula: calculation.formula,
    source: calculation.source,
    validity: calculation.validity,
    warnings: calculation.warnings,
  };
}
