"use client";

import { ActForm } from "../act/ActForm";
import { SelectField, TextField } from "../act/Field";
import { dayAndClock } from "../text/when";

type Exchange = Readonly<{
  firm: string;
  people: readonly Readonly<{ id: string; name: string }>[];
  exchanged: Readonly<{ ours: string; theirs: string; lead: string; by: string; at_ms: number }> | null;
}>;

/** Contractors in the crew: what each side told the other of its lockout procedures, before their first lock goes on. */
export function Exchanges({
  job,
  exchanges,
  mayExchange,
  timeZone,
}: {
  job: string;
  exchanges: readonly Exchange[];
  mayExchange: boolean;
  timeZone: string;
}) {
  return exchanges.map((one) => (
    <section key={one.firm} aria-label={`Procedures of ${one.firm}`} className="mt-8">
      <h2 className="mb-2 text-lg font-semibold">Procedures exchanged with {one.firm}</h2>
      {one.exchanged ? (
        <dl className="grid gap-x-4 gap-y-1 sm:grid-cols-[5rem_1fr]">
          <dt>Ours</dt>
          <dd>{one.exchanged.ours}</dd>
          <dt>Theirs</dt>
          <dd>{one.exchanged.theirs}</dd>
          <dt>Signed</dt>
          <dd>
            {one.exchanged.by} and {one.exchanged.lead},{" "}
            <span className="num">{dayAndClock(one.exchanged.at_ms, timeZone)}</span>
          </dd>
        </dl>
      ) : (
        <>
          <p className="mb-3">
            <strong>Not yet.</strong> Until both sides have signed, {one.people.map(({ name }) => name).join(", ")}{" "}
            cannot sign on.
          </p>
          {mayExchange && (
            <ActForm
              act="contractor.exchange"
              label={`Exchange with ${one.firm}`}
              fixed={{ job }}
              pin
              button="Both have signed"
            >
              <TextField label="What they were told of ours" name="ours" rows={2} />
              <TextField label="What we were told of theirs" name="theirs" rows={2} />
              <div className="flex flex-wrap gap-3">
                <SelectField label="Their lead" name="lead" className="w-52">
                  {one.people.map((person) => (
                    <option key={person.id} value={person.id}>
                      {person.name}
                    </option>
                  ))}
                </SelectField>
                <label className="flex flex-col gap-1 text-sm">
                  <span>PIN of their lead</span>
                  <input
                    name="leadPin"
                    type="password"
                    inputMode="numeric"
                    autoComplete="off"
                    className="input num w-28"
                  />
                </label>
              </div>
            </ActForm>
          )}
        </>
      )}
    </section>
  ));
}
