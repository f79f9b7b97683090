import { Link } from "@/ui/text/Link";
import type { Alternative, Comparison } from "@/core/plan/compare";
import type { JobView } from "@/server/job/jobView";
import type { Person } from "@/server/people/signIn";
import { ActForm } from "@/ui/act/ActForm";
import { Tick } from "@/ui/act/Field";
import { Tags } from "@/ui/text/Tags";

const OBJECTIVE_WORDS: Readonly<Record<Alternative["objective"], string>> = {
  balanced: "Balanced",
  effort: "Least effort",
  "fewest locks": "Fewest locks",
  "least outage": "Least outage",
  quickest: "Quickest",
};

/** The plans that differ, with what tells them apart; the one in the drawing is chosen here. */
export function Alternatives({ view, comparison, shown }: { view: JobView; comparison: Comparison; shown: number }) {
  const { alternatives, recommended, reason } = comparison;
  const [first] = alternatives;
  const common = new Set(first?.devices.filter((tag) => alternatives.every((one) => one.devices.includes(tag))));
  if (alternatives.length === 1) {
    return <p className="text-sm">Every objective, at the work and at the supply, chooses these points.</p>;
  }
  return (
    <section aria-label="Plans that differ">
      <p className="mb-2 text-sm">
        {alternatives.length} plans differ. Recommended: {alternativeName(alternatives[recommended]!)}. {reason}
      </p>
      <ul className="border-base-300 divide-base-300 divide-y rounded-sm border">
        {alternatives.map((alternative, index) => {
          const apart = alternative.devices.filter((tag) => !common.has(tag));
          const least = (what: (typeof alternative.best)[number]) => (alternative.best.includes(what) ? ", least" : "");
          return (
            <li
              key={alternativeName(alternative)}
              className={index === shown ? "bg-base-200 shadow-[inset_4px_0_0_var(--color-accent)]" : ""}
            >
              <Link
                href={`/jobs/${view.number}/points?plan=${index}`}
                scroll={false}
                aria-current={index === shown ? "true" : undefined}
                className="block px-3 py-2"
              >
                <span className={index === shown ? "font-semibold" : "link"}>{alternativeName(alternative)}</span>
                {index === recommended && <span className="text-sm">, recommended</span>}
                {alternative.exact && <span className="text-sm">, proved cheapest</span>}
                <span className="num block text-sm whitespace-normal">
                  {alternative.locks} locks{least("fewest locks")} · {alternative.minutes} min{least("quickest")} ·{" "}
                  {alternative.shortfalls === 1 ? "1 shortfall" : `${alternative.shortfalls} shortfalls`} · weakest{" "}
                  {alternative.weakest}
                </span>
                <span className="block text-sm">
                  {apart.length > 0 ? (
                    <>
                      Only here: <Tags tags={apart} />
                    </>
                  ) : (
                    "No points of its own"
                  )}
                  {alternative.dark.length > 0 && (
                    <>
                      . Cuts off besides: <Tags tags={alternative.dark} most={3} />
                    </>
                  )}
                  {alternative.alsoStops > 0 && `. ${alternative.alsoStops} cannot go on as they are`}
                </span>
              </Link>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** The plan in the drawing is approved here, by a coordinator. */
export function Approve({
  view,
  comparison,
  shown,
  person,
  isAlone,
  differs,
}: Readonly<{
  view: JobView;
  comparison: Comparison;
  shown: number;
  person: Person;
  /** No permits are offered to be written with it. */
  isAlone: boolean;
  /** Something is otherwise than the procedure says by which it was asked for. */
  differs: boolean;
}>) {
  const one = comparison.alternatives[shown]!;
  if (!person.roles.includes("coordinator")) return <p>A coordinator approves the plan.</p>;
  return (
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
      button={`Approve: ${alternativeName(one)}`}
      tone={isAlone ? "strong" : "plain"}
      then={`/jobs/${view.number}/walk`}
    >
      {differs && <Tick name="readDifferences" label="I have read what is otherwise than the procedure says" />}
    </ActForm>
  );
}

export function alternativeName({ objective, school }: Alternative): string {
  return `${OBJECTIVE_WORDS[objective]}, ${school === "work" ? "at the work" : "at the supply"}`;
}
