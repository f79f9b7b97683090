import type { Refusal } from "./refusal";

/** What a decision answers: the new facts, or the reason why not. */
export type Result<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly refusal: Refusal };

export function accept<T>(value: T): Result<T> {
  return { ok: true, value };
}

export function refuse(refusal: Refusal): { ok: false; refusal: Refusal } {
  return { ok: false, refusal };
}
