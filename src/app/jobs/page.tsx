import { Link } from "@/ui/text/Link";
import { permitState } from "@/core/words/en/permitState";
import type { JobState } from "@/core/job/jobLife";
import {
  OPEN_JOB_SORTS,
  openJobsList,
  PAST_JOB_SORTS,
  PAST_STATES,
  pastJobsList,
  type OpenJob,
} from "@/server/job/jobsList";
import { requirePerson } from "@/server/people/session";
import { requestTime_ms, siteTimeZone } from "@/server/runtime/siteTime";
import { FindForm, ListChoice } from "@/ui/list/FindForm";
import { ListHead } from "@/ui/list/ListHead";
import { ListPages } from "@/ui/list/ListPages";
import { readListQuery } from "@/ui/list/listQuery";
import { SoftLinks } from "@/ui/text/SoftLinks";
import { dayAndClock } from "@/ui/text/when";
import { WideTable } from "@/ui/text/WideTable";

export const metadata = { title: "Jobs" };

type Params = Readonly<Record<string, string | string[] | undefined>>;

const WORDS = "Number, work, place or holder";
const STATES = [
  ["open", "open"],
  ["closed", "closed"],
  ["withdrawn", "withdrawn"],
] as const satisfies readonly (readonly [JobState, string])[];

/** Every job: the open ones with their next act, those that cannot wait first; the closed and the withdrawn by themselves. */
export default async function JobsPage({ searchParams }: { searchParams: Promise<Params> }) {
  const person = await requirePerson();
  const params = await searchParams;
  const state = PAST_STATES.find((one) => one === params.state) ?? "open";
  const mayAsk = person.roles.some((role) => role === "coordinator" || role === "holder" || role === "issuer");
  return state === "open" ? <OpenJobs params={params} mayAsk={mayAsk} /> : <PastJobs params={params} state={state} />;
}

const OPEN_COLUMNS = [
  { words: "Job", sort: "number" },
  { words: "Next act", sort: "urgent" },
  { words: "Holder", sort: "holder" },
  { words: "Locks" },
  { words: "People on", sort: "on" },
  { words: "Permits" },
  { words: "Window ends", sort: "until" },
] as const;

function OpenJobs({ params, mayAsk }: { params: Params; mayAsk: boolean }) {
  const query = readListQuery(params, OPEN_JOB_SORTS, { sort: "urgent", down: false });
  const { rows, page, pages, found, openCount, hasPlant } = openJobsList(requestTime_ms(), query);
  const timeZone = siteTimeZone();
  return (
    <div className="px-4 py-4 md:px-5">
      <div className="mb-2 flex flex-wrap items-center gap-x-4 gap-y-2">
        <h1 className="text-2xl font-semibold tracking-tight">Jobs</h1>
        <p className="opacity-85">{openCount === 1 ? "1 open job" : `${openCount} open jobs`}</p>
        <FindForm path="/jobs" query={query} words={WORDS}>
          <ListChoice name="state" words="State" value="open" options={STATES} />
        </FindForm>
        {mayAsk && hasPlant && (
          <Link href="/jobs/new" className="btn btn-primary ml-auto">
            New request
          </Link>
        )}
      </div>
      {openCount === 0 && <p>No open jobs. Everything is back in service.</p>}
      {openCount > 0 && found === 0 && <p>No open job is like that.</p>}
      {rows.length > 0 && (
        <SoftLinks>
          <WideTable label="Open jobs">
            <table className="table">
              <thead>
                <ListHead columns={OPEN_COLUMNS} query={query} path="/jobs" />
              </thead>
              <tbody>
                {rows.map((job) => (
                  <OpenRow key={job.number} job={job} timeZone={timeZone} />
                ))}
              </tbody>
            </table>
          </WideTable>
        </SoftLinks>
      )}
      <ListPages path="/jobs" query={query} page={page} pages={pages} next="Further jobs" />
    </div>
  );
}

function OpenRow({ job, timeZone }: { job: OpenJob; timeZone: string }) {
  return (
    <tr className="hover:bg-base-200">
      <td className="min-w-64">
        <a href={`/jobs/${job.number}`} className="font-medium hover:underline">
          <span className="tag mr-3">{job.number}</span>
          {job.title}
        </a>
        <span className="tag mt-0.5 block text-sm opacity-85">{job.places.join("  ")}</span>
      </td>
      <td className="min-w-56">
        {job.next && (
          <a
            href={`/jobs/${job.number}/${job.next.stage}`}
            className="link decoration-accent decoration-2 underline-offset-4"
          >
            {job.next.urgent && <strong>Now: </strong>}
            {job.next.words}
          </a>
        )}
        <span className="mt-0.5 block text-sm opacity-85">{job.next?.who.join(" or ")}</span>
      </td>
      <td>{job.holder}</td>
      <td className="num">{job.points === 0 ? "–" : `${job.held.length} of ${job.points}`}</td>
      <td className="num">{job.on}</td>
      <td>
        {job.permits.length === 0 && "none"}
        {job.permits.map((permit) => (
          <a key={permit.number} href={`/permits/${permit.number}`} className="block hover:underline">
            <span className="tag">{permit.number}</span> {permitState(permit.state)}
          </a>
        ))}
      </td>
      <td className="num">{dayAndClock(job.windowTo_ms, timeZone)}</td>
    </tr>
  );
}

const PAST_COLUMNS = [
  { words: "Job", sort: "number" },
  { words: "Work locations" },
  { words: "Holder", sort: "holder" },
  { words: "Window ended", sort: "until" },
] as const;

function PastJobs({ params, state }: { params: Params; state: JobState }) {
  const query = readListQuery(params, PAST_JOB_SORTS, { sort: "number", down: true });
  const { rows, page, pages, found } = pastJobsList(state, query);
  const timeZone = siteTimeZone();
  const more = { state };
  return (
    <div className="px-4 py-4 md:px-5">
      <div className="mb-2 flex flex-wrap items-center gap-x-4 gap-y-2">
        <h1 className="text-2xl font-semibold tracking-tight">Jobs</h1>
        <p className="opacity-85">
          <span className="num">{found}</span> {state}
        </p>
        <FindForm path="/jobs" query={query} words={WORDS}>
          <ListChoice name="state" words="State" value={state} options={STATES} />
        </FindForm>
      </div>
      {rows.length === 0 ? (
        <p>{query.find === "" ? `No job is ${state}.` : `No ${state} job is like that.`}</p>
      ) : (
        <WideTable label={`Jobs, ${state}`}>
          <table className="table max-w-6xl">
            <thead>
              <ListHead columns={PAST_COLUMNS} query={query} path="/jobs" more={more} />
            </thead>
            <tbody>
              {rows.map((job) => (
                <tr key={job.number} className="hover:bg-base-200">
                  <td className="min-w-64">
                    <Link href={`/jobs/${job.number}`} className="hover:underline">
                      <span className="tag mr-3">{job.number}</span>
                      {job.title}
                    </Link>
                  </td>
                  <td className="tag">{job.places.join("  ")}</td>
                  <td>{job.holder}</td>
                  <td className="num">{dayAndClock(job.windowTo_ms, timeZone)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </WideTable>
      )}
      <ListPages path="/jobs" query={query} more={more} page={page} pages={pages} />
    </div>
  );
}
