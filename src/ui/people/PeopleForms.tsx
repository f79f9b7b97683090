"use client";

import { useState } from "react";
import { COMPETENCES, ROLES, type Competence, type Role } from "../../core/people/roles";
import type { AppointedFor } from "../../core/accounts/appointedFor";
import { ActForm } from "../act/ActForm";
import { Field } from "../act/Field";
import { Ticks } from "../act/Ticks";
import { WhenField } from "../act/WhenField";
import { endOfDay } from "../text/siteInstant";
import { Once, type Told } from "./Once";

const clockOf = (hour: string | number): string => `${String(hour).padStart(2, "0")}:00`;

/** Days until which competences and the induction count, as the fields name them. */
const untilOf = (fields: FormData) =>
  Object.fromEntries(
    [...COMPETENCES, "inducted" as const].map((one) => {
      const day = String(fields.get(`${one}Until_ms`) ?? "").trim();
      // It counts through the whole of its last day.
      return [`${one}Until_ms`, day === "" ? null : endOfDay(day)];
    }),
  );
const rightsOf = (fields: FormData) => ({
  roles: fields.getAll("roles").map(String),
  competences: fields.getAll("competences").map(String),
  firm: String(fields.get("firm") ?? ""),
  areas: fields.getAll("areas").map(String),
  shifts: fields.getAll("shifts").map(Number),
  ...untilOf(fields),
});

/** For whom somebody works, and until when they know this site: whoever is not its own begins no work before. */
function Firm({ person }: Readonly<{ person?: Pick<One, "firm" | "inductedUntil"> }>) {
  return (
    <div className="grid gap-3 sm:grid-cols-2">
      <Field
        label="Contractor's firm"
        name="firm"
        maxLength={80}
        defaultValue={person?.firm}
        hint="Empty: the site's own"
      />
      <WhenField
        dayOnly
        label="Site induction until"
        name="inductedUntil_ms"
        defaultValue={person?.inductedUntil ?? ""}
        hint="Of a firm's people. Empty: they begin no work"
      />
    </div>
  );
}

/** What an issuer or approver can be appointed for: areas of the register, and shifts by the hour at which they begin. */
export type ToAppoint = Readonly<{ areas: readonly string[]; shifts: readonly number[] }>;

function Rights({
  person,
  toAppoint,
}: Readonly<{ person?: Pick<One, "roles" | "competences" | "until" | "appointedFor">; toAppoint: ToAppoint }>) {
  // One that the register or the site does not have any more stays until somebody takes it away.
  const areas = [...new Set([...toAppoint.areas, ...(person?.appointedFor.areas ?? [])])];
  const shifts = [...new Set([...toAppoint.shifts, ...(person?.appointedFor.shifts ?? [])])];
  const isSomewhere = (person?.appointedFor.areas.length ?? 0) + (person?.appointedFor.shifts.length ?? 0) > 0;
  return (
    <>
      <Ticks name="roles" legend="May act as" options={ROLES} chosen={person?.roles} />
      <details open={isSomewhere}>
        <summary className="link min-h-6 w-fit cursor-pointer text-sm">
          Of an issuer or approver: for which areas and shifts
        </summary>
        {areas.length > 0 && (
          <Ticks name="areas" legend="Areas; none: everywhere" options={areas} chosen={person?.appointedFor.areas} />
        )}
        <Ticks
          name="shifts"
          legend="Shifts, by when they begin; none: at any hour"
          options={shifts}
          chosen={person?.appointedFor.shifts}
          words={clockOf}
        />
      </details>
      <Ticks name="competences" legend="Isolates and proves" options={COMPETENCES} chosen={person?.competences} />
      <div className="grid gap-3 sm:grid-cols-2">
        {COMPETENCES.map((one) => (
          <WhenField
            key={one}
            dayOnly
            label={`${one[0]!.toUpperCase()}${one.slice(1)} until`}
            name={`${one}Until_ms`}
            defaultValue={person?.until[one] ?? ""}
            hint="Empty: no end"
          />
        ))}
      </div>
    </>
  );
}

export function EnterPerson({ toAppoint }: Readonly<{ toAppoint: ToAppoint }>) {
  const [told, setTold] = useState<Told | null>(null);
  const [name, setName] = useState("");
  return (
    <section aria-labelledby="enter">
      <h2 id="enter" className="mb-2 text-lg font-semibold">
        Enter a person
      </h2>
      {told && <Once told={told} putAway={() => setTold(null)} />}
      <ActForm
        act="person.enter"
        label="Enter a person"
        toInput={(fields) => ({
          name: String(fields.get("name") ?? ""),
          signIn: String(fields.get("signIn") ?? ""),
          ...rightsOf(fields),
        })}
        pin
        button="Enter them"
        tone="strong"
        onOnce={(once) => setTold({ who: name, ...once })}
      >
        <div className="grid gap-3 sm:grid-cols-2">
          <Field label="Name" name="name" maxLength={80} onChange={(event) => setName(event.target.value)} />
          <Field label="Sign-in name" name="signIn" className="tag" autoComplete="off" maxLength={40} />
        </div>
        <Rights toAppoint={toAppoint} />
        <Firm />
      </ActForm>
    </section>
  );
}

