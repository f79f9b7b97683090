import { cache } from "react";

/** Something changed that open screens show. What people must be told at once is read from the ledger: see alarms. */
export type Happening = Readonly<{
  /** An alarm is told by the ledger's row; by itself it comes here only where no row could be written. */
  kind: "act" | "permit" | "instrument" | "alarm";
  subject: string;
  /** Numbers of the job, permit or isolation whose pages show it. */
  about: readonly string[];
  /** The page that did it, by the name it gave itself; it has looked already. */
  page?: string | null;
}>;

type Listener = (happening: Happening) => void;

/** One bus for the whole process: routes and pages are bundled apart and share nothing else. */
const bus = globalThis as {
  heavyLanternListeners?: Set<Listener>;
  heavyLanternTold?: number;
  /** In a reader: the mark of the process that tells, as it stood when it last handed a request over. */
  heavyLanternToldThere?: string;
};
/** Of this process, and no other: what another one told is not counted on. */
const process_ms = Math.round(performance.timeOrigin);

function listeners(): Set<Listener> {
  return (bus.heavyLanternListeners ??= new Set());
}

/** Tells every open screen. Called after the transaction that made it true. */
export function announce(happening: Happening): void {
  bus.heavyLanternTold = (bus.heavyLanternTold ?? 0) + 1;
  for (const listener of listeners()) listener(happening);
}

/** Listens until the function that it gives back is called. */
export function onHappening(listener: Listener): () => void {
  listeners().add(listener);
  return () => listeners().delete(listener);
}

/**
 * How much has been told so far. A page that was drawn at one mark and opens its line at another has missed something
 * between the two, and looks again.
 */
export function toldSoFar(): string {
  return bus.heavyLanternToldThere ?? `${process_ms}.${bus.heavyLanternTold ?? 0}`;
}

/** What had been told when this request began to read: whoever is asked for first, the mark is never later than what is shown. */
export const drawnAfter = cache(() => toldSoFar());
