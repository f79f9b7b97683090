/** The row of the ledger that this tab last heard of: a page that is loaded anew asks from there, and misses no alarm. */
const KEY = "lantern heard";

export function heardBefore(): string | null {
  try {
    return sessionStorage.getItem(KEY);
  } catch {
    return null;
  }
}

/** Null where the event carried no number. */
export function rememberHeard(id: string): string | null {
  if (id === "") return null;
  try {
    sessionStorage.setItem(KEY, id);
  } catch {
    // Private windows: this page remembers, the next one begins anew.
  }
  return id;
}
