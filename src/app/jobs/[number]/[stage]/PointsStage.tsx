import { shownNow } from "@/core/isolation/failures";
import { eq } from "drizzle-orm";
import { kindRule } from "@/core/permit/kinds/kinds";
import type { Plan } from "@/core/plan/plan";
import { jobs } from "@/server/db/schema";
import { clashesFor, deviationsOf, peopleToChoose, sharedWith, type JobView } from "@/server/job/jobView";
import { minorFaultsOf } from "@/server/job/minorRoute";
import { currentPlant } from "@/server/plant/plantStore";
import { requestTime_ms } from "@/server/runtime/siteTime";
import { comparisonOf, lanternOf, planOf, plantOf } from "@/server/job/plans";
import { lastTimeOf } from "@/server/job/lastTime";
import { standingOnToday } from "@/server/job/standing";
import type { Person } from "@/server/people/signIn";
import { ExtentLinks } from "@/ui/lantern/ExtentLinks";
import { Bench } from "@/ui/stage/Bench";
import { Drawer } from "@/ui/stage/Drawer";
import { decisionsOf, OWNERS } from "@/core/hazard/jobHazards";
import { isDifferent } from "@/core/library/differences";
import { procedureToday } from "@/server/library/byProcedure";
import { jobHazards } from "@/server/hazard/hazardStore";
import { database } from "@/server/db/database";
import { PermitsForm, type PermitsFormProps } from "@/ui/job/PermitsForm";
import { LaidLantern } from "./LaidLantern";
import type { Extent } from "./extent";
import { permitsToWrite } from "./permitsToWrite";
import { AlsoStops } from "./points/AlsoStops";
import { Alternatives, alternativeName, Approve } from "./points/Alternatives";
import { Behind } from "./points/Behind";
import { ByProcedure } from "./points/ByProcedure";
import { LastTime } from "./points/LastTime";
import { PlannerChanges } from "./points/PlannerChanges";
import { PointTable } from "./points/PointTable";
import { RouteTable } from "./points/RouteTable";
import { Shortfalls } from "./points/Shortfalls";
import { ShortRoute } from "./points/ShortRoute";
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
  const by = view.isolation || !view.procedure ? null : await procedureToday(view, shown);
  const last = by ? null : await lastTimeOf(view);
  const glowing = shown.routes.find((route) => route.depth === 0 && route.required > 0);
  const clashes = clashesFor(view, shown);
  const shared = sharedWith(view, shown);
  const minutes = shown.points.reduce((sum, { effort_min }) => sum + effort_min, 0);
  const stops = shown.goesDark.filter(({ isWork }) => !isWork).length + shown.alsoStops.length;
  const withPermits = compared ? approvedWith(view, person, compared.comparison.alternatives[index]!) : null;
  const minor = compared && withPermits ? shortRouteFor(view, person, shown, withPermits) : null;
  const behind = shown.cavities.length + shown.darkZone.trapped.length;
  return (
    <Bench
      drawing={
        <div className="flex h-full flex-col">
          <div className="border-base-300 border-b px-4 py-1">
            <ExtentLinks
              path={`/jobs/${view.number}/points`}
              keep={chosen === null ? {} : { plan: String(chosen) }}
              {...extent}
              scene={lantern.scene}
            />
          </div>
          <div className="min-h-0 flex-1">
            <LaidLantern
              key={String(extent.whole)}
              trace={glowing?.via}
              scene={lantern.scene}
              frames={lantern.frames}
              now={view.isolation ? lantern.now : lantern.frames.length - 1}
              {...(view.isolation ? shownNow(view.isolation.steps, view.planFault, view.stale) : {})}
              failures={shown.singleFailures.map(({ device, faces }) => ({ device, faces }))}
            />
          </div>
        </div>
      }
      foot={
        compared && (
          <Approve
            view={view}
            comparison={compared.comparison}
            shown={index}
            person={person}
            isAlone={withPermits === null}
            differs={by !== null && isDifferent(by.differences)}
          />
        )
      }
    >
      <div className="mb-2 flex flex-wrap items-baseline justify-between gap-x-4 gap-y-1">
        <h2 className="text-lg font-semibold">
          <span className="num">{shown.points.length}</span> {shown.points.length === 1 ? "point" : "points"} ·{" "}
          <span className="num">{minutes}</span> min
        </h2>
        <p className={`rounded-sm border px-2 text-sm ${glowing ? "border-error font-bold" : "border-success"}`}>
          {glowing ? "energy still reaches the work" : "by the plan no energy reaches the work"}
        </p>
      </div>
      <div className="space-y-4">
        {view.isolation && (
          <p className="text-sm">
            Isolation <span className="tag">{view.isolation.number}</span>, approved by {view.approvedBy} on plant
            revision <span className="num">{view.plantRevision}</span>: {shown.objective},{" "}
            {shown.school === "work" ? "at the work" : "at the supply"}, by the rules {shown.profile}.
          </p>
        )}
        {by && <ByProcedure by={by} job={view.number} mayLeave={person.roles.includes("coordinator")} />}
        {last && <LastTime last={last} plan={shown} />}
        {stale && <Stale stale={stale} revision={view.plantRevisionNow} />}
        {clashes.map((clash) => (
          <p key={`${clash.device}${clash.stoppedBy}`} className="border-error border-l-4 px-3 py-1">
            <span className="tag">{clash.device}</span> is stopped for job {clash.stoppedBy} and must stay passing for
            job {clash.neededBy}
            {clash.why === "relief" && ", whose points count on the relief behind it"}. Both cannot be: agree another
            point.
          </p>
        ))}
        {glowing && (
          <p>
            <strong>Still live with every point isolated:</strong>{" "}
            <span className="tag whitespace-normal">{glowing.via.join(" › ")}</span>
          </p>
        )}
        {compared && <Alternatives view={view} comparison={compared.comparison} shown={index} />}
        <Shortfalls view={view} plan={shown} accepted={deviationsOf(view)} person={person} />
        {shown.notices.length > 0 && (
          <ul className="space-y-1.5">
            {shown.notices.map((notice) => (
              <li key={notice} className="border-accent border-l-4 px-3 py-0.5">
                {notice}
              </li>
            ))}
          </ul>
        )}
        <PointTable plan={shown} nameOf={nameOf} shared={shared} procedure={by?.version.life.number ?? null} />
      </div>
      <div className="mt-4">
        {withPermits && (
          <Drawer title="Approve it with its permits" count={withPermits.toWrite.length}>
            <PermitsForm
              key={`${index} ${person.units}`}
              {...withPermits}
              differs={by !== null && isDifferent(by.differences)}
            />
          </Drawer>
        )}
        {minor && (
          <Drawer title="Short route" count={minor.faults.length === 0 ? "minor isolation" : "not open"}>
            <ShortRoute key={`${index} ${person.units}`} {...minor} />
          </Drawer>
        )}
        <Drawer title="What else stops" count={stops}>
          <AlsoStops plan={shown} />
        </Drawer>
        <Drawer title="Sections between barriers, and what is trapped" count={behind}>
          <Behind plan={shown} units={person.units} />
        </Drawer>
        <Drawer title="Paths, their grades and rules" count={shown.routes.length} open={routesFrom !== null}>
          <RouteTable
            plan={shown}
            from={routesFrom}
            href={(from) => {
              const query = new URLSearchParams(chosen === null ? {} : { plan: String(chosen) });
              if (from !== null) query.set("routes", String(from));
              return `/jobs/${view.number}/points?${query.toString()}`;
            }}
          />
        </Drawer>
        {!view.isolation && person.roles.includes("coordinator") && (
          <Drawer
            title="Change the plan"
            count={view.job.pinned.length + view.job.struck.length + view.job.mustPass.length}
          >
            <PlannerChanges view={view} />
          </Drawer>
        )}
      </div>
    </Bench>
  );
}

