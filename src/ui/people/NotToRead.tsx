import type { Reading } from "@/core/people/mayRead";
import { whoReads } from "@/core/words/en/reading";

/** In place of a page that is not this person's to read. */
export function NotToRead({ what, head }: Readonly<{ what: Reading; head: string }>) {
  return (
    <div className="max-w-prose px-4 py-4 md:px-5">
      <h1 className="text-2xl font-semibold tracking-tight">{head}</h1>
      <p className="mt-2">{whoReads(what)}</p>
    </div>
  );
}
