import { Fragment } from "react";
import type { Plan } from "@/core/plan/plan";
import type { WayIn } from "@/core/trace/waysIn";
import type { UnitSystem } from "@/core/units/units";
import { type JobView } from "@/server/job/jobView";
import { lanternOf, planOf } from "@/server/job/plans";
import { LaidLantern } from "./LaidLantern";
import { Carrier } from "@/ui/text/Carrier";
import { energy } from "@/ui/text/energy";
import { Route } from "@/ui/text/Route";
import { WideTable } from "@/ui/text/WideTable";

/** Every way by which energy comes in, with its sources; what is stored; what must be looked at. */
export async function EnergiesStage({ view, units }: { view: JobView; units: UnitSystem }) {
  const traced = await planOf(view, "work");
  const lantern = lanternOf(view, traced);
  const kept = view.isolation?.state === "isolating" || view.isolation?.state === "proven";
  const sources = new Set(traced.routes.map((row) => `${row.source} ${row.carrier}`));
  const hidden = traced.waysIn.filter((way) => way.sources.every((source) => source.hidden));
  return (
    <div className="space-y-10">
      <p className="max-w-prose text-lg">
        <span className="num font-semibold">{sources.size}</span> sources reach this work by{" "}
        <span className="num font-semibold">{traced.waysIn.length}</span> ways in,{" "}
        <span className="num font-semibold">{hidden.length}</span> of them hidden. Every device is taken as passing.
      </p>
      <LaidLantern
        scene={lantern.scene}
        frames={kept ? lantern.frames : lantern.frames.slice(0, 1)}
        now={kept ? lantern.now : 0}
      />
      {traced.findings.length > 0 && (
        <section>
          <h2 className="mb-2 text-lg font-semibold">Look at these</h2>
          <ul className="max-w-4xl space-y-1.5">
            {traced.findings.map((finding) => (
              <li key={finding.sentence} className="border-accent border-l-4 px-3 py-0.5">
                {finding.sentence}
              </li>
            ))}
          </ul>
        </section>
      )}
      {view.job.faces.map((face) => (
        <WaysIntoFace
          key={face.place}
          face={face.place}
          ways={traced.waysIn.filter((way) => way.face === face.place)}
        />
      ))}
      {traced.stored.length > 0 && <StoredEnergies units={units} rows={traced.stored} />}
    </div>
  );
}

function WaysIntoFace({ face, ways }: { face: string; ways: readonly WayIn[] }) {
  return (
    <section>
      <h2 className="mb-2 text-lg font-semibold">
        Into <span className="tag">{face}</span>
      </h2>
      {ways.length === 0 ? (
        <p>Nothing reaches it. If that surprises you, the register is missing a link: walk it.</p>
      ) : (
        <WideTable label={`Ways into ${face}`}>
          <table className="table">
            <thead>
              <tr>
                <th className="w-36">Through</th>
                <th className="w-36">As</th>
                <th className="w-44">From</th>
                <th>Way, from source to work</th>
                <th className="w-56">Hidden</th>
              </tr>
            </thead>
            <tbody>
              {ways.map((way) => (
                <Fragment key={`${way.through} ${way.carrier}`}>
                  <SourceRow way={way} index={0} />
                  {way.sources.length > 1 && (
                    <tr>
                      <td colSpan={5} className="pt-0">
                        <details>
                          <summary className="cursor-pointer py-1">
                            {way.sources.length - 1} more by way of <span className="tag">{way.through}</span>
                          </summary>
                          <ul className="border-base-300 mt-2 space-y-2 border-l pl-4">
                            {way.sources.slice(1).map((source) => (
                              <li key={`${source.source} ${source.carrier}`} className="flex flex-wrap gap-x-4">
                                <Carrier name={source.carrier} />{" "}
                                <Route via={source.via} marked={source.nearestDevice ? [source.nearestDevice] : []} />
                                {source.hidden && <span className="text-sm">{source.hiddenBy.join(", ")}</span>}
                              </li>
                            ))}
                          </ul>
                        </details>
                      </td>
                    </tr>
                  )}
                </Fragment>
              ))}
            </tbody>
          </table>
        </WideTable>
      )}
    </section>
  );
}

function SourceRow({ way, index }: { way: WayIn; index: number }) {
  const source = way.sources[index]!;
  return (
    <tr>
      <td className="tag">{way.through}</td>
      <td>
        <Carrier name={way.carrier} />
      </td>
      <td>
        <span className="tag block">{source.source}</span>
        <span className="text-sm">{source.carrier}</span>
      </td>
      <td>
        <Route via={source.via} marked={source.nearestDevice ? [source.nearestDevice] : []} />
        {source.nearestDevice === null && <strong className="block">No device on this way.</strong>}
      </td>
      <td>{source.hidden ? <span className="font-medium">Hidden: {source.hiddenBy.join(", ")}</span> : "plain"}</td>
    </tr>
  );
}

type StoredRows = Plan["stored"];

function StoredEnergies({ rows, units }: { rows: StoredRows; units: UnitSystem }) {
  const bySource = new Map<string, StoredRows[number][]>();
  for (const row of rows) bySource.set(row.source, [...(bySource.get(row.source) ?? []), row]);
  return (
    <section>
      <h2 className="mb-2 text-lg font-semibold">Stored energy that may reach the work</h2>
      <WideTable label="Stored energies">
        <table className="table">
          <thead>
            <tr>
              <th className="w-32">At</th>
              <th className="w-36">As</th>
              <th className="w-72">How much</th>
              <th>Make it harmless</th>
              <th>Nearest way</th>
            </tr>
          </thead>
          <tbody>
            {[...bySource.values()].map((all) => {
              const nearest = all.reduce((best, row) => (row.via.length < best.via.length ? row : best));
              return (
                <tr key={nearest.source}>
                  <td className="tag">{nearest.source}</td>
                  <td>
                    <Carrier name={nearest.carrier} />
                  </td>
                  <td>{energy(nearest.quantity, units)}</td>
                  <td>
                    {nearest.harmless}
                    {nearest.regenerating && (
                      <strong className="block">Comes back by itself: watch it until the end.</strong>
                    )}
                  </td>
                  <td>
                    <Route via={nearest.via} />
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </WideTable>
    </section>
  );
}
