import type { Metadata } from "next";
import { Link } from "@/ui/text/Link";
import { notFound } from "next/navigation";
import { WRITTEN_KINDS, type PermitKind } from "@/core/permit/kinds/kinds";
import { STAGES, type Stage } from "@/core/job/nextAct";
import { isDone } from "@/core/isolation/failures";
import { jobView, type JobView } from "@/server/job/jobView";
import { StageLamps } from "@/ui/stage/StageLamps";
import { STAGE_SHORT, STAGE_WORDS } from "@/ui/text/stageWords";
import { requirePerson } from "@/server/people/session";
import { requestTime_ms } from "@/server/runtime/siteTime";
import type { Person } from "@/server/people/signIn";
import type { Extent } from "./extent";
import { AskStage } from "./AskStage";
import { EnergiesStage, type Opened } from "./EnergiesStage";
import { HazardsStage } from "./HazardsStage";
import { KitStage } from "./KitStage";
import { PermitsStage } from "./PermitsStage";
import { PointsStage } from "./PointsStage";
import { ReturnStage } from "./ReturnStage";
import { TimeStage } from "./TimeStage";
import { WalkStage } from "./WalkStage";

type Params = {
  params: Promise<{ number: string; stage: string }>;
  searchParams: Promise<Record<string, string | string[] | undefined>>;
};

export async function generateMetadata({ params }: Pick<Params, "params">): Promise<Metadata> {
  const { number, stage } = await params;
  const known = STAGES.find((one) => one === stage);
  return { title: `${number} ${known ? STAGE_WORDS[known] : stage}` };
}

export default async function StagePage({ params, searchParams }: Params) {
  const person = await requirePerson();
  const { number, stage: asked } = await params;
  const query = await searchParams;
  const { plan } = query;
  const many = (value: string | string[] | undefined) => (value === undefined ? [] : [value].flat());
  const extent = { whole: query.region === "whole", open: many(query.open), shut: many(query.shut) };
  const chosen = typeof plan === "string" && /^\d{1,2}$/.test(plan) ? Number(plan) : null;
  const kind = WRITTEN_KINDS.find((one) => one === query.kind) ?? null;
  const stage = STAGES.find((one) => one === asked);
  const opened = openedBy(query.show);
  const routesFrom = typeof query.routes === "string" && /^\d{1,4}$/.test(query.routes) ? Number(query.routes) : null;
  const view = jobView(number, requestTime_ms());
  if (view === null || stage === undefined) notFound();
  const isBench = view.missingFaces.length === 0 && BENCHES.includes(stage);
  return (
    <>
      <JobRow view={view} stage={stage} />
      <div className={isBench ? "" : "px-4 pt-4 pb-10 md:px-5"}>
        <StageBody
          stage={stage}
          view={view}
          person={person}
          chosen={chosen}
          extent={extent}
          kind={kind}
          opened={opened}
          routesFrom={routesFrom}
        />
      </div>
    </>
  );
}

/** Stages that share one drawing with what it is about. */
const BENCHES: readonly Stage[] = ["energies", "points", "walk", "return"];

/** The job in one row: number, title, its stages as a string of lamps, and the next act. */
function JobRow({ view, stage }: { view: JobView; stage: Stage }) {
  const now = view.next === null ? STAGES.length : STAGES.indexOf(view.next.stage);
  return (
    <header className="border-base-300 flex flex-wrap items-center gap-x-4 border-b px-3 md:px-5 lg:h-[46px] lg:flex-nowrap">
      <h1 className="min-w-0 truncate py-1.5 font-semibold lg:max-w-[22%] lg:shrink-0" title={view.title}>
        <span className="tag mr-2">{view.number}</span>
        {view.title}
      </h1>
      <StageLamps
        stages={STAGES.map((one, index) => ({
          href: `/jobs/${view.number}/${one}`,
          short: STAGE_SHORT[one],
          words: STAGE_WORDS[one],
          told: progress(view, one),
          isHere: one === stage,
          lamp: index < now ? "behind" : index === now ? "next" : "ahead",
        }))}
      />
      <p className={`text-sm lg:ml-auto lg:shrink-0 ${view.next?.stage === stage ? "max-lg:hidden" : ""}`}>
        {view.next === null ? (
          "Closed. Back in service."
        ) : (
          <Link
            href={`/jobs/${view.number}/${view.next.stage}`}
            title={`${view.next.words} (${view.next.who.join(" or ")})`}
            className="flex min-h-9 items-center gap-2"
          >
            <span className="text-accent font-semibold">Next</span>
            <span className="link max-w-52 truncate">{view.next.words}</span>
            <span className="sr-only">({view.next.who.join(" or ")})</span>
          </Link>
        )}
      </p>
    </header>
  );
}

function StageBody({
  stage,
  view,
  person,
  chosen,
  extent,
  kind,
  opened,
  routesFrom,
}: {
  stage: Stage;
  view: JobView;
  person: Person;
  chosen: number | null;
  extent: Extent;
  kind: PermitKind | null;
  opened: Opened;
  routesFrom: number | null;
}) {
  if (view.missingFaces.length > 0 && stage !== "ask") {
    return (
      <p className="border-error max-w-prose border-l-4 px-3 py-2">
        The register no longer has {view.missingFaces.join(", ")}. Nothing can be computed for this job: ask for it
        again with the places as they are now.
      </p>
    );
  }
  switch (stage) {
    case "ask":
      return <AskStage view={view} person={person} />;
    case "energies":
      return <EnergiesStage view={view} units={person.units} opened={opened} />;
    case "hazards":
      return <HazardsStage view={view} person={person} />;
    case "points":
      return <PointsStage view={view} person={person} chosen={chosen} extent={extent} routesFrom={routesFrom} />;
    case "time":
      return <TimeStage key={person.units} view={view} person={person} />;
    case "kit":
      return <KitStage view={view} />;
    case "walk":
      return <WalkStage view={view} person={person} phase="isolate" />;
    case "permits":
      return <PermitsStage view={view} person={person} kind={kind} />;
    case "return":
      return <ReturnStage view={view} person={person} />;
  }
}

function openedBy(show: string | string[] | undefined): Opened {
  if (show === "unlikely" || show === "locks") return show;
  return typeof show === "string" && /^\d{1,4}$/.test(show) ? Number(show) : null;
}

/** How far each stage is, in a word or a count. */
function progress(view: JobView, stage: Stage): string {
  const steps = view.isolation?.steps ?? [];
  const count = (phase: "isolate" | "restore") => {
    const all = steps.filter((step) => step.phase === phase);
    return `${all.filter(isDone).length}/${all.length}`;
  };
  switch (stage) {
    case "ask":
    case "energies":
    case "hazards":
    case "time":
    case "kit":
      return "";
    case "points":
      return view.isolation ? "approved" : "";
    case "walk":
      return walkWords(view, count("isolate"));
    case "permits":
      return view.permits.length > 0 ? String(view.permits.length) : "";
    case "return":
      return view.isolation?.state === "restoring"
        ? count("restore")
        : view.isolation?.state === "restored"
          ? "restored"
          : "";
  }
}

/** What the walk has come to; "proven" only while the isolation is, and its proofs count. */
function walkWords({ isolation, planFault, stale }: JobView, left: string): string {
  if (isolation === null) return "";
  if (planFault !== null) return "does not hold";
  if (stale.length > 0) return "prove again";
  return isolation.state === "isolating" ? left : isolation.state;
}
