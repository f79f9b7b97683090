import { holds, type OnNewPlant } from "@/core/plan/onNewPlant";
import { Tags } from "@/ui/text/Tags";

const MOST_WAYS = 6;

/** The register changed under a standing isolation; where its points no longer do what was approved it is an alarm. */
export function Stale({ stale, revision }: { stale: OnNewPlant; revision: number }) {
  const isAlarm = !holds(stale);
  return (
    <section role={isAlarm ? "alert" : undefined} className="border-error bg-error/10 max-w-4xl border-l-4 px-4 py-3">
      <h2 className="text-lg font-semibold">
        {isAlarm ? "Stop: on the plant as it is now, these points no longer hold" : "The plant changed since this plan"}
      </h2>
      <p>
        The register is at revision <span className="num">{revision}</span>.
      </p>
      <Differences stale={stale} />
      <p className="mt-2">
        {isAlarm
          ? "Get everybody off, then plan again on the new register."
          : "The points still hold. Field-verify what changed before relying on them."}
      </p>
    </section>
  );
}

/** What differs from the plant that a plan was made on, and what its points no longer do. */
export function Differences({ stale }: { stale: OnNewPlant }) {
  const { change, missingFaces, lostPoints, short } = stale;
  const isChanged = change.added.length + change.removed.length + change.changed.length > 0;
  return (
    <>
      <p>
        {!isChanged && "Nothing near this plan changed. "}
        {change.added.length > 0 && (
          <>
            New: <Tags tags={change.added} />.{" "}
          </>
        )}
        {change.removed.length > 0 && (
          <>
            Gone: <Tags tags={change.removed} />.{" "}
          </>
        )}
        {change.changed.length > 0 && (
          <>
            Changed: <Tags tags={change.changed} />.
          </>
        )}
      </p>
      {missingFaces.length > 0 && (
        <p className="mt-2">
          The register no longer has <Tags tags={missingFaces} />, where the work is: nothing can be said of it.
        </p>
      )}
      {lostPoints.length > 0 && (
        <p className="mt-2">
          No barrier any more: <Tags tags={lostPoints} />.
        </p>
      )}
      {short.length > 0 && (
        <ul className="mt-2">
          {short.slice(0, MOST_WAYS).map((route) => (
            <li key={`${route.face}${route.source}${route.carrier}`}>
              <span className="tag">{route.source}</span>{" "}
              {route.depth === 0 ? (
                <>
                  now reaches <strong className="tag">{route.face}</strong> as {route.arrives}:{" "}
                  <span className="tag whitespace-normal">{route.via.join(" › ")}</span>
                </>
              ) : (
                <>
                  to <strong className="tag">{route.face}</strong>: {route.grade}
                  {route.requiredGrade !== null && `, ${route.requiredGrade} is asked`}
                </>
              )}
            </li>
          ))}
          {short.length > MOST_WAYS && <li>and {short.length - MOST_WAYS} more</li>}
        </ul>
      )}
    </>
  );
}
