"use client";

import { useSyncExternalStore } from "react";
import { ANSWER_WITHIN_MS, fetchInTime } from "../net/fetchInTime";
import { oneAtATime } from "../net/oneAtATime";
import { mergeAlarms, NOTHING, readKnown, seeAlarms, tellAlarm, type AlarmsKnown, type AlarmsSaid } from "./alarmList";

/** Alarms as this tab knows them. They outlive a page that is loaded anew. */
const KEY = "lantern alarms";
const listeners = new Set<() => void>();
let known: AlarmsKnown | null = null;
let again: ReturnType<typeof setTimeout> | undefined;
/** Asked again so soon where the server did not answer. */
const RETRY_MS = 10_000;

function alarms(): AlarmsKnown {
  if (known === null) {
    try {
      known = readKnown(JSON.parse(sessionStorage.getItem(KEY) ?? "null"));
    } catch {
      known = NOTHING;
    }
  }
  return known;
}

function change(next: AlarmsKnown): void {
  known = next;
  try {
    sessionStorage.setItem(KEY, JSON.stringify(next));
  } catch {
    // Private windows: it stands until this page is left.
  }
  listeners.forEach((tell) => tell());
}

/** Told on the line: shown at once, whatever becomes of the question that follows. */
export function sayAlarm(subject: string): void {
  change(tellAlarm(alarms(), subject));
  void askAlarms();
}

/**
 * What stands, by the server; and again when something becomes more, or is over. Whoever asks while an answer is on its way
 * has another one after it: none comes out of turn, and what happens together is asked for twice at most.
 */
export const askAlarms = oneAtATime(askOnce);

async function askOnce(): Promise<void> {
  clearTimeout(again);
  let again_ms: number | null = RETRY_MS;
  try {
    const response = await fetchInTime("/api/alarms", { cache: "no-store" }, ANSWER_WITHIN_MS.act);
    if (response.ok) {
      const said = (await response.json()) as AlarmsSaid;
      change(mergeAlarms(alarms(), said));
      again_ms = said.again_ms;
    } else if (response.status === 401) again_ms = null;
  } catch {
    // No network: what is known stands, and is asked about again.
  }
  if (again_ms !== null) again = setTimeout(() => void askAlarms(), again_ms);
}

/** Seen on this tab; it comes back when it becomes more. */
export function settleAlarm(key: string): void {
  change(seeAlarms(alarms(), [key]));
}

export function hasAlarms(): boolean {
  return alarms().list.length > 0;
}

export function useAlarms(): AlarmsKnown {
  return useSyncExternalStore(
    (tell) => {
      listeners.add(tell);
      return () => listeners.delete(tell);
    },
    alarms,
    () => NOTHING,
  );
}
