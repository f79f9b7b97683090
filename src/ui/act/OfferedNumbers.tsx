"use client";

import { useSyncExternalStore } from "react";

/**
 * Numbers that can be put into a field by a touch: one's own locks, what this device used last. None is there beforehand:
 * who touches one has it in hand, and the server asks the register all the same.
 */
export function OfferedNumbers({ name, numbers }: { name: string; numbers: readonly string[] }) {
  const shown = [...new Set(numbers)].slice(0, MOST);
  if (shown.length === 0) return null;
  return (
    <span className="flex flex-wrap gap-1">
      {shown.map((number) => (
        <button
          key={number}
          type="button"
          className="border-base-content/40 hover:bg-base-200 tag min-h-11 rounded-sm border border-dashed px-3"
          aria-label={`Put in ${number}`}
          onClick={(event) => putIn(event.currentTarget.form, name, number)}
        >
          {number}
        </button>
      ))}
    </span>
  );
}
const MOST = 4;

/** As if it had been typed, so that a field which React keeps hears of it too. */
export function putIn(form: HTMLFormElement | null, name: string, value: string): void {
  const input = form?.querySelector<HTMLInputElement>(`input[name="${CSS.escape(name)}"]`);
  if (!input) return;
  Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")?.set?.call(input, value);
  input.dispatchEvent(new Event("input", { bubbles: true }));
}

const KEY = "lantern used ";
const listeners = new Set<() => void>();

/** What was used last on this device, newest first. */
export function useLastUsed(what: string): readonly string[] {
  const raw = useSyncExternalStore(
    (tell) => {
      listeners.add(tell);
      return () => listeners.delete(tell);
    },
    () => read(what),
    () => "",
  );
  return raw === "" ? [] : raw.split("\n");
}

/** Remembers what was used, on this device. */
function used(what: string, number: string): void {
  const typed = number.trim();
  if (typed === "") return;
  const before = read(what).split("\n");
  try {
    localStorage.setItem(
      KEY + what,
      [typed, ...before.filter((one) => one !== "" && one !== typed)].slice(0, 2).join("\n"),
    );
  } catch {
    // Private windows and full disks: it is typed again.
  }
  listeners.forEach((tell) => tell());
}

function read(what: string): string {
  try {
    return localStorage.getItem(KEY + what) ?? "";
  } catch {
    return "";
  }
}

/** What a form said was used, for the next time. */
export function rememberUsed(form: HTMLFormElement | null): void {
  for (const input of form?.querySelectorAll<HTMLInputElement>("input[data-used]") ?? []) {
    used(input.dataset.used!, input.value);
  }
}
