import { profileOf } from "@/core/requirement/profiles";
import type { JobView } from "@/server/job/jobView";
import { siteTimeZone } from "@/server/runtime/siteTime";
import { dayAndClock, span } from "@/ui/text/when";

export function AskStage({ view }: { view: JobView }) {
  const timeZone = siteTimeZone();
  return (
    <div className="grid max-w-5xl gap-10 md:grid-cols-2">
      <section>
        <h2 className="mb-2 text-lg font-semibold">Work</h2>
        <p className="max-w-prose whitespace-pre-wrap">{view.work}</p>
        <p className="mt-4">
          Planned by the rules {profileOf(view.job.profile).name}
          {view.job.longerThanShift && "; it outlasts one shift"}.
        </p>
        <h2 className="mt-6 mb-2 text-lg font-semibold">Work faces</h2>
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
          <dt className="opacity-85">Holder</dt>
          <dd>{view.holder}</dd>
          <dt className="opacity-85">Crew</dt>
          <dd>{view.crew.join(", ") || "nobody named yet"}</dd>
          <dt className="opacity-85">Asked by</dt>
          <dd>
            {view.askedBy}, {dayAndClock(view.askedAt_ms, timeZone)}
          </dd>
        </dl>
      </section>
    </div>
  );
}
