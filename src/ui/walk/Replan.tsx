import { ActForm } from "../act/ActForm";
import { AcceptDeviation } from "../job/AcceptDeviation";

/** The plan that the isolation would go on with, against what hangs now. */
type ReplanView = Readonly<{
  plantRevision: number;
  /** The plan does not hold on the register of today; else a step is stuck. */
  fell: boolean;
  fault: string | null;
  kept: readonly string[];
  added: readonly string[];
  spare: readonly string[];
  short: readonly Readonly<{ way: string; source: string; face: string; required: string; grade: string }>[];
  objective: string;
  school: string;
  measures: readonly Readonly<{ id: string; words: string }>[];
}>;

/** A step is stuck, or the plan fell: what the engine would do instead, against what hangs now. Nothing is skipped. */
export function Replan({
  isolation,
  view,
  mayApprove,
  job,
  until,
}: {
  isolation: string;
  view: ReplanView;
  mayApprove: boolean;
  job: string;
  /** The end of the job's window, as a field holds it. */
  until: string;
}) {
  const tags = (list: readonly string[]) => (list.length === 0 ? "none" : list.join(", "));
  return (
    <section aria-label="Plan again" className="border-warning mb-6 space-y-3 border-l-4 pl-4">
      <h3 className="text-lg font-semibold">
        {view.fell ? "The plan does not hold on the register of today" : "A step cannot be done as planned"}
      </h3>
      {view.fault ? (
        <p>There is no other plan: {view.fault}. Change the job or the plant, or free the step.</p>
      ) : (
        <>
          <dl className="grid grid-cols-[7rem_1fr] gap-x-4 gap-y-1">
            <dt>Stays locked</dt>
            <dd className="tag whitespace-normal">{tags(view.kept)}</dd>
            <dt>Locked besides</dt>
            <dd className="tag whitespace-normal">{tags(view.added)}</dd>
            <dt>Not needed</dt>
            <dd className="tag whitespace-normal">
              {tags(view.spare)}
              {view.spare.length > 0 && <span className="font-sans font-normal">; locked until the return</span>}
            </dd>
          </dl>
          {view.short.length > 0 && (
            <div className="space-y-2">
              <p className="font-medium">
                The new plan falls short. An approver answers for each way, or the job waits.
              </p>
              <ul className="list-disc pl-5">
                {view.short.map((one) => (
                  <li key={one.way}>
                    <span className="tag">{one.source}</span> to <span className="tag">{one.face}</span>: {one.grade},
                    asked is {one.required}
                  </li>
                ))}
              </ul>
              <AcceptDeviation
                job={job}
                objective={view.objective}
                school={view.school}
                ways={view.short.map(({ way }) => way)}
                measures={view.measures}
                until={until}
              />
            </div>
          )}
          {view.short.length === 0 && mayApprove && (
            <ActForm
              act="isolation.re-plan"
              label="Approve the new plan"
              fixed={{ isolation, plantRevision: view.plantRevision }}
              pin
              compact
              button="Approve the new plan"
              tone="strong"
            />
          )}
          {view.short.length === 0 && !mayApprove && (
            <p>A coordinator approves it. What comes after is proved again.</p>
          )}
        </>
      )}
    </section>
  );
}
