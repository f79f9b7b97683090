"use client";

import { readNumber } from "../../core/units/readNumber";

/**
 * What somebody has typed into a form and not sent yet, kept on this device: a refusal, a session that ended or a server
 * that was restarted costs nobody their words. Never a PIN or a password, never a file. A figure with a unit is kept in
 * SI, for it may be another unit that the field asks for when it comes back.
 */

const PREFIX = "lantern typed ";

type Typed = Readonly<Record<string, readonly string[]>>;
type Element = HTMLInputElement | HTMLTextAreaElement | HTMLSelectElement;

export function typedKey(path: string, label: string): string {
  return `${PREFIX}${path} ${label}`;
}

function fields(form: HTMLFormElement): Element[] {
  return [...form.elements].filter(
    (one): one is Element =>
      (one instanceof HTMLInputElement || one instanceof HTMLTextAreaElement || one instanceof HTMLSelectElement) &&
      one.name !== "" &&
      !["password", "file", "hidden"].includes(one.type),
  );
}

const isTicked = (one: Element): one is HTMLInputElement =>
  one instanceof HTMLInputElement && (one.type === "checkbox" || one.type === "radio");

/** A figure in SI, or back in the field's unit; what is no figure stays as it was typed. */
function scaled(one: Element, text: string, way: "keep" | "restore"): string {
  const scale = Number(one.dataset.scale ?? 1);
  const read = readNumber(text);
  if (scale === 1 || !read.ok) return text;
  return String(Number((way === "keep" ? read.value * scale : read.value / scale).toPrecision(12)));
}

export function keepTyped(key: string, form: HTMLFormElement): void {
  const typed: Record<string, string[]> = {};
  for (const one of fields(form)) {
    if (isTicked(one)) typed[one.name] = [...(typed[one.name] ?? []), ...(one.checked ? [one.value] : [])];
    else typed[one.name] = [...(typed[one.name] ?? []), scaled(one, one.value, "keep")];
  }
  try {
    localStorage.setItem(key, JSON.stringify(typed));
  } catch {
    // Private windows and full disks: what is on the screen is still there.
  }
}

export function forgetTyped(key: string): void {
  try {
    localStorage.removeItem(key);
  } catch {
    // As above.
  }
}

/** Puts kept words back into their fields; whether there were any that differ from what the form says by itself. */
export function restoreTyped(key: string, form: HTMLFormElement): boolean {
  let typed: Typed;
  try {
    typed = JSON.parse(localStorage.getItem(key) ?? "null") as Typed;
  } catch {
    return false;
  }
  if (typed === null || typeof typed !== "object") return false;
  const used = new Map<string, number>();
  let changed = false;
  for (const one of fields(form)) {
    const values = typed[one.name];
    if (values === undefined) continue;
    if (isTicked(one)) {
      const wanted = values.includes(one.value);
      if (one.checked !== wanted) {
        one.checked = wanted;
        changed = true;
      }
      continue;
    }
    const at = used.get(one.name) ?? 0;
    used.set(one.name, at + 1);
    const kept = values[at];
    if (kept === undefined || kept === scaled(one, one.value, "keep")) continue;
    const value = scaled(one, kept, "restore");
    setValue(one, value);
    changed = true;
  }
  // Filling a field is heard as typing, while others were still empty: what is kept is what is there now.
  if (changed) keepTyped(key, form);
  return changed;
}

/** As if it had been typed, so that a field which React keeps hears of it too. */
function setValue(one: Element, value: string): void {
  const proto = Object.getPrototypeOf(one) as object;
  Object.getOwnPropertyDescriptor(proto, "value")?.set?.call(one, value);
  one.dispatchEvent(new Event(one instanceof HTMLSelectElement ? "change" : "input", { bubbles: true }));
}
