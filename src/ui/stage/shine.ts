import { useSyncExternalStore } from "react";

/** What shines in the drawing because somebody touched its row, or the device whose row stands open: one at a time. */
export type Shine = Readonly<{ via: readonly string[]; device: string | null }>;

const NOTHING: Shine = { via: [], device: null };
let now: Shine = NOTHING;
const listeners = new Set<() => void>();

export function shine(next: Shine | null): void {
  now = next ?? NOTHING;
  for (const listener of listeners) listener();
}

export function useShine(): Shine {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => now,
    () => NOTHING,
  );
}