/** Whether this plan is a minor isolation, and how it is approved as one: with the one kind of permit that goes with it. */
function shortRouteFor(view: JobView, person: Person, shown: Plan, full: PermitsFormProps) {
  const db = database();
  const row = db.select().from(jobs).where(eq(jobs.number, view.number)).get();
  const plant = currentPlant(db);
  if (row === undefined || plant === null) return null;
  const faults = minorFaultsOf(db, row, shown, plant, requestTime_ms());
  const because = "one machine behind one lock, by one person";
  const form: PermitsFormProps = {
    ...full,
    toWrite: [{ kind: "minor isolation", because, longest_h: kindRule("minor isolation").longest_h, defaults: {} }],
    leads: peopleToChoose().filter(({ id }) => id === view.holderId),
    short: true,
  };
  return { faults, form };
}

/** The permits that would be written with the plan, and the hazards that are still to decide; null where nobody may or none is due. */
function approvedWith(
  view: JobView,
  person: Person,
  one: Parameters<typeof alternativeName>[0],
): PermitsFormProps | null {
  if (!person.roles.includes("coordinator")) return null;
  const hazards = jobHazards(database(), view.number);
  if (hazards === null) return null;
  const toWrite = permitsToWrite(view, person);
  const { objective, school } = one;
  const decided = decisionsOf(hazards.hazards);
  const open = hazards.proposed.filter(({ id }) => !decided.has(id));
  const asksConditions = hazards.hazards.conditions === null;
  return (
    toWrite && {
      ...toWrite,
      // What is proposed stands there until somebody changes it: a hazard too many is read, one too few is not.
      hazards: [toWrite.hazards, ...open.map(({ hazard }) => hazard)].filter(Boolean).join("; "),
      precautions: [toWrite.precautions, ...open.flatMap(({ controls }) => controls)].filter(Boolean).join("; "),
      ...(open.length > 0 || asksConditions
        ? { toDecide: { job: view.number, open, owners: OWNERS, asksConditions } }
        : {}),
      approve: { objective, school, plantRevision: view.plantRevision, name: alternativeName(one) },
    }
  );
}
