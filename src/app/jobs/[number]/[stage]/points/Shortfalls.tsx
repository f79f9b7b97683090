import { shortfallsNotAccepted, wayOf } from "@/core/plan/deviations";
import type { Plan } from "@/core/plan/plan";
import type { Shortfall } from "@/core/judge/routes";
import { profileOf } from "@/core/requirement/profiles";
import type { JobView } from "@/server/job/jobView";
import type { Person } from "@/server/people/signIn";
import type { StoredDeviation } from "@/server/job/deviationStore";
import { siteTime, siteTimeZone } from "@/server/runtime/siteTime";
import { Tags } from "@/ui/text/Tags";
import { WideTable } from "@/ui/text/WideTable";
import { siteField } from "@/ui/text/siteInstant";
import { AcceptDeviation, RenewDeviations } from "@/ui/job/AcceptDeviation";

type Group = {
  required: string;
  grade: string;
  proved: Shortfall["proved"];
  because: readonly string[];
  face: string;
  rows: Shortfall[];
};

/** What the plant cannot hold as asked, alike ways together, and the people who answer for it. */
export function Shortfalls({
  view,
  plan,
  accepted,
  person,
}: {
  view: JobView;
  plan: Plan;
  accepted: readonly StoredDeviation[];
  person: Person;
}) {
  if (plan.shortfalls.length === 0) return null;
  const open = new Set(shortfallsNotAccepted(plan, accepted).map(wayOf));
  const groups = new Map<string, Group>();
  for (const row of plan.shortfalls) {
    const required = row.noWayOut ? "a way to empty it" : (row.requiredGrade ?? `${row.required} barriers`);
    const key = [row.face, required, row.grade, row.proved, ...row.because].join("\u0000");
    const group = groups.get(key) ?? {
      required,
      grade: row.grade,
      proved: row.proved,
      because: row.because,
      face: row.face,
      rows: [],
    };
    group.rows.push(row);
    groups.set(key, group);
  }
  const measures = profileOf(plan.profile).measures;
  const acceptedBy = (way: string) => accepted.findLast((one) => one.way === way);
  return (
    <section aria-labelledby="short" className="border-error border-l-4 pl-4">
      <h2 id="short" className="text-lg font-semibold">
        {plan.shortfalls.length} {plan.shortfalls.length === 1 ? "shortfall" : "shortfalls"} against what the rules ask
      </h2>
      <p className="mb-3 max-w-prose">
        The plan holds the best that was found.{" "}
        {open.size === 0
          ? "Each was accepted by an approver, with what is done instead."
          : `It stays open until an approver accepts ${open.size === 1 ? "it" : "each"} with what is done instead, or the job or the plant is changed.`}
      </p>
      <WideTable label="Shortfalls">
        <table className="w-full">
          <thead className="sr-only">
            <tr>
              <th>Path</th>
              <th>Asked, best found, and why</th>
            </tr>
          </thead>
          <tbody>
            {[...groups.values()].map((group) => {
              const left = group.rows.filter((row) => open.has(wayOf(row)));
              const done = group.rows.map((row) => acceptedBy(wayOf(row))).find(Boolean);
              return (
                <tr
                  key={`${group.face}${group.required}${group.grade}${group.proved}${group.rows[0]?.source}`}
                  className="border-base-300 border-t align-top"
                >
                  <td className="w-44 py-2 pr-3">
                    <Tags tags={group.rows.map((row) => row.source)} most={5} />
                    <span className="block text-sm">
                      to <span className="tag">{group.face}</span>
                    </span>
                  </td>
                  <td className="py-2 text-sm">
                    asked {group.required}, best found <strong>{group.grade}</strong>
                    {group.proved === "impossible" ? "; more is impossible on this plant" : "; not proved impossible"}
                    <span className="block">{group.because.join("; ") || "no device of that kind on the path"}</span>
                    <span className="block">
                      {left.length > 0 ? (
                        <strong>not accepted{left.length < group.rows.length ? `: ${left.length}` : ""}</strong>
                      ) : (
                        done &&
                        `accepted by ${done.by}, ${siteTime(done.at_ms)}, until ${siteTime(done.until_ms)}: ${done.reason}`
                      )}
                    </span>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </WideTable>
      {open.size > 0 && !view.isolation && person.roles.includes("approver") && (
        <AcceptDeviation
          job={view.number}
          objective={plan.objective}
          school={plan.school}
          ways={plan.shortfalls.map(wayOf).filter((way) => open.has(way))}
          measures={measures
            .filter((measure) => plan.shortfalls.some((row) => row.measures.includes(measure.id)))
            .map(({ id, words }) => ({ id, words }))}
          until={siteField(view.windowTo_ms, siteTimeZone())}
        />
      )}
      {accepted.length > 0 && view.state === "open" && person.roles.includes("approver") && (
        <RenewDeviations job={view.number} until={siteField(view.windowTo_ms, siteTimeZone())} />
      )}
    </section>
  );
}
