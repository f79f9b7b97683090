import { Link } from "@/ui/text/Link";
import { decisionsOf, OWNERS, type Hazard, type HazardDecision } from "@/core/hazard/jobHazards";
import { database } from "@/server/db/database";
import { jobHazards } from "@/server/hazard/hazardStore";
import type { JobView } from "@/server/job/jobView";
import type { Person } from "@/server/people/signIn";
import { siteTimeZone } from "@/server/runtime/siteTime";
import { namesOf } from "@/server/people/signIn";
import { ActForm } from "@/ui/act/ActForm";
import { Field, SelectField, TextField } from "@/ui/act/Field";
import { ConditionFields } from "@/ui/job/ConditionFields";
import { HazardRound } from "@/ui/job/HazardRound";
import { dayAndClock } from "@/ui/text/when";

/** Job hazard analysis: what is proposed, what people made of it, what is open, and which permits it asks for. */
export function HazardsStage({ view, person }: { view: JobView; person: Person }) {
  const db = database();
  const now = jobHazards(db, view.number);
  if (now === null) return <p>No plant register was imported, so nothing can be proposed.</p>;
  const nameOf = namesOf(db);
  const timeZone = siteTimeZone();
  const decided = decisionsOf(now.hazards);
  const added = now.hazards.decisions.filter(({ verdict }) => verdict === "added");
  const mayDecide = person.roles.some((role) => role === "coordinator" || role === "issuer" || role === "holder");
  const isOpen = view.state === "open";
  const left = now.proposed.filter(({ id }) => !decided.has(id));
  const settled = now.proposed.filter(({ id }) => decided.has(id));
  const fixed = { job: view.number };
  return (
    <div className="grid gap-x-14 gap-y-10 lg:grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)]">
      <section aria-labelledby="proposed" className="space-y-4">
        <h2 id="proposed" className="text-lg font-semibold">
          Hazards: <span className="num">{now.proposed.filter(({ id }) => decided.has(id)).length}</span> of{" "}
          <span className="num">{now.proposed.length}</span> decided
        </h2>
        {mayDecide && isOpen && (left.length > 0 || now.hazards.conditions === null) && (
          <HazardRound
            key={left.map(({ id }) => id).join()}
            job={view.number}
            open={left}
            owners={OWNERS}
            asksConditions={now.hazards.conditions === null}
          />
        )}
        <ul className="divide-base-300 border-base-300 divide-y border-y empty:hidden">
          {(mayDecide && isOpen ? settled : now.proposed).map((hazard) => (
            <HazardRow
              key={hazard.id}
              hazard={hazard}
              decision={decided.get(hazard.id) ?? null}
              by={nameOf(decided.get(hazard.id)?.by ?? "")}
            />
          ))}
          {added.map((one) => (
            <li key={one.id} className="py-3">
              <p>
                <strong>{one.hazard}</strong>, added by {nameOf(one.by)}
              </p>
              <Controls controls={one.controls} owner={one.owner} />
            </li>
          ))}
        </ul>
        {now.unlikely.length > 0 && (
          <p className="text-sm">
            No hazard was made of <span className="num">{now.unlikely.length}</span>{" "}
            {now.unlikely.length === 1 ? "source" : "sources"} that could come only by turning other machines or back
            over a shared board. The plan holds them all the same:{" "}
            <Link href={`/jobs/${view.number}/energies?show=unlikely`} className="link">
              see them
            </Link>
            .
          </p>
        )}
        <details>
          <summary className="link w-fit cursor-pointer">Add a hazard</summary>
          <div className="mt-3 max-w-xl">
            <ActForm act="hazard.add" label="Add a hazard" fixed={fixed} button="Add it">
              <Field label="The hazard" name="hazard" autoComplete="off" />
              <TextField label="What is done about it, one a line" name="controls" rows={3} />
              <OwnerField />
            </ActForm>
          </div>
        </details>
      </section>
      <div className="space-y-10">
        <section aria-labelledby="required">
          <h2 id="required" className="mb-2 text-lg font-semibold">
            Permits required
          </h2>
          <ul className="space-y-3">
            {now.required.map(({ kind, because, rule }) => (
              <li key={kind}>
                <Link
                  href={`/jobs/${view.number}/permits?kind=${encodeURIComponent(kind)}`}
                  className="link font-semibold"
                >
                  {kind}
                </Link>
                : {because}
                <span className="block text-sm opacity-80">{rule}</span>
              </li>
            ))}
          </ul>
          <p className="mt-3">
            {!now.begun
              ? "Nobody has begun: kinds other than general wait for it."
              : now.open.length === 0
                ? "Everything is decided."
                : `Open: ${now.open.join("; ")}.`}
          </p>
        </section>
        <section aria-labelledby="help">
          <h2 id="help" className="mb-2 text-lg font-semibold">
            Help{now.area ? `, ${now.area.name}` : ""}
          </h2>
          <dl className="grid grid-cols-[8rem_1fr] gap-x-4 gap-y-1">
            {now.help.map(({ what, where }) => (
              <div key={what} className="contents">
                <dt className="opacity-85">{what}</dt>
                <dd>{where ?? <strong>nobody wrote it down: find out</strong>}</dd>
              </div>
            ))}
          </dl>
        </section>
        {(now.hazards.conditions || !mayDecide || !isOpen) && (
          <Conditions view={view} now={now} mayDecide={mayDecide && isOpen} />
        )}
        <section aria-labelledby="questions" className="space-y-3">
          <h2 id="questions" className="text-lg font-semibold">
            Questions for the briefing
          </h2>
          {now.hazards.questions.length === 0 && <p>None yet.</p>}
          {now.hazards.questions.map((question) => (
            <div key={question.id} className="border-base-300 border-t pt-2">
              <p>
                <strong>{question.words}</strong> <span className="text-sm opacity-80">({nameOf(question.by)})</span>
              </p>
              {question.answer ? (
                <p>
                  {question.answer.words}{" "}
                  <span className="text-sm opacity-80">
                    ({nameOf(question.answer.by)}, {dayAndClock(question.answer.at_ms, timeZone)})
                  </span>
                </p>
              ) : (
                <ActForm
                  act="hazard.answer"
                  label={`Answer: ${question.words}`}
                  fixed={{ ...fixed, question: question.id }}
                  button="Answer"
                  compact
                >
                  <Field label="Answer" name="words" autoComplete="off" className="w-64" />
                </ActForm>
              )}
            </div>
          ))}
          <ActForm act="hazard.ask" label="Ask a question" fixed={fixed} button="Ask" compact>
            <Field label="What must somebody answer?" name="words" autoComplete="off" className="w-64" />
          </ActForm>
        </section>
      </div>
    </div>
  );
}

