import { clashesFor, deviationsOf, sharedWith, type JobView } from "@/server/job/jobView";
import { comparisonOf, lanternOf, planOf, plantOf } from "@/server/job/plans";
import { standingOnToday } from "@/server/job/standing";
import type { Person } from "@/server/people/signIn";
import { ExtentLinks } from "@/ui/lantern/ExtentLinks";
import { LaidLantern } from "./LaidLantern";
import type { Extent } from "./extent";
import { AlsoStops } from "./points/AlsoStops";
import { Alternatives } from "./points/Alternatives";
import { Behind } from "./points/Behind";
import { PlannerChanges } from "./points/PlannerChanges";
import { PointTable } from "./points/PointTable";
import { RouteTable } from "./points/RouteTable";
import { Shortfalls } from "./points/Shortfalls";
import { Stale } from "./points/Stale";

/** The computed points: the plans to choose from, what they fall short of, why each point, and what lies behind them. */
export async function PointsStage({
  view,
  person,
  chosen,
  extent,
  routesFrom,
}: {
  view: JobView;
  person: Person;
  chosen: number | null;
  extent: Extent;
  /** The first of the routes that are shown; null when nobody asked for them. */
  routesFrom: number | null;
}) {
  const compared = view.isolation ? null : await comparisonOf(view);
  const index = compared ? (chosen !== null && compared.plans[chosen] ? chosen : compared.comparison.recommended) : 0;
  const shown = compared ? compared.plans[index]! : await planOf(view, "work");
  const lantern = lanternOf(view, shown, {
    whole: extent.whole,
    open: new Set(extent.open),
    shut: new Set(extent.shut),
  });
  const nameOf = (tag: string) => plantOf(view).plant.items.find((item) => item.tag === tag)?.name ?? "";
  const stale = await standingOnToday(view);
  const glowing = shown.routes.find((route) => route.depth === 0 && route.required > 0);
  const clashes = clashesFor(view, shown);
  const shared = sharedWith(view, shown);
  return (
    <div className="space-y-10">
      {view.isolation && (
        <p className="max-w-prose">
          Isolation <span className="tag">{view.isolation.number}</span>, approved by {view.approvedBy} on plant
          revision <span className="num">{view.plantRevision}</span>: {shown.objective}, cut{" "}
          {shown.school === "work" ? "near the work" : "at the supply"}, by the rules {shown.profile}.
        </p>
      )}
      {stale && <Stale stale={stale} revision={view.plantRevisionNow} />}
      {clashes.map((clash) => (
        <p key={`${clash.device}${clash.stoppedBy}`} className="border-error max-w-prose border-l-4 px-3 py-1">
          <span className="tag">{clash.device}</span> is stopped for job {clash.stoppedBy} and must stay passing for job{" "}
          {clash.neededBy}. Both cannot be: agree another point.
        </p>
      ))}
      {compared && <Alternatives view={view} comparison={compared.comparison} shown={index} person={person} />}
      <Shortfalls view={view} plan={shown} accepted={deviationsOf(view)} person={person} />
      <ExtentLinks
        path={`/jobs/${view.number}/points`}
        keep={chosen === null ? {} : { plan: String(chosen) }}
        {...extent}
        scene={lantern.scene}
      />
      {glowing && (
        <p className="max-w-4xl">
          <strong>Still glowing with every point isolated:</strong>{" "}
          <span className="tag whitespace-normal">{glowing.via.join(" › ")}</span>
        </p>
      )}
      <LaidLantern
        key={String(extent.whole)}
        trace={glowing?.via}
        scene={lantern.scene}
        frames={lantern.frames}
        now={view.isolation ? lantern.now : lantern.frames.length - 1}
        failures={shown.singleFailures.map(({ device, faces }) => ({ device, faces }))}
      />
      {shown.notices.length > 0 && (
        <ul className="max-w-4xl space-y-1.5">
          {shown.notices.map((notice) => (
            <li key={notice} className="border-accent border-l-4 px-3 py-0.5">
              {notice}
            </li>
          ))}
        </ul>
      )}
      <AlsoStops plan={shown} />
      <PointTable plan={shown} nameOf={nameOf} shared={shared} />
      {!view.isolation && person.roles.includes("coordinator") && <PlannerChanges view={view} />}
      <Behind plan={shown} units={person.units} />
      <RouteTable
        plan={shown}
        from={routesFrom}
        href={(from) => {
          const query = new URLSearchParams(chosen === null ? {} : { plan: String(chosen) });
          if (from !== null) query.set("routes", String(from));
          return `/jobs/${view.number}/points?${query.toString()}`;
        }}
      />
    </div>
  );
}
