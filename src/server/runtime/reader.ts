/**
 * Two processes may serve one site: one that signs, stops, watches and tells, and a reader that only draws pages. What the
 * reader cannot do it leaves to the other one.
 */
export function isReader(): boolean {
  return process.env.LANTERN_READER === "1";
}

type Ear = (session: string) => void;
const holder = globalThis as { heavyLanternSessionSeen?: Ear };

/** In the process that writes: what is done when the reader says that a session was used. */
export function onSessionSeen(ear: Ear): void {
  holder.heavyLanternSessionSeen = ear;
}

/** In the reader: says so to the process that writes. */
export function tellSessionSeen(session: string): void {
  process.send?.({ seen: session });
}
