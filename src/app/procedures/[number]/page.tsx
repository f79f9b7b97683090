import type { Metadata } from "next";
import { Link } from "@/ui/text/Link";
import { notFound } from "next/navigation";
import type { ReactNode } from "react";
import { PARTS } from "@/core/library/procedure";
import { peopleToChoose } from "@/server/job/jobView";
import { partsToSign, procedureViews, stepsOfVersion, type VersionView } from "@/server/library/procedureView";
import { requirePerson } from "@/server/people/session";
import type { Person } from "@/server/people/signIn";
import { requestTime_ms, siteTimeZone } from "@/server/runtime/siteTime";
import { ActForm } from "@/ui/act/ActForm";
import { TextField } from "@/ui/act/Field";
import { InspectForm } from "@/ui/library/InspectForm";
import { Drawer } from "@/ui/stage/Drawer";
import { Tags } from "@/ui/text/Tags";
import { dayAndClock } from "@/ui/text/when";

type Params = { params: Promise<{ number: string }>; searchParams: Promise<{ version?: string }> };

export async function generateMetadata({ params }: Params): Promise<Metadata> {
  return { title: `Procedure ${(await params).number}` };
}

const STATES = { draft: "draft", approved: "approved", superseded: "superseded", withdrawn: "withdrawn" } as const;

export default async function ProcedurePage({ params, searchParams }: Params) {
  const person = await requirePerson();
  const { number } = await params;
  const { version: asked } = await searchParams;
  const [procedure] = procedureViews(requestTime_ms(), number);
  if (procedure === undefined) notFound();
  const timeZone = siteTimeZone();
  const { versions, current } = procedure;
  const shown = versions.find(({ life }) => String(life.version) === asked) ?? current ?? versions[0]!;
  const isUsable = shown.unusable === null;
  return (
    <>
      <header
        className={`band ${isUsable ? "band-active" : shown.life.state === "draft" ? "band-paper" : "band-over"} border-base-content flex flex-wrap items-baseline gap-x-5 gap-y-1 border-b-2 px-4 py-2 md:px-5`}
      >
        <h1 className="flex flex-wrap items-baseline gap-x-4 font-semibold">
          <span className="tag text-2xl">{number}</span>
          <span className="text-lg">
            version <span className="num">{shown.life.version}</span> · {STATES[shown.life.state]}
          </span>
        </h1>
        <p className="min-w-0 flex-1 max-md:order-3 max-md:basis-full">
          {procedure.title}, at <span className="tag">{procedure.equipment}</span>
        </p>
        {shown.inspectionDue_ms !== null && (
          <p className="text-sm">
            to be inspected by <strong className="num">{dayAndClock(shown.inspectionDue_ms, timeZone)}</strong>
          </p>
        )}
      </header>
      <div className="grid grid-cols-[minmax(0,1fr)] lg:min-h-[calc(100dvh-7.75rem)] lg:grid-cols-[minmax(0,1fr)_25rem]">
        <section
          aria-label="Approval and inspection"
          className="border-base-300 space-y-6 px-4 py-4 max-lg:border-b md:px-5 lg:order-2 lg:border-l"
        >
          <Next version={shown} person={person} />
          <Signed version={shown} timeZone={timeZone} />
          <Versions versions={versions} shown={shown} number={number} timeZone={timeZone} />
          <Rare version={shown} person={person} />
        </section>
        <Content version={shown} />
      </div>
    </>
  );
}

