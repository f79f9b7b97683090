import { Link } from "@/ui/text/Link";
import { kitOf, setupOf, type KitLine } from "@/server/figures/dayView";
import { type JobView } from "@/server/job/jobView";
import { planOf } from "@/server/job/plans";
import { Tags } from "@/ui/text/Tags";
import { WideTable } from "@/ui/text/WideTable";

/** Nobody brings what hangs already. */
const OUT: Readonly<Record<string, Readonly<{ words: string; head: string }>>> = {
  proven: { words: "The isolation stands: this is what its plan took there.", head: "Out" },
  testing: { words: "The isolation stands: this is what its plan took there.", head: "Out" },
  restoring: { words: "It is being restored: this is what its plan took there, and comes back.", head: "Bring back" },
  restored: { words: "It is restored: this is what its plan took there.", head: "Was out" },
};

/** What has to be brought, against what the store has and what other jobs have out. */
export async function KitStage({ view }: { view: JobView }) {
  const lines = kitOf(view, await planOf(view, "work"), setupOf(view));
  const out = OUT[view.isolation?.state ?? ""] ?? null;
  return (
    <div className="space-y-5">
      <p className="max-w-prose">
        {out === null ? <Shortness lines={lines} /> : out.words}{" "}
        <Link href="/store" className="link">
          Count the store
        </Link>
      </p>
      <WideTable label="Pick list">
        <table className="table max-w-6xl">
          <thead>
            <tr>
              <th className="text-right">{out?.head ?? "Bring"}</th>
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
                  <InStore line={line} isOut={out !== null} />
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
        Made from the plan, the register and the set-up of the job. Bolts by{" "}
        <span className="whitespace-nowrap">ASME B16.5</span> and <span className="whitespace-nowrap">EN 1092-1</span>,
        from memory: count them on the flange.
      </p>
    </div>
  );
}

/** Whether it can be brought as it stands in the books of the store. */
function Shortness({ lines }: { lines: readonly KitLine[] }) {
  const short = lines.filter((line) => line.short !== null && line.short > 0);
  const uncounted = lines.filter((line) => line.inStore === null);
  const names = short.map((line) => `${line.short} × ${line.thing}${line.size ? ` ${line.size}` : ""}`);
  const none = uncounted.length === 0 ? "The store has everything." : "Nothing that was counted is short.";
  return (
    <>
      {short.length === 0 ? none : <strong>Short of {names.join("; ")}.</strong>}
      {uncounted.length > 0 &&
        ` Nobody has counted ${uncounted.length} of the ${lines.length} things: look before you walk out.`}
    </>
  );
}

function InStore({ line, isOut }: { line: KitLine; isOut: boolean }) {
  if (line.inStore === null) return <>not counted</>;
  return (
    <>
      <span className="num">{line.inStore}</span>
      {!isOut && line.short !== null && line.short > 0 && <strong className="num block">{line.short} short</strong>}
    </>
  );
}
