/** What each state of a permit is called on screen and on paper; the record keeps its own words. */
const WORDS: Readonly<Record<string, string>> = {
  live: "active",
  "run out": "expired",
  watching: "post-work fire watch",
  "work done": "work complete",
};

export function permitState(state: string): string {
  return WORDS[state] ?? state;
}