function Next({ version, person }: { version: VersionView; person: Person }) {
  const fixed = { procedure: version.life.number, version: version.life.version };
  const [part] = partsToSign(version, person);
  return (
    <div data-next="" className="border-base-content rounded-md border-2 px-4 py-3">
      <p className="text-sm">Next</p>
      {part ? (
        <>
          <h2 className="text-lg font-semibold">Approve it for the {part}</h2>
          <p className="mb-3 text-sm">
            {part === "trade"
              ? "You know this trade: the points, their order, the bleeds and the proofs are right for this work."
              : "You answer for this equipment: nothing that reaches it is left out, and it may be isolated so."}
          </p>
          <ActForm
            act="procedure.sign"
            label={`Approve for the ${part}`}
            fixed={{ ...fixed, part }}
            pin
            button={`Approve for the ${part}`}
            tone="strong"
            compact
          />
        </>
      ) : version.unusable === null ? (
        <p>
          <Link href={`/jobs/new?procedure=${version.life.number}`} className="btn btn-primary mt-2">
            Request work by it
          </Link>
        </p>
      ) : (
        <p>
          Nobody requests work by it: {version.unusable}.{" "}
          {version.life.state === "draft" &&
            `${PARTS.filter((one) => !version.signed.some(({ part }) => part === one))
              .map((one) => (one === "trade" ? "Somebody with the trade" : "Somebody who answers for the equipment"))
              .join(" and ")} approves it; not who wrote it.`}
        </p>
      )}
    </div>
  );
}

