"use client";

import { useState } from "react";
import { ACCESS_MOST_DAYS, READ_RIGHTS, type ReadRight } from "../../core/access/access";
import { ActForm } from "../act/ActForm";
import { Field } from "../act/Field";
import { Ticks } from "../act/Ticks";
import { RIGHT_WORDS } from "./rightWords";

/** Shown once: whoever set the program up puts it away. */
function Told({ secret, origin, putAway }: { secret: string; origin: string; putAway: () => void }) {
  return (
    <div role="status" className="border-warning bg-base-200 my-3 max-w-xl border-l-4 px-4 py-3">
      <p>Shown once and kept nowhere. Whoever has it has what it opens, until you revoke it.</p>
      <dl className="my-2 grid gap-x-4 gap-y-1 sm:grid-cols-[auto_1fr]">
        <dt>Token</dt>
        <dd className="tag break-all whitespace-normal">{secret}</dd>
        <dt>As a calendar</dt>
        <dd className="tag break-all whitespace-normal">{`${origin}/api/calendar/${secret}.ics`}</dd>
      </dl>
      <button type="button" className="btn btn-outline" onClick={putAway}>
        It is in
      </button>
    </div>
  );
}

export function MakeToken({
  acts,
  rights,
  origin,
}: {
  /** What may come by it, by kind: type and words of each act. */
  acts: readonly Readonly<{ kind: string; all: readonly Readonly<{ type: string; words: string }>[] }>[];
  rights: readonly ReadRight[];
  origin: string;
}) {
  const [secret, setSecret] = useState<string | null>(null);
  return (
    <section aria-labelledby="make-token">
      <h2 id="make-token" className="mb-2 text-lg font-semibold">
        Make one
      </h2>
      {secret !== null && <Told secret={secret} origin={origin} putAway={() => setSecret(null)} />}
      <ActForm
        act="access.make"
        label="Make a token"
        pin
        button="Make it"
        toInput={(fields) => ({
          name: String(fields.get("name") ?? ""),
          rights: fields.getAll("rights").map(String),
          acts: fields.getAll("acts").map(String),
          days: String(fields.get("days") ?? ""),
        })}
        onOnce={({ secret: told = "" }) => setSecret(told)}
      >
        <div className="flex max-w-xl flex-col gap-3">
          <Field label="What it is for" name="name" maxLength={80} />
          <Ticks
            name="rights"
            legend="It reads"
            options={READ_RIGHTS.filter((one) => rights.includes(one))}
            words={(one) => begun(RIGHT_WORDS[one])}
          />
          <details>
            <summary className="link min-h-6 w-fit cursor-pointer text-sm">Acts that may come by it</summary>
            <p className="my-1 max-w-prose text-sm">
              What you sign with your PIN is signed with it here too: the program has to be told it for each.
            </p>
            {acts.map(({ kind, all }) => (
              <details key={kind} className="border-base-300 border-t py-1">
                <summary className="min-h-6 cursor-pointer text-sm">
                  {kind} <span className="num opacity-85">{all.length}</span>
                </summary>
                <Ticks
                  name="acts"
                  legend={kind}
                  options={all.map(({ type }) => type)}
                  words={(type) => begun(all.find((one) => one.type === type)!.words)}
                />
              </details>
            ))}
          </details>
          <div className="w-56">
            <Field
              label={`For how many days, at most ${ACCESS_MOST_DAYS}`}
              name="days"
              inputMode="numeric"
              maxLength={4}
              className="num"
            />
          </div>
        </div>
      </ActForm>
    </section>
  );
}

const begun = (words: string) => `${words[0]!.toUpperCase()}${words.slice(1)}`;

export function RevokeToken({ token }: { token: string }) {
  return <ActForm act="access.revoke" label={`Revoke ${token}`} fixed={{ token }} button="Revoke" compact />;
}
