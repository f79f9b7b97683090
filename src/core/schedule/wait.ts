import type { SetupKey } from "./setup";

/** A wait that physics decides, as a question to a calculator. Plain data: it can be sent to a worker or an address. */
export type Wait = Readonly<{
  words: string;
  calculator: string;
  /** Inputs from the register, SI. */
  inputs: Readonly<Record<string, number | string>>;
  /** Inputs that the job's set-up gives, by the calculator's key. */
  fromSetup: Readonly<Record<string, SetupKey>>;
  /** Which result is the wait. */
  result: string;
  /** Somebody watches until it is over. */
  attended: boolean;
  /** What the register does not say, with what is taken instead. */
  assumed: readonly string[];
}>;

/** A figure of the register, or the assumed one with a note of it. */
export function given(value: number | null | undefined, instead: number, note: string, assumed: string[]): number {
  if (value !== null && value !== undefined) return value;
  assumed.push(note);
  return instead;
}
