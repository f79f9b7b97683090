import Link from "next/link";
import type { Alternative, Comparison } from "@/core/plan/compare";
import type { JobView } from "@/server/job/jobView";
import type { Person } from "@/server/people/signIn";
import { ActForm } from "@/ui/act/ActForm";
import { Tags } from "@/ui/text/Tags";
import { WideTable } from "@/ui/text/WideTable";

const OBJECTIVE_WORDS: Readonly<Record<Alternative["objective"], string>> = {
  balanced: "Balanced",
  effort: "Least effort",
  "fewest locks": "Fewest locks",
  "least outage": "Least outage",
  quickest: "Quickest",
};

/** The plans that differ, side by side in figures; the one shown below is chosen here and approved here. */
export function Alternatives({
  view,
  comparison,
  shown,
  person,
}: {
  view: JobView;
  comparison: Comparison;
  shown: number;
  person: Person;
}) {
  const { alternatives, recommended, reason } = comparison;
  const [first] = alternatives;
  const common = new Set(first?.devices.filter((tag) => alternatives.every((one) => one.devices.includes(tag))));
  const one = alternatives[shown]!;
  const only = alternatives.length === 1;
  return (
    <section aria-labelledby="plans">
      <h2 id="plans" className="text-lg font-semibold">
        {only ? "Every objective and both schools choose these points" : `${alternatives.length} plans that differ`}
      </h2>
      <p className="mb-3 max-w-prose">{only ? "" : `Recommended: ${name(alternatives[recommended]!)}. ${reason}`}</p>
      <WideTable label="Plans that differ">
        <table className="table">
          <thead>
            <tr>
              <th>Plan</th>
              <th>Locks</th>
              <th>Minutes</th>
              <th>Ways short</th>
              <th>Weakest grade</th>
              <th>Stops besides the work</th>
              <th>{only ? "Points" : "Points that not all share"}</th>
            </tr>
          </thead>
          <tbody>
            {alternatives.map((alternative, index) => (
              <tr key={name(alternative)} className={index === shown ? "bg-base-200" : ""}>
                <td className="w-56">
                  <Link
                    href={`/jobs/${view.number}/points?plan=${index}`}
                    scroll={false}
                    aria-current={index === shown ? "true" : undefined}
                    className={index === shown ? "font-semibold" : "link"}
                  >
                    {name(alternative)}
                  </Link>
                  <span className="block text-sm opacity-85">
                    {[
                      index === shown ? "shown below" : "",
                      index === recommended && !only ? "recommended" : "",
                      alternative.exact ? "proved cheapest" : "",
                    ]
                      .filter(Boolean)
                      .join(", ")}
                  </span>
                </td>
                <Figure value={alternative.locks} best={!only && alternative.best.includes("fewest locks")} />
                <Figure value={alternative.minutes} best={!only && alternative.best.includes("quickest")} />
                <Figure value={alternative.shortfalls} best={false} />
                <td>{alternative.weakest}</td>
                <td>
                  {alternative.dark.length > 0 && (
                    <>
                      <span className="num mr-2">{alternative.dark.length}</span>
                      <Tags tags={alternative.dark} most={3} />
                    </>
                  )}
                  {alternative.alsoStops > 0 && (
                    <span className="block">
                      <span className="num">{alternative.alsoStops}</span> cannot go on as they are
                    </span>
                  )}
                  {alternative.dark.length + alternative.alsoStops === 0 && "nothing"}
                </td>
                <td className="min-w-64">
                  {only ? (
                    <Tags tags={alternative.devices} />
                  ) : alternative.devices.every((tag) => common.has(tag)) ? (
                    "none"
                  ) : (
                    <Tags tags={alternative.devices.filter((tag) => !common.has(tag))} />
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </WideTable>
      <div className="mt-4">
        {person.roles.includes("coordinator") ? (
          <ActForm
            key={shown}
            act="isolation.approve"
            label="Approve the plan shown"
            fixed={{
              job: view.number,
              objective: one.objective,
              school: one.school,
              plantRevision: view.plantRevision,
            }}
            pin
            compact
            button={`Approve: ${name(one)}`}
            tone="strong"
            then={`/jobs/${view.number}/walk`}
          />
        ) : (
          <p>A coordinator approves the plan.</p>
        )}
      </div>
    </section>
  );
}

function name({ objective, school }: Alternative): string {
  return `${OBJECTIVE_WORDS[objective]}, ${school === "work" ? "near the work" : "at the supply"}`;
}

function Figure({ value, best }: { value: number; best: boolean }) {
  return (
    <td className="num whitespace-nowrap">
      {value}
      {best && <span className="ml-2 text-sm font-semibold">least</span>}
    </td>
  );
}