type One = Readonly<{
  id: string;
  name: string;
  roles: readonly Role[];
  competences: readonly Competence[];
  /** By the site's clock, as 2027-11-29; of those that have an end. */
  until: Readonly<Partial<Record<Competence, string>>>;
  firm: string;
  /** As 2027-11-29; empty where nobody showed them the site. */
  inductedUntil: string;
  appointedFor: AppointedFor;
  active: boolean;
  isShut: boolean;
  /** Sign-ins that are open. */
  signedIn: number;
  /** When one of them was last used, in the site's time. */
  seen: string;
}>;

/** What a coordinator does about somebody's account. Nobody has these for themselves. */
export function AccountForms({ person, toAppoint }: Readonly<{ person: One; toAppoint: ToAppoint }>) {
  const [told, setTold] = useState<Told | null>(null);
  const fixed = { person: person.id };
  return (
    <div className="flex flex-col gap-4 pb-3">
      {told && <Once told={told} putAway={() => setTold(null)} />}
      {person.isShut && (
        <ActForm
          act="person.let-in"
          label={`Let ${person.name} try again`}
          fixed={fixed}
          pin
          compact
          button="Forgive the wrong tries"
          tone="strong"
        />
      )}
      {person.active ? (
        <>
          <ActForm
            act="person.change"
            label={`Change ${person.name}`}
            fixed={fixed}
            toInput={rightsOf}
            pin
            button="Change"
          >
            <Rights person={person} toAppoint={toAppoint} />
            <Firm person={person} />
          </ActForm>
          <ActForm
            act="person.new-secrets"
            label={`New secrets for ${person.name}`}
            fixed={fixed}
            pin
            compact
            button="New password and PIN"
            onOnce={(once) => setTold({ who: person.name, ...once })}
          />
          {person.signedIn > 0 && (
            <ActForm
              act="person.sign-out-everywhere"
              label={`Sign ${person.name} out`}
              fixed={fixed}
              pin
              compact
              button="Sign out everywhere"
            >
              <p className="text-sm">
                Signed in at <span className="num">{person.signedIn}</span> {person.signedIn === 1 ? "place" : "places"}
                , last used {person.seen}.
              </p>
            </ActForm>
          )}
          <ActForm
            act="person.leave"
            label={`${person.name} has left`}
            fixed={fixed}
            pin
            compact
            button="Signs in no more"
          >
            <label className="flex flex-col gap-1 text-sm">
              <span>Why</span>
              <input name="words" className="input w-72 max-w-full" maxLength={300} />
            </label>
          </ActForm>
        </>
      ) : (
        <ActForm
          act="person.come-back"
          label={`${person.name} is back`}
          fixed={fixed}
          pin
          compact
          button="May sign in again"
        />
      )}
    </div>
  );
}

/** What is one's own to change: PIN, password, and where one is signed in. */
export function OwnAccount() {
  return (
    <section aria-labelledby="own">
      <h2 id="own" className="mb-2 text-lg font-semibold">
        Your own account
      </h2>
      <div className="flex flex-col gap-4">
        <ActForm act="person.own-pin" label="Your own PIN" pin compact button="Change my PIN">
          <SecretField label="New PIN" inputMode="numeric" maxLength={12} className="num w-32" />
        </ActForm>
        <ActForm act="person.own-password" label="Your own password" pin compact button="Change my password">
          <SecretField label="New password, at least 12 characters" maxLength={200} className="w-72 max-w-full" />
        </ActForm>
        <ActForm
          act="person.sign-out-everywhere"
          label="Sign out everywhere"
          pin
          compact
          button="Sign me out everywhere"
        >
          <p className="max-w-prose text-sm">Also here. For a lost phone, or a tablet that was left signed in.</p>
        </ActForm>
      </div>
    </section>
  );
}

function SecretField({
  label,
  className,
  ...more
}: Readonly<{ label: string; className: string; maxLength: number; inputMode?: "numeric" }>) {
  return (
    <label className="flex flex-col gap-1 text-sm">
      <span>{label}</span>
      <input name="next" type="password" autoComplete="new-password" className={`input ${className}`} {...more} />
    </label>
  );
}
