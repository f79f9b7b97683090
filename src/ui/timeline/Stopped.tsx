import type { Timeline } from "../../core/schedule/timeline";

/** Most of what stands against a start are of a kind: three by name, the rest by number. */
const NAMED = 3;

/** Why work may not start however long people wait; nothing where nothing stands against it. */
export function Stopped({ timeline: { stoppedBy, endless, tooFew } }: { timeline: Timeline }) {
  const more = stoppedBy.length - NAMED;
  return (
    <>
      {stoppedBy.length > 0 && (
        <>
          Nobody has answered for {stoppedBy.length === 1 ? "one way that is" : `${stoppedBy.length} ways that are`}{" "}
          held worse than asked: {stoppedBy.slice(0, NAMED).join("; ")}
          {more > 0 && `; and ${more} more, on Points`}.{" "}
        </>
      )}
      {endless.length > 0 && `No sum gives an end to ${endless.join("; ")}. A person decides. `}
      {tooFew.length > 0 && `Too few instruments: ${tooFew.join("; ")}. `}
    </>
  );
}
