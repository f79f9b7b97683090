import type { Staleness } from "@/server/job/plans";
import { Tags } from "@/ui/text/Tags";

/** The register changed near a standing isolation; what it would light on today's plant is an alarm. */
export function Stale({ stale, revision }: { stale: Staleness; revision: number }) {
  const { change, lit, short } = stale;
  const alarm = lit.length > 0 || short.length > 0;
  return (
    <section role={alarm ? "alert" : undefined} className="border-error bg-error/10 max-w-4xl border-l-4 px-4 py-3">
      <h2 className="text-lg font-semibold">
        {alarm ? "Stop: on the plant as it is now, these points no longer hold" : "The plant changed near this plan"}
      </h2>
      <p>
        The register is at revision <span className="num">{revision}</span>.{" "}
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
      {lit.length > 0 && (
        <ul className="mt-2">
          {lit.slice(0, 6).map((row) => (
            <li key={`${row.face}${row.source}${row.arrives}`}>
              <span className="tag">{row.source}</span> now reaches <strong className="tag">{row.face}</strong> as{" "}
              {row.arrives}: <span className="tag whitespace-normal">{row.via.join(" › ")}</span>
            </li>
          ))}
        </ul>
      )}
      {lit.length === 0 && short.length > 0 && (
        <p className="mt-2">
          Fewer barriers than approved against <Tags tags={[...new Set(short.map((route) => route.source))]} />.
        </p>
      )}
      <p className="mt-2">
        {alarm
          ? "Get everybody off, then plan again on the new register."
          : "The points still hold. Walk what changed before relying on them."}
      </p>
    </section>
  );
}
