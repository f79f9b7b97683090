import { Fragment } from "react";
import type { Plan, Point } from "@/core/isolation/plan";
import { lanternOf, planOf, plantOf, type JobView } from "@/server/queries/jobView";
import type { Person } from "@/server/signIn";
import { ActForm } from "@/ui/act/ActForm";
import { Lantern } from "@/ui/lantern/Lantern";
import { Carrier } from "@/ui/text/Carrier";
import { Route } from "@/ui/text/Route";
import { WideTable } from "@/ui/text/WideTable";

/** The computed points, both schools side by side until one is approved, and why each point is there. */
export function PointsStage({ view, person }: { view: JobView; person: Person }) {
  const plans = view.isolation ? [planOf(view, "work")] : [planOf(view, "work"), planOf(view, "supply")];
  const [shown] = plans as [Plan, ...Plan[]];
  const lantern = lanternOf(view, shown);
  const nameOf = (tag: string) => plantOf(view).plant.items.find((item) => item.tag === tag)?.name ?? "";
  return (
    <div className="space-y-10">
      {view.isolation ? (
        <p className="max-w-prose">
          Isolation <span className="tag">{view.isolation.number}</span>, approved by {view.approvedBy} on plant
          revision <span className="num">{view.plantRevision}</span>, cut{" "}
          {shown.school === "work" ? "near the work" : "at the supply"}.
          {view.plantRevisionNow !== view.plantRevision && (
            <strong className="mt-1 block">
              The register is now at revision {view.plantRevisionNow}. Check that nothing near this work has changed.
            </strong>
          )}
        </p>
      ) : (
        <SchoolsCompared view={view} plans={plans} mayApprove={person.roles.includes("coordinator")} />
      )}
      {shown.notices.map((notice) => (
        <p key={notice} className="border-accent max-w-prose border-l-4 px-3 py-1">
          {notice}
        </p>
      ))}
      {shown.shortfalls.length > 0 && <Shortfalls plan={shown} />}
      <Lantern
        scene={lantern.scene}
        frames={lantern.frames}
        now={view.isolation ? lantern.now : lantern.frames.length - 1}
      />
      <PointTable plan={shown} nameOf={nameOf} />
      <RouteTable plan={shown} />
    </div>
  );
}

function SchoolsCompared({ view, plans, mayApprove }: { view: JobView; plans: readonly Plan[]; mayApprove: boolean }) {
  const [work, supply] = plans as [Plan, Plan];
  const tags = (plan: Plan) => plan.points.map((point) => point.device);
  const same = tags(work).join() === tags(supply).join();
  return (
    <section aria-labelledby="schools">
      <h2 id="schools" className="mb-3 text-lg font-semibold">
        {same ? "Both schools choose the same points" : "Two schools, the same protection"}
      </h2>
      <div className="grid gap-8 md:grid-cols-2">
        {plans.map((plan) => {
          const other = new Set(tags(plan === work ? supply : work));
          return (
            <div key={plan.school} className="border-base-content border-t-2 pt-3">
              <h3 className="font-semibold">{plan.school === "work" ? "Near the work" : "At the supply"}</h3>
              <p className="mb-2 text-sm opacity-85">
                {plan.school === "work"
                  ? "Least of the plant disturbed, shortest walk."
                  : "Cut off at the earliest point."}
              </p>
              <p className="mb-3 text-lg">
                <span className="num">{plan.points.length}</span> points, <span className="num">{plan.cost} min</span>
                <span className="ml-3 text-base">
                  {plan.exact ? "proved cheapest" : `not proved cheapest: none is under ${plan.bound} min`}
                </span>
              </p>
              <ul className="mb-4 flex flex-wrap gap-x-3 gap-y-1">
                {plan.points.map((point) => (
                  <li
                    key={point.device}
                    className={`tag ${other.has(point.device) ? "" : "decoration-accent font-bold underline decoration-2 underline-offset-4"}`}
                  >
                    {point.device}
                  </li>
                ))}
              </ul>
              {mayApprove && (
                <ActForm
                  act="isolation.approve"
                  label={`Approve the plan ${plan.school === "work" ? "near the work" : "at the supply"}`}
                  fixed={{ job: view.number, school: plan.school, plantRevision: view.plantRevision }}
                  pin
                  compact
                  button={plan.school === "work" ? "Approve, near the work" : "Approve, at the supply"}
                  tone={plan.school === "work" ? "strong" : "plain"}
                  then={`/jobs/${view.number}/walk`}
                />
              )}
            </div>
          );
        })}
      </div>
      {!mayApprove && <p className="mt-3">A coordinator approves the plan.</p>}
      {!same && <p className="mt-3 text-sm">Points that only one school chooses are underlined.</p>}
    </section>
  );
}

