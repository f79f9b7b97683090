import { Link } from "@/ui/text/Link";
import type { PermitRequired } from "@/core/hazard/permitsRequired";
import { isMinor } from "@/core/minor/minorSteps";
import { firstTimes } from "@/core/permit/kinds/firstTimes";
import { kindRule, WRITTEN_KINDS, type PermitKind } from "@/core/permit/kinds/kinds";
import { draftDefaults } from "@/server/permit/draftDefaults";
import { exchangesOf } from "@/server/box/boxView";
import { peopleToChoose, type JobView } from "@/server/job/jobView";
import { permitState } from "@/core/words/en/permitState";
import { requestTime_ms, siteTimeZone } from "@/server/runtime/siteTime";
import type { Person } from "@/server/people/signIn";
import { CrewForm } from "@/ui/job/CrewForm";
import { Exchanges } from "@/ui/locks/ExchangeForm";
import { PermitDraftForm } from "@/ui/job/PermitDraftForm";
import { PermitsForm } from "@/ui/job/PermitsForm";
import { dayAndClock } from "@/ui/text/when";
import { WideTable } from "@/ui/text/WideTable";
import { permitsToWrite } from "./permitsToWrite";

type Props = Readonly<{ view: JobView; person: Person; kind: PermitKind | null }>;

