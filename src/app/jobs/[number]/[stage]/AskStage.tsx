import { Link } from "@/ui/text/Link";
import { HOWS } from "@/core/request/jobFile";
import { PROFILES, profileOf } from "@/core/requirement/profiles";
import { peopleToChoose, type JobView } from "@/server/job/jobView";
import type { Person } from "@/server/people/signIn";
import { procedureViews } from "@/server/library/procedureView";
import { requestTime_ms, siteTimeZone } from "@/server/runtime/siteTime";
import { ActForm } from "@/ui/act/ActForm";
import { Field, SelectField, TextField } from "@/ui/act/Field";
import { AskFormWhenShown } from "@/ui/job/AskFormWhenShown";
import { siteField } from "@/ui/text/siteInstant";
import { dayAndClock, span } from "@/ui/text/when";

export function AskStage({ view, person }: { view: JobView; person: Person }) {
  const timeZone = siteTimeZone();
  const mayChange =
    view.state === "open" &&
    person.roles.some((role) => role === "coordinator" || role === "issuer" || role === "holder");
  return (
    <div className="grid max-w-5xl gap-10 md:grid-cols-2">
      <section>
        <h2 className="mb-2 text-lg font-semibold">Work</h2>
        <p className="max-w-prose whitespace-pre-wrap">{view.work}</p>
        <p className="mt-4">
          Planned by the rules {profileOf(view.job.profile).name}
          {view.job.longerThanShift && "; it outlasts one shift"}.
        </p>
        <h2 className="mt-6 mb-2 text-lg font-semibold">Work locations</h2>
        <table className="table-sm table">
          <thead>
            <tr>
              <th>Place</th>
              <th>How people meet it</th>
              <th>Carriers</th>
            </tr>
          </thead>
          <tbody>
            {view.job.faces.map((face) => (
              <tr key={face.place}>
                <td className="tag">{face.place}</td>
                <td>{face.how.join(", ")}</td>
                <td>
                  {face.carriers ? face.carriers.join(", ") : "all"}
                  {face.reason && <span className="block text-sm">because {face.reason}</span>}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      <section>
        <h2 className="mb-2 text-lg font-semibold">When and who</h2>
        <dl className="grid grid-cols-[7rem_1fr] gap-y-2">
          <dt className="opacity-85">Window</dt>
          <dd>
            {dayAndClock(view.windowFrom_ms, timeZone)} to {dayAndClock(view.windowTo_ms, timeZone)},{" "}
            {span(view.windowTo_ms - view.windowFrom_ms)}
          </dd>
          <dt className="opacity-85">Permit holder</dt>
          <dd>{view.holder}</dd>
          <dt className="opacity-85">Crew</dt>
          <dd>{view.crew.join(", ") || "nobody named yet"}</dd>
          {view.like && (
            <>
              <dt className="opacity-85">As</dt>
              <dd>
                <Link href={`/jobs/${view.like}`} className="link tag">
                  {view.like}
                </Link>{" "}
                was
              </dd>
            </>
          )}
          {view.procedure && (
            <>
              <dt className="opacity-85">By</dt>
              <dd>
                <Link
                  href={`/procedures/${view.procedure.number}?version=${view.procedure.version}`}
                  className="link tag"
                >
                  {view.procedure.number}
                </Link>{" "}
                version <span className="num">{view.procedure.version}</span>
              </dd>
            </>
          )}
          <dt className="opacity-85">Requested by</dt>
          <dd>
            {view.askedBy}, {dayAndClock(view.askedAt_ms, timeZone)}
          </dd>
        </dl>
        <p className="mt-6">
          <Link href={`/jobs/new?like=${view.number}`} className="link">
            Request the same again
          </Link>
        </p>
        {view.state === "closed" && person.roles.some((role) => role === "coordinator" || role === "isolator") && (
          <ToLibrary view={view} />
        )}
        {view.state === "withdrawn" && <p className="mt-6 text-lg font-semibold">The job was withdrawn.</p>}
      </section>
      {mayChange && <Change view={view} timeZone={timeZone} />}
    </div>
  );
}

/** What was asked, put right or taken back while that is still possible. */
function Change({ view, timeZone }: { view: JobView; timeZone: string }) {
  const { profile, longerThanShift, faces } = view.job;
  const standing = view.isolation && view.isolation.state !== "restored";
  return (
    <section className="space-y-4 md:col-span-2" aria-label="Change or withdraw">
      <details>
        <summary className="link w-fit cursor-pointer">Change the request</summary>
        <p className="mt-3 mb-4">
          {standing
            ? "An isolation stands for it: words, window and holder may change, the work locations and the rules not."
            : "Other work locations or rules make another plan: the hazards are then gone through anew."}
        </p>
        <AskFormWhenShown
          key={JSON.stringify([view.job, view.title, view.work, view.windowFrom_ms, view.windowTo_ms, view.holderId])}
          places={faces.map(({ place }) => place)}
          people={peopleToChoose()}
          hows={HOWS}
          profiles={PROFILES.map(({ id, name }) => ({ id, name }))}
          change={{
            job: view.number,
            title: view.title,
            work: view.work,
            faces,
            profile,
            longerThanShift,
            from: siteField(view.windowFrom_ms, timeZone),
            to: siteField(view.windowTo_ms, timeZone),
            holder: view.holderId,
          }}
        />
      </details>
      {!standing && (
        <details>
          <summary className="link w-fit cursor-pointer">Withdraw the job</summary>
          <div className="mt-3">
            <ActForm act="job.withdraw" label="Withdraw the job" fixed={{ job: view.number }} pin button="Withdraw it">
              <TextField label="Why" name="words" rows={2} />
            </ActForm>
          </div>
        </details>
      )}
    </section>
  );
}

/** What went all the way becomes a procedure for the next time, or the next version of one. */
function ToLibrary({ view }: { view: JobView }) {
  const known = procedureViews(requestTime_ms());
  return (
    <details className="mt-4">
      <summary className="link w-fit cursor-pointer">Write it into the library of procedures</summary>
      <p className="mt-3 mb-3 max-w-prose">
        Its points, steps, hazards and permits become a version. Two others approve it before work is requested by it.
      </p>
      <ActForm
        act="procedure.write"
        label="Write a procedure"
        fixed={{ job: view.number }}
        pin
        button="Write the version"
        then="/procedures/{procedure}?version={version}"
      >
        <Field label="What it is for" name="title" maxLength={120} defaultValue={view.title} autoComplete="off" />
        <SelectField label="Of" name="procedure" className="w-72" defaultValue={view.procedure?.number ?? ""}>
          <option value="">a new procedure</option>
          {known.map(({ number, title }) => (
            <option key={number} value={number}>
              {number}, {title}
            </option>
          ))}
        </SelectField>
      </ActForm>
    </details>
  );
}
