"use client";

import { useSyncExternalStore } from "react";
import { keptActs, noneOnServer, noneSent, onKeptActs, sentSteps } from "./keptActs";

export function useKeptActs() {
  return useSyncExternalStore(onKeptActs, keptActs, noneOnServer);
}

/** Steps that were sent a moment ago and are not shown as done yet. */
export function useSentSteps(): ReadonlySet<string> {
  return useSyncExternalStore(onKeptActs, sentSteps, noneSent);
}

/** Does the browser think it has a network? It may be wrong; an act that does not arrive is kept all the same. */
export function useOnline(): boolean {
  return useSyncExternalStore(
    (tell) => {
      window.addEventListener("online", tell);
      window.addEventListener("offline", tell);
      return () => {
        window.removeEventListener("online", tell);
        window.removeEventListener("offline", tell);
      };
    },
    () => navigator.onLine,
    () => true,
  );
}
