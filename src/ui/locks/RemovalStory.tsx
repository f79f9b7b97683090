import { dayAndClock } from "../text/when";

type Told = Readonly<{ did: string; by: string; at_ms: number; words: string }>;

/** What was done about a lock that was left on: who, when, and in their words. */
export function RemovalStory({ story, timeZone }: { story: readonly Told[]; timeZone: string }) {
  return (
    <ol className="border-base-300 border-l-2 pl-4">
      {story.map((one) => (
        <li key={`${one.did}${one.at_ms}`} className="py-1">
          <span className="num">{dayAndClock(one.at_ms, timeZone)}</span>, {one.by} {one.did}
          {one.words !== "" && <q className="block">{one.words}</q>}
        </li>
      ))}
    </ol>
  );
}