function Signed({ version, timeZone }: { version: VersionView; timeZone: string }) {
  return (
    <section aria-labelledby="signed">
      <h2 id="signed" className="mb-2 text-lg font-semibold">
        Signed
      </h2>
      <dl className="grid grid-cols-[7rem_1fr] gap-y-1">
        <Row label="Written">
          {version.writer}, <span className="num">{dayAndClock(version.life.writtenAt_ms, timeZone)}</span>, from{" "}
          <Link href={`/jobs/${version.job}`} className="link tag">
            {version.job}
          </Link>
        </Row>
        {PARTS.map((part) => {
          const one = version.signed.find((signed) => signed.part === part);
          return (
            <Row key={part} label={part === "trade" ? "Trade" : "Equipment"}>
              {one ? (
                <>
                  {one.by}, <span className="num">{dayAndClock(one.at_ms, timeZone)}</span>
                </>
              ) : (
                "not yet"
              )}
            </Row>
          );
        })}
      </dl>
      {version.inspected.length > 0 && (
        <>
          <h3 className="mt-4 mb-1 font-semibold">Inspections</h3>
          <ul className="border-base-300 divide-base-300 divide-y border-y">
            {[...version.inspected].reverse().map((one) => (
              <li key={one.at_ms} className="py-1.5">
                <strong>{one.sound ? "Sound" : "Not right"}</strong>,{" "}
                <span className="num">{dayAndClock(one.at_ms, timeZone)}</span>, by {one.by} with{" "}
                {one.watched.join(", ")}: {one.found}
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}

function Versions({
  versions,
  shown,
  number,
  timeZone,
}: {
  versions: readonly VersionView[];
  shown: VersionView;
  number: string;
  timeZone: string;
}) {
  if (versions.length < 2) return null;
  return (
    <section aria-labelledby="versions">
      <h2 id="versions" className="mb-2 text-lg font-semibold">
        Versions
      </h2>
      <ul className="space-y-1">
        {versions.map(({ life, writer }) => (
          <li key={life.version}>
            <Link
              href={`/procedures/${number}?version=${life.version}`}
              className="link"
              aria-current={life.version === shown.life.version ? "true" : undefined}
            >
              Version <span className="num">{life.version}</span>
            </Link>
            , {STATES[life.state]}, by {writer}, <span className="num">{dayAndClock(life.writtenAt_ms, timeZone)}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What is done once a year, or once. */
function Rare({ version, person }: { version: VersionView; person: Person }) {
  const has = (...roles: Person["roles"]) => person.roles.some((role) => roles.includes(role));
  const fixed = { procedure: version.life.number, version: version.life.version };
  const isOpen = version.life.state === "draft" || version.life.state === "approved";
  const people = peopleToChoose()
    .filter(({ id, roles }) => id !== person.id && roles.includes("isolator"))
    .map(({ id, name }) => ({ id, name }));
  return (
    <div>
      {version.life.state === "approved" && has("coordinator", "isolator") && (
        <Drawer title="Inspect it" count={version.inspected.length}>
          <InspectForm {...fixed} people={people} />
        </Drawer>
      )}
      {isOpen && has("coordinator", "issuer") && (
        <Drawer title="Withdraw it" count={0}>
          <ActForm act="procedure.withdraw" label="Withdraw it" fixed={fixed} pin button="Withdraw this version">
            <TextField label="Why" name="reason" rows={2} />
          </ActForm>
        </Drawer>
      )}
    </div>
  );
}

function Content({ version }: { version: VersionView }) {
  const { content } = version;
  const steps = stepsOfVersion(version);
  const byPhase = (phase: "isolate" | "restore") => steps.filter((step) => step.phase === phase);
  return (
    <div className="space-y-7 px-4 py-4 md:px-5">
      <dl className="grid gap-x-5 gap-y-2 sm:grid-cols-[8rem_1fr]">
        <Row label="Work">{content.work}</Row>
        <Row label="Where">
          {content.job.faces.map(({ place, how }) => (
            <span key={place} className="mr-4">
              <span className="tag">{place}</span> ({how.join(", ")})
            </span>
          ))}
        </Row>
        <Row label="Points">
          <Tags tags={content.points} />
        </Row>
        <Row label="Trades">{content.trades.join(", ") || "none named"}</Row>
        <Row label="Tools">{content.tools.join(", ") || "none named"}</Row>
        <Row label="On paper">
          <a href={`/procedures/${version.life.number}/placard?version=${version.life.version}`} className="link">
            Placard for the machine (PDF)
          </a>
        </Row>
      </dl>
      <StepList title="Isolate" steps={byPhase("isolate").map(({ words }) => words)} />
      <StepList title="Restore" steps={byPhase("restore").map(({ words }) => words)} />
      <section aria-labelledby="hazards">
        <h2 id="hazards" className="mb-2 text-lg font-semibold">
          Hazards: <span className="num">{content.hazards.length}</span>
        </h2>
        <ul className="border-base-300 divide-base-300 divide-y border-y">
          {content.hazards.map((one) => (
            <li key={one.id} className="py-1.5">
              <strong>{one.hazard}</strong>
              {one.verdict === "rejected" ? `: does not apply, ${one.reason}` : `: ${one.controls.join("; ")}`}
            </li>
          ))}
        </ul>
      </section>
      <section aria-labelledby="permits">
        <h2 id="permits" className="mb-2 text-lg font-semibold">
          Permits: <span className="num">{content.permits.length}</span>
        </h2>
        <ul className="border-base-300 divide-base-300 divide-y border-y">
          {content.permits.map(({ details, words, precautions }) => (
            <li key={details.kind} className="py-1.5">
              <strong className="inline-block first-letter:uppercase">{details.kind}</strong>: {words} {precautions}
            </li>
          ))}
        </ul>
      </section>
    </div>
  );
}

function StepList({ title, steps }: { title: string; steps: readonly string[] }) {
  return (
    <section aria-label={title}>
      <h2 className="mb-2 text-lg font-semibold">
        {title}: <span className="num">{steps.length}</span> steps
      </h2>
      <ol className="border-base-300 divide-base-300 divide-y border-y">
        {steps.map((words, index) => (
          <li key={`${index} ${words}`} className="grid grid-cols-[2rem_1fr] gap-x-2 py-1.5">
            <span className="num">{index + 1}</span>
            <span className="max-w-prose">{words}</span>
          </li>
        ))}
      </ol>
    </section>
  );
}

function Row({ label, children }: { label: string; children: ReactNode }) {
  return (
    <>
      <dt className="opacity-85">{label}</dt>
      <dd className="max-w-prose">{children}</dd>
    </>
  );
}