function HazardRow({ hazard, decision, by }: { hazard: Hazard; decision: HazardDecision | null; by: string }) {
  const said = { kept: "kept", changed: "changed", rejected: "does not apply", added: "added" };
  return (
    <li className="py-3">
      <p>
        <strong>{hazard.hazard}</strong>
        {decision && `, ${said[decision.verdict]} by ${by}`}
        {decision?.reason && `: ${decision.reason}`}
      </p>
      <p className="text-sm opacity-85">
        From <span className="tag whitespace-normal">{hazard.because}</span>
        {hazard.source !== "practice" && `. ${hazard.source}`}
      </p>
      {decision?.verdict !== "rejected" && (
        <Controls controls={decision?.controls ?? hazard.controls} owner={decision?.owner ?? hazard.owner} />
      )}
    </li>
  );
}

function Controls({ controls, owner }: { controls: readonly string[]; owner: string }) {
  return (
    <p>
      {controls.join("; ")}. <span className="opacity-85">By the {owner}.</span>
    </p>
  );
}

function OwnerField({ initial }: { initial?: string }) {
  return (
    <SelectField label="Who sees to it" name="owner" defaultValue={initial} className="w-44">
      {OWNERS.map((owner) => (
        <option key={owner}>{owner}</option>
      ))}
    </SelectField>
  );
}

function Conditions({
  view,
  now,
  mayDecide,
}: {
  view: JobView;
  now: NonNullable<ReturnType<typeof jobHazards>>;
  mayDecide: boolean;
}) {
  const { conditions } = now.hazards;
  return (
    <section aria-labelledby="conditions">
      <h2 id="conditions" className="mb-2 text-lg font-semibold">
        Weather, tools and lifts
      </h2>
      {conditions ? (
        <p className="mb-2">
          {conditions.weather}
          {conditions.wind_m_s !== null && `, wind ${conditions.wind_m_s} m/s`}
          {conditions.thunder && ", thunder"}
          {conditions.ice && ", ice"}. Tools: {conditions.tools.join(", ") || "none named"}; looked at:{" "}
          {conditions.inspected.join(", ") || "none"}. Lifts:{" "}
          {conditions.lifts.map(({ what, mass_kg, people }) => `${what}, ${mass_kg} kg by ${people}`).join("; ") ||
            "none"}
          .
        </p>
      ) : (
        <p className="mb-2">Nobody has said.</p>
      )}
      {mayDecide && conditions && (
        <details>
          <summary className="link w-fit cursor-pointer">Change</summary>
          <div className="mt-3">
            <ActForm
              act="hazard.conditions"
              label="Weather, tools and lifts"
              fixed={{ job: view.number }}
              button="Say so"
            >
              <ConditionFields said={conditions} />
            </ActForm>
          </div>
        </details>
      )}
    </section>
  );
}
