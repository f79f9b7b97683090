"use client";

import { useSyncExternalStore } from "react";

/** Alarms that this tab was told of and nobody has looked at yet. They outlive a page that is loaded anew. */
const KEY = "lantern alarms";
const listeners = new Set<() => void>();
const NONE: readonly string[] = [];
let known: readonly string[] | null = null;

function alarms(): readonly string[] {
  if (known === null) {
    try {
      const kept: unknown = JSON.parse(sessionStorage.getItem(KEY) ?? "[]");
      known = Array.isArray(kept) ? kept.filter((one) => typeof one === "string") : NONE;
    } catch {
      known = NONE;
    }
  }
  return known;
}

function change(next: readonly string[]): void {
  known = next;
  try {
    sessionStorage.setItem(KEY, JSON.stringify(next));
  } catch {
    // Private windows: it stands until this page is left.
  }
  listeners.forEach((tell) => tell());
}

export function sayAlarm(subject: string): void {
  change([...alarms().filter((one) => one !== subject), subject]);
}

export function settleAlarm(subject: string): void {
  change(alarms().filter((one) => one !== subject));
}

export function useAlarms(): readonly string[] {
  return useSyncExternalStore(
    (tell) => {
      listeners.add(tell);
      return () => listeners.delete(tell);
    },
    alarms,
    () => NONE,
  );
}
