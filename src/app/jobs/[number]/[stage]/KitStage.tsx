import { Link } from "@/ui/text/Link";
import { kitOf, setupOf, type KitLine } from "@/server/figures/dayView";
import { type JobView } from "@/server/job/jobView";
import { planOf } from "@/server/job/plans";
import { Tags } from "@/ui/text/Tags";
import { WideTable } from "@/ui/text/WideTable";

/** What has to be brought, against what the store has and what other jobs have out. */
export async function KitStage({ view }: { view: JobView }) {
  const lines = kitOf(view, await planOf(view, "work"), setupOf(view));
  const short = lines.filter((line) => line.short !== null && line.short > 0);
  const uncounted = lines.filter((line) => line.inStore === null);
  return (
    <div className="space-y-5">
      <p className="max-w-prose">
        {short.length === 0 ? (
          uncounted.length === 0 ? (
            "The store has everything."
          ) : (
            "Nothing that was counted is short."
          )
        ) : (
          <strong>
            Short of{" "}
            {short.map((line) => `${line.short} × ${line.thing}${line.size ? ` ${line.size}` : ""}`).join("; ")}.
          </strong>
        )}{" "}
        {uncounted.length > 0 &&
          `Nobody has counted ${uncounted.length} of the ${lines.length} things: look before you walk out.`}{" "}
        <Link href="/store" className="link">
          Count the store
        </Link>
      </p>
      <WideTable label="Pick list">
        <table className="table max-w-6xl">
          <thead>
            <tr>
              <th className="text-right">Bring</th>
              <th>Thing</th>
              <th>Size</th>
              <th className="text-right">In the store</th>
              <th>Out elsewhere</th>
              <th>For</th>
            </tr>
          </thead>
          <tbody>
            {lines.map((line) => (
              <tr key={`${line.thing} ${line.size}`}>
                <td className="num text-right text-lg font-semibold">{line.count}</td>
                <td>{line.thing}</td>
                <td className={line.size.includes("not in the register") ? "font-semibold" : ""}>{line.size || "–"}</td>
                <td className="text-right">
                  <InStore line={line} />
                </td>
                <td className="num">
                  {line.inUse === 0 ? "none" : `${line.inUse}, ${[...new Set(line.usedBy)].join(", ")}`}
                </td>
                <td className="max-w-80">
                  {line.for.some((what) => what.includes(" ")) ? (
                    line.for.join(", ")
                  ) : (
                    <Tags tags={line.for} most={6} />
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </WideTable>
      <p className="max-w-prose text-sm opacity-85">
        Made from the plan, the register and the set-up of the job. Bolts by ASME B16.5 and EN 1092-1, from memory:
        count them on the flange.
      </p>
    </div>
  );
}

function InStore({ line }: { line: KitLine }) {
  if (line.inStore === null) return <>not counted</>;
  return (
    <>
      <span className="num">{line.inStore}</span>
      {line.short !== null && line.short > 0 && <strong className="num block">{line.short} short</strong>}
    </>
  );
}