export function PermitsStage({ view, person, kind: asked }: Props) {
  const timeZone = siteTimeZone();
  const mayWrite = person.roles.some((role) => role === "coordinator" || role === "issuer" || role === "holder");
  const required = draftDefaults(view, "general").required;
  const { isolation } = view;
  const isAlone = isolation !== null && isolation.state !== "restored" && isMinor(isolation.steps);
  const unwritten = (isAlone ? [] : required).filter(
    ({ kind }) => !view.permits.some((permit) => permit.kind === kind && permit.state !== "cancelled"),
  );
  // The first that is required and nobody wrote yet, unless another is asked for.
  const kind = asked ?? unwritten[0]?.kind ?? "general";
  const rule = kindRule(kind);
  const defaults = draftDefaults(view, kind);
  const choices = peopleToChoose();
  // All that is required at once, unless one kind is asked for.
  const all = asked === null ? permitsToWrite(view, person) : null;
  const standing = view.isolation && view.isolation.state !== "restored" && view.isolation.state !== "restoring";
  return (
    <div className="space-y-10">
      <section>
        <h2 className="mb-2 text-lg font-semibold">Permits of this job</h2>
        {view.permits.length === 0 && unwritten.length === 0 ? (
          <p>None yet.</p>
        ) : (
          <WideTable label="Permits of this job">
            <table className="table max-w-4xl">
              <thead>
                <tr>
                  <th>Permit</th>
                  <th>Kind</th>
                  <th>State</th>
                  <th>Signed on</th>
                  <th>Expires</th>
                  <th>Work</th>
                </tr>
              </thead>
              <tbody>
                {view.permits.map((permit) => (
                  <tr key={permit.number}>
                    <td>
                      <Link href={`/permits/${permit.number}`} className="tag link">
                        {permit.number}
                      </Link>
                    </td>
                    <td className="whitespace-nowrap">{permit.kind}</td>
                    <td className="whitespace-nowrap">
                      {permit.state === "run out" || permit.state === "suspended" ? (
                        <strong>{permitState(permit.state)}</strong>
                      ) : (
                        permitState(permit.state)
                      )}
                    </td>
                    <td className="num">{permit.on}</td>
                    <td className="num">{dayAndClock(permit.validTo_ms, timeZone)}</td>
                    <td>{permit.words}</td>
                  </tr>
                ))}
                {unwritten.map(({ kind, because }) => (
                  <tr key={kind}>
                    <td>not written</td>
                    <td className="whitespace-nowrap">{kind}</td>
                    <td colSpan={3}>required before work of this kind</td>
                    <td>{because}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </WideTable>
        )}
      </section>
      {isAlone ? (
        <p className="max-w-prose">
          This job goes by the short route: one person, one lock, one record, and no other permit beside it. What is
          more than that is given up, restored, and planned in full.
        </p>
      ) : (
        <section className="grid gap-10 lg:grid-cols-[minmax(0,1.4fr)_minmax(0,1fr)]">
          <div>
            <h2 className="mb-3 text-lg font-semibold">
              {all === null ? "Write a permit" : "Write the permits that the hazards require"}
            </h2>
            <KindChoice job={view.number} kind={all === null ? kind : null} required={required} />
            {!standing && rule.isolation && (
              <p>
                A permit stands on an isolation.{" "}
                <Link className="link" href={`/jobs/${view.number}/points`}>
                  Approve the points
                </Link>{" "}
                first.
              </p>
            )}
            {(standing || !rule.isolation) && !mayWrite && (
              <p>The holder, an issuer or a coordinator writes the permit.</p>
            )}
            {all !== null && standing && mayWrite && (
              <PermitsForm key={`${all.toWrite.length} ${person.units}`} {...all} />
            )}
            {all === null && (standing || !rule.isolation) && mayWrite && (
              <PermitDraftForm
                key={`${kind} ${person.units}`}
                job={view.number}
                kind={kind}
                longest_h={rule.longest_h}
                words={view.work}
                hazards={defaults.hazards}
                precautions={defaults.precautions}
                holder={view.holderId}
                leads={choices.filter(({ roles }) => roles.includes("holder"))}
                people={choices.map(({ id, name }) => ({ id, name }))}
                defaults={defaults.details}
                units={person.units}
                {...firstTimes({
                  now_ms: requestTime_ms(),
                  windowFrom_ms: view.windowFrom_ms,
                  windowTo_ms: view.windowTo_ms,
                  longest_h: rule.longest_h,
                })}
                timeZone={timeZone}
              />
            )}
          </div>
          <div>
            <Crew view={view} mayChange={mayWrite} />
            <Exchanges
              job={view.number}
              exchanges={exchangesOf(view.number)}
              mayExchange={person.roles.includes("coordinator")}
              timeZone={timeZone}
            />
            <h2 className="mt-8 mb-3 text-lg font-semibold">Lock box</h2>
            {view.boxes.length === 0 && <p>None yet: it comes with the isolation.</p>}
            {view.boxes.map((box) => (
              <div key={box.number}>
                <p>
                  Box{" "}
                  <Link href={`/boxes/${box.number}`} className="tag link">
                    {box.number}
                  </Link>
                  , {box.state}
                </p>
                {box.locks.length === 0 ? (
                  <p className="mt-1">No personal lock hangs on it.</p>
                ) : (
                  <ol className="mt-2 space-y-1">
                    {box.locks.map((lock) => (
                      <li key={lock.lock}>
                        <span className="tag mr-3">{lock.lock}</span>
                        {lock.person}, since {dayAndClock(lock.onAt, timeZone)}
                      </li>
                    ))}
                  </ol>
                )}
              </div>
            ))}
          </div>
        </section>
      )}
    </div>
  );
}

/** Which kind is written; those that the hazards ask for come first, with what asked. */
function KindChoice({
  job,
  kind,
  required,
}: {
  job: string;
  /** Null where all that are required are written at once. */
  kind: PermitKind | null;
  required: readonly PermitRequired[];
}) {
  const link = (one: PermitKind) => (
    <Link
      key={one}
      href={`/jobs/${job}/permits?kind=${encodeURIComponent(one)}`}
      aria-current={one === kind ? "true" : undefined}
      className={`hover:bg-base-200 rounded-sm px-2 py-1 ${one === kind ? "decoration-accent font-semibold underline decoration-2 underline-offset-8" : ""}`}
    >
      {one}
    </Link>
  );
  const asked = required.map((one) => one.kind);
  return (
    <nav aria-label="Kind of permit" className="mb-5">
      <dl className="grid grid-cols-[5rem_1fr] items-baseline gap-y-1">
        <dt className="text-sm opacity-85">required</dt>
        <dd className="flex flex-wrap gap-x-2">{asked.map(link)}</dd>
        <dt className="text-sm opacity-85">others</dt>
        <dd className="flex flex-wrap gap-x-2">{WRITTEN_KINDS.filter((one) => !asked.includes(one)).map(link)}</dd>
      </dl>
      <p className="mt-2 text-sm opacity-85">
        {kind === null
          ? "One kind alone, or one that nothing requires: choose it."
          : `${kindRule(kind).words}. ${required.find((one) => one.kind === kind)?.rule ?? ""}`}
      </p>
    </nav>
  );
}

/** Who may sign on. */
function Crew({ view, mayChange }: { view: JobView; mayChange: boolean }) {
  return (
    <section aria-label="Crew">
      <h2 className="mb-2 text-lg font-semibold">Crew</h2>
      <p>{view.crew.length === 0 ? "Nobody is named." : view.crew.join(", ")}</p>
      {mayChange && view.state === "open" && (
        <CrewForm
          job={view.number}
          crew={view.crewIds}
          people={peopleToChoose().map(({ id, name }) => ({ id, name }))}
        />
      )}
    </section>
  );
}
