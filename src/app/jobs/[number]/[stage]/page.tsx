import type { Metadata } from "next";
import Link from "next/link";
import { notFound } from "next/navigation";
import { PERMIT_KINDS, type PermitKind } from "@/core/permit/kinds/kinds";
import { STAGES, type Stage } from "@/core/job/nextAct";
import { isDone } from "@/core/isolation/failures";
import { jobView, type JobView } from "@/server/job/jobView";
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

const WORDS: Readonly<Record<Stage, string>> = {
  ask: "Ask",
  energies: "Energies",
  hazards: "Hazards",
  points: "Points",
  time: "Time",
  kit: "Kit",
  walk: "Walk",
  permits: "Permits",
  return: "Return",
};

export async function generateMetadata({ params }: Pick<Params, "params">): Promise<Metadata> {
  const { number, stage } = await params;
  return { title: `${number} ${stage}` };
}

export default async function StagePage({ params, searchParams }: Params) {
  const person = await requirePerson();
  const { number, stage: asked } = await params;
  const query = await searchParams;
  const { plan } = query;
  const many = (value: string | string[] | undefined) => (value === undefined ? [] : [value].flat());
  const extent = { whole: query.region === "whole", open: many(query.open), shut: many(query.shut) };
  const chosen = typeof plan === "string" && /^\d{1,2}$/.test(plan) ? Number(plan) : null;
  const kind = PERMIT_KINDS.find((one) => one === query.kind) ?? null;
  const stage = STAGES.find((one) => one === asked);
  const opened = openedBy(query.show);
  const routesFrom = typeof query.routes === "string" && /^\d{1,4}$/.test(query.routes) ? Number(query.routes) : null;
  const view = jobView(number, requestTime_ms());
  if (view === null || stage === undefined) notFound();
  return (
    <div className="px-4 pt-6 pb-10 md:px-8">
      <header className="border-base-300 mb-6 border-b">
        <div className="flex flex-wrap items-start gap-x-8 gap-y-2">
          <h1 className="text-2xl font-semibold tracking-tight">
            <span className="tag mr-3 font-medium">{view.number}</span>
            {view.title}
          </h1>
          <p className="ml-auto max-w-md pt-1">
            {view.next ? (
              <>
                <span className="text-accent mr-2 font-semibold">Next</span>
                <Link href={`/jobs/${number}/${view.next.stage}`} className="link">
                  {view.next.words}
                </Link>{" "}
                <span className="opacity-85">({view.next.who.join(" or ")})</span>
              </>
            ) : (
              "Closed. Back in service."
            )}
          </p>
        </div>
        <nav aria-label="The job, in the order of the work" className="mt-4 overflow-x-auto">
          <ol className="flex">
            {STAGES.map((one, index) => (
              <li key={one} className="flex items-center">
                {index > 0 && <span aria-hidden className="bg-base-300 mx-1 h-px w-4 md:w-8" />}
                <Link
                  href={`/jobs/${number}/${one}`}
                  aria-current={one === stage ? "step" : undefined}
                  className={`hover:bg-base-200 block border-b-4 px-2 pt-1 pb-2 whitespace-nowrap md:px-3 ${one === stage ? "border-accent font-semibold" : "border-transparent"}`}
                >
                  {WORDS[one]}
                  <span className="ml-2 text-sm opacity-85">{progress(view, one)}</span>
                </Link>
              </li>
            ))}
          </ol>
        </nav>
      </header>
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

/** What the walk has come to; "proven" only while the isolation is. */
function walkWords({ isolation, planFault }: JobView, left: string): string {
  if (isolation === null) return "";
  if (planFault !== null) return "does not hold";
  return isolation.state === "isolating" ? left : isolation.state;
}