function Shortfalls({ plan }: { plan: Plan }) {
  return (
    <section className="border-error border-l-4 px-4 py-2">
      <h2 className="mb-1 text-lg font-semibold">This plant cannot hold what the work needs</h2>
      <ul>
        {plan.shortfalls.map((row) => (
          <li key={`${row.source} ${row.carrier} ${row.face}`}>
            <span className="tag">{row.source}</span> to <span className="tag">{row.face}</span>: {row.required}{" "}
            barriers needed, {row.available} exist. The plan holds the best there is; it cannot be approved here.
          </li>
        ))}
      </ul>
    </section>
  );
}

function PointTable({ plan, nameOf }: { plan: Plan; nameOf: (tag: string) => string }) {
  const failures = new Map(plan.singleFailures.map((failure) => [failure.device, failure]));
  return (
    <section>
      <h2 className="mb-2 text-lg font-semibold">Why each point</h2>
      <WideTable label="Points">
        <table className="table">
          <thead>
            <tr>
              <th>Point</th>
              <th>Stops</th>
              <th>Effort</th>
              <th>Without it</th>
              <th>If it alone leaks or is reopened</th>
            </tr>
          </thead>
          <tbody>
            {plan.points.map((point) => (
              <tr key={point.device}>
                <td className="w-64">
                  <span className="tag block">{point.device}</span>
                  <span className="text-sm">{nameOf(point.device)}</span>
                  {!point.lockable && (
                    <strong className="block text-sm">Takes no lock: tag, and do something more.</strong>
                  )}
                </td>
                <td>
                  {point.stops.map((carrier) => (
                    <Carrier key={carrier} name={carrier} />
                  ))}
                </td>
                <td className="num">{point.effort_min} min</td>
                <td>
                  <Why point={point} />
                </td>
                <td>
                  {failures.get(point.device)?.faces.length ? (
                    <strong>
                      lights <Tags tags={failures.get(point.device)!.faces} />
                    </strong>
                  ) : (
                    "stays dark: another barrier holds"
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </WideTable>
    </section>
  );
}

/** The pairs that would have too few barriers, said by source. */
function Why({ point }: { point: Point }) {
  const sources = [...new Set(point.holds.map((hold) => hold.source))];
  return (
    <>
      <Tags tags={sources} most={4} /> would have too few barriers to{" "}
      <Tags tags={[...new Set(point.holds.map((hold) => hold.face))]} />
    </>
  );
}

/** Tags in a sentence, never broken at a hyphen. */
function Tags({ tags, most = Infinity }: { tags: readonly string[]; most?: number }) {
  const shown = tags.slice(0, most);
  return (
    <>
      {shown.map((tag, index) => (
        <Fragment key={tag}>
          {index > 0 && ", "}
          <span className="tag">{tag}</span>
        </Fragment>
      ))}
      {tags.length > shown.length && ` and ${tags.length - shown.length} more`}
    </>
  );
}

function RouteTable({ plan }: { plan: Plan }) {
  const points = plan.points.map((point) => point.device);
  return (
    <section>
      <h2 className="mb-2 text-lg font-semibold">Every source against every face</h2>
      <details>
        <summary className="cursor-pointer py-1">
          {plan.routes.length} pairs, with the barriers needed and held, and the rule that asks for them
        </summary>
        <WideTable label="Sources against faces">
          <table className="table-sm table">
            <thead>
              <tr>
                <th>Source</th>
                <th>Face</th>
                <th>Needs</th>
                <th>Holds</th>
                <th>Best there is</th>
                <th>Grade</th>
                <th>Rule</th>
                <th>Weakest way</th>
              </tr>
            </thead>
            <tbody>
              {plan.routes.map((route) => (
                <tr key={`${route.source} ${route.carrier} ${route.face}`}>
                  <td>
                    <span className="tag">{route.source}</span> <span className="text-sm">{route.carrier}</span>
                  </td>
                  <td className="tag">{route.face}</td>
                  <td className="num">{route.required}</td>
                  <td className="num">{route.depth}</td>
                  <td className="num">{route.available}</td>
                  <td>{route.grade}</td>
                  <td className="min-w-56 text-sm">
                    {route.rule.reason} ({route.rule.source})
                  </td>
                  <td className="min-w-96">
                    <Route via={route.via} marked={points} />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </WideTable>
      </details>
    </section>
  );
}
