import { ActForm } from "../act/ActForm";
import { Field } from "../act/Field";
import { clock, dayAndClock } from "../text/when";

type Test = Readonly<{
  number: string;
  state: "asked" | "running" | "ended" | "called off";
  purpose: string;
  lift: readonly string[];
  askedBy: string;
  askedAt_ms: number;
  endedAt_ms: number | null;
  affected: readonly Readonly<{
    job: string;
    agreedBy: string | null;
    agreedAt_ms: number | null;
    peopleOn: readonly string[];
    mayAgree: readonly string[];
  }>[];
}>;
type Props = Readonly<{
  isolation: string;
  state: string;
  held: readonly string[];
  tests: readonly Test[];
  person: Readonly<{ id: string; roles: readonly string[] }>;
  timeZone: string;
}>;

/** Points lifted for a while, for a test, jogging or positioning: who would be lit, who agreed, and what is open. */
export function TemporaryRestores({ isolation, state, held, tests, person, timeZone }: Props) {
  const may = (...roles: string[]) => roles.some((role) => person.roles.includes(role));
  const open = tests.filter((one) => one.state === "asked" || one.state === "running");
  const over = tests.filter((one) => one.state === "ended");
  return (
    <>
      {open.map((test) => (
        <section
          key={test.number}
          aria-label={`Temporary de-isolation ${test.number}`}
          className="border-warning mb-6 space-y-3 border-l-4 pl-4"
        >
          <h3 className="text-lg font-semibold">
            Temporary de-isolation <span className="tag">{test.number}</span>:{" "}
            {test.state === "asked" ? "asked for" : "points are lifted"}
          </h3>
          <p className="max-w-prose">
            {test.purpose} Lifts <span className="tag whitespace-normal">{test.lift.join(", ")}</span>. Asked by{" "}
            {test.askedBy}, <span className="num">{dayAndClock(test.askedAt_ms, timeZone)}</span>.
          </p>
          <h4 className="font-medium">Would be lit, or lose a barrier</h4>
          <ul className="space-y-3">
            {test.affected.map((one) => (
              <li key={one.job}>
                <p>
                  <span className="tag">{one.job}</span>:{" "}
                  {one.peopleOn.length > 0 ? <strong>still on: {one.peopleOn.join(", ")}</strong> : "nobody is on"};{" "}
                  {one.agreedBy
                    ? `${one.agreedBy} signed, ${clock(one.agreedAt_ms ?? 0, timeZone)}: tools and people clear`
                    : "its holder has not signed yet"}
                </p>
                {test.state === "asked" && one.agreedBy === null && one.mayAgree.includes(person.id) && (
                  <div className="mt-2">
                    <ActForm
                      act="test.agree"
                      label={`Agree for ${one.job}`}
                      fixed={{ test: test.number, job: one.job }}
                      pin
                      compact
                      button="Tools out, everybody off and clear"
                      tone="strong"
                    />
                  </div>
                )}
              </li>
            ))}
          </ul>
          {test.state === "asked" && may("coordinator") && (
            <ActForm
              act="test.start"
              label={`Start ${test.number}`}
              fixed={{ test: test.number }}
              pin
              compact
              button="Open the box and start"
              tone="strong"
            />
          )}
          {test.state === "asked" && may("coordinator", "issuer", "holder") && (
            <ActForm
              act="test.call-off"
              label={`Call off ${test.number}`}
              fixed={{ test: test.number }}
              pin
              compact
              button="Call it off"
            />
          )}
          {test.state === "running" && (
            <p className="font-medium">
              Nobody signs on to these jobs until every point is locked again and proved afresh, by the steps below.
            </p>
          )}
        </section>
      ))}
      {over.map((test) => (
        <p key={test.number} className="mb-3 text-sm">
          <span className="tag">{test.number}</span>: {test.purpose} Lifted{" "}
          <span className="tag whitespace-normal">{test.lift.join(", ")}</span>, locked and proved again by{" "}
          <span className="num">{dayAndClock(test.endedAt_ms ?? 0, timeZone)}</span>.
        </p>
      ))}
      {open.length === 0 && state === "proven" && held.length > 0 && may("coordinator", "issuer", "holder") && (
        <details className="border-base-300 border-t py-2">
          <summary className="min-h-11 cursor-pointer content-center font-medium">
            Lift points for a test, jogging or positioning
          </summary>
          <p className="my-2 max-w-prose text-sm">
            The engine finds whose work it would reach; each of their holders signs that everybody is off and clear. The
            points are lifted by the normal steps, locked again and proved afresh.
          </p>
          <AskTest isolation={isolation} held={held} />
        </details>
      )}
    </>
  );
}

function AskTest({ isolation, held }: { isolation: string; held: readonly string[] }) {
  return (
    <ActForm
      act="test.ask"
      label="Ask for a temporary de-isolation"
      fixed={{ isolation }}
      listFields={["lift"]}
      pin
      button="Ask the engine, then the holders"
    >
      <fieldset data-field="lift">
        <legend className="mb-1 text-sm font-medium">Points to lift</legend>
        <div className="flex flex-wrap gap-x-6 gap-y-1">
          {held.map((tag) => (
            <label key={tag} className="flex min-h-11 items-center gap-3">
              <input type="checkbox" name="lift" value={tag} className="checkbox" />
              <span className="tag">{tag}</span>
            </label>
          ))}
        </div>
      </fieldset>
      <Field label="What is tested" name="purpose" maxLength={500} />
    </ActForm>
  );
}
