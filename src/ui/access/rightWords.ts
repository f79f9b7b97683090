import type { ReadRight } from "../../core/access/access";

/** What a token reads, as its owner says it. */
export const RIGHT_WORDS: Readonly<Record<ReadRight, string>> = {
  "own calendar": "my calendar",
  "site calendar": "the site's calendar",
  lists: "lists, as tables",
  jobs: "jobs with their steps",
};
