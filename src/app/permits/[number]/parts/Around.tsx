import { Link } from "@/ui/text/Link";
import { mayDo, type PermitView } from "@/server/permit/permitView";
import type { Person } from "@/server/people/signIn";
import { ActForm } from "@/ui/act/ActForm";
import { Field, SelectField, Tick } from "@/ui/act/Field";
import { dayAndClock } from "@/ui/text/when";

type Props = Readonly<{ permit: PermitView; person: Person; timeZone: string }>;

/** Where it touches other permits, with what a person decided. */
export function Clashes({ permit, person, timeZone }: Props) {
  if (permit.clashes.length === 0) return null;
  return (
    <section aria-labelledby="clashes">
      <h2 id="clashes" className="mb-2 text-lg font-semibold">
        Touches other permits
      </h2>
      <ul className="space-y-4">
        {permit.clashes.map(({ id, kind, words, with: other, decided }) => (
          <li key={id} className="border-base-300 border-t pt-2">
            <p>
              <strong>{kind.charAt(0).toUpperCase() + kind.slice(1)}</strong>, with{" "}
              <Link className="link tag" href={`/permits/${other}`}>
                {other}
              </Link>
              : {words}
            </p>
            {decided && (
              <p>
                {decided.decision === "go on" ? "Both go on" : "This one waits"}: {decided.reason}{" "}
                <span className="num text-sm">({dayAndClock(decided.at_ms, timeZone)})</span>
              </p>
            )}
            {decided === null && !mayDo(permit, person, "decide clash") && (
              <p className="text-sm opacity-85">Not decided: the coordinator or an issuer does.</p>
            )}
            {decided?.decision !== "go on" && mayDo(permit, person, "decide clash") && (
              <div className="mt-2">
                <ActForm
                  act="permit.decide-clash"
                  label={`Decide: ${kind} with ${other}`}
                  fixed={{ permit: permit.number, clash: id }}
                  pin
                  button="Decide"
                  compact
                >
                  <SelectField label="Decision" name="decision" className="w-44">
                    <option value="wait">This one waits</option>
                    <option value="go on">Both go on</option>
                  </SelectField>
                  <Field label="Why, and what keeps them apart" name="reason" autoComplete="off" className="w-64" />
                </ActForm>
              </div>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Copies by where they hang; caps and blinds put in under it; a bypassed safeguard. */
export function Out({ permit, person, timeZone }: Props) {
  const fixed = { permit: permit.number };
  const may = (type: Parameters<typeof mayDo>[2]) => mayDo(permit, person, type);
  const { copies, putIn } = permit;
  const isBypass = permit.kind === "safeguard bypass";
  if (copies.length === 0 && putIn.length === 0 && !may("hang copy") && !may("put in") && !isBypass) return null;
  return (
    <section aria-labelledby="out" className="space-y-3">
      <h2 id="out" className="text-lg font-semibold">
        Copies displayed, and what is out
      </h2>
      {copies.length === 0 && putIn.length === 0 && <p>No copy hangs, and nothing was put in.</p>}
      <ul className="border-base-300 divide-base-300 divide-y border-y empty:hidden">
        {copies.map(({ copy, where, second, hung_ms, returned_ms }) => (
          <li key={`copy ${copy}`} className="flex flex-wrap items-center gap-x-4 gap-y-1 py-1.5">
            <span className="grow">
              <strong>{second ? `Second copy ${copy}` : `Copy ${copy}`}</strong> {where},{" "}
              <span className="num">{dayAndClock(hung_ms, timeZone)}</span>
              {returned_ms !== null && ", back"}{" "}
              <a className="link text-sm" href={`/permits/${permit.number}/paper?copy=${copy}`}>
                PDF
              </a>
            </span>
            {returned_ms === null && may("return copy") && (
              <ActForm
                act="permit.return-copy"
                label={`Copy ${copy} back`}
                fixed={{ ...fixed, copy }}
                button="Is back"
                compact
              />
            )}
          </li>
        ))}
        {putIn.map(({ thing, what, where, out_ms }) => (
          <li key={`thing ${thing}`} className="flex flex-wrap items-center gap-x-4 gap-y-1 py-1.5">
            <span className="grow">
              <strong>{what}</strong> at {where}
              {out_ms !== null && ", out again"}
            </span>
            {out_ms === null && may("take out") && (
              <ActForm
                act="permit.take-out"
                label={`${what} out`}
                fixed={{ ...fixed, thing }}
                button="Is out"
                compact
              />
            )}
          </li>
        ))}
      </ul>
      {may("hang copy") && (
        <details>
          <summary className="link w-fit cursor-pointer">Display a copy</summary>
          <div className="mt-2">
            <ActForm act="permit.hang-copy" label="Display a copy" fixed={fixed} button="It hangs" compact>
              <Field label="Where it hangs" name="where" autoComplete="off" className="w-56" />
              <Tick name="second" label="Second copy: the log of the first is full" />
            </ActForm>
          </div>
        </details>
      )}
      {may("put in") && (
        <details>
          <summary className="link w-fit cursor-pointer">Fit a temporary blind, cap, plug or cover</summary>
          <div className="mt-2">
            <ActForm act="permit.put-in" label="Put in" fixed={fixed} button="It is in" compact>
              <Field label="What" name="what" autoComplete="off" className="w-40" />
              <Field label="Where" name="where" autoComplete="off" className="w-56" />
            </ActForm>
          </div>
        </details>
      )}
      {isBypass && may("safeguard back") && (
        <ActForm
          act="permit.safeguard-back"
          label="Safeguard back"
          fixed={fixed}
          pin
          button="It works again"
          tone="strong"
          compact
        >
          <Field label="How it was tried" name="words" autoComplete="off" className="w-64" />
        </ActForm>
      )}
    </section>
  );
}
