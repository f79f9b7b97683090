import { Link } from "@/ui/text/Link";
import { notFound } from "next/navigation";
import { CLOSE_MUSTERS, missing, seenOf } from "@/core/muster/muster";
import { database } from "@/server/db/database";
import { musterNumbered } from "@/server/muster/musterStore";
import { requirePerson } from "@/server/people/session";
import { namesOf } from "@/server/people/signIn";
import { requestTime_ms, siteTimeZone } from "@/server/runtime/siteTime";
import { ActForm } from "@/ui/act/ActForm";
import { clock, dayAndClock, span } from "@/ui/text/when";

export const metadata = { title: "Muster" };

/** Who was on or inside when all work was stopped, ticked off one by one: those inside first. */
export default async function MusterPage({ params }: { params: Promise<{ number: string }> }) {
  const person = await requirePerson();
  const muster = musterNumbered(database(), decodeURIComponent((await params).number));
  if (muster === null) notFound();
  const nameOf = namesOf(database());
  const timeZone = siteTimeZone();
  const left = missing(muster);
  const seen = muster.people.filter((one) => seenOf(muster, one.person) !== null);
  const where = muster.area === "" ? "the whole site" : muster.area;
  const mayClose = CLOSE_MUSTERS.some((role) => person.roles.includes(role));
  return (
    <div className="max-w-4xl px-4 py-3 md:px-5">
      <h1 className="text-xl font-semibold">
        Muster <span className="tag">{muster.number}</span>, {where}
      </h1>
      <p className="mt-1">
        {nameOf(muster.by)} stopped all work <span className="num">{dayAndClock(muster.at_ms, timeZone)}</span>:{" "}
        {muster.reason}
      </p>
      <div
        role="status"
        className={`my-3 px-4 py-3 ${muster.closed === null && left.length > 0 ? "band band-stopped" : "band band-over"}`}
      >
        {muster.closed !== null ? (
          <p>
            <strong>Closed</strong> by {nameOf(muster.closed.by)},{" "}
            <span className="num">{dayAndClock(muster.closed.at_ms, timeZone)}</span>. Work goes on permit by permit.
          </p>
        ) : left.length > 0 ? (
          <p>
            <strong>
              {left.length} not seen of {muster.people.length}
            </strong>
            , <span className="num">{span(requestTime_ms() - muster.at_ms)}</span> since the stop. No work goes on there
            until everybody was seen and the muster is closed.
          </p>
        ) : (
          <p>
            <strong>Everybody was seen.</strong> A coordinator or issuer closes the muster; then work goes on permit by
            permit.
          </p>
        )}
      </div>
      {left.length > 0 && (
        <ul aria-label="Not seen yet" className="border-base-300 border-t">
          {left.map((one) => (
            <li key={one.person} className="border-base-300 flex flex-wrap items-center gap-x-4 gap-y-1 border-b py-2">
              <span className="min-w-48 flex-1">
                <strong>{nameOf(one.person)}</strong>
                {one.inside !== null && <strong className="text-error"> was inside, {one.inside}</strong>}
                <Permits numbers={one.permits} />
              </span>
              {muster.closed === null && (
                <ActForm
                  act="muster.seen"
                  label={`${nameOf(one.person)} was seen`}
                  fixed={{ muster: muster.number, person: one.person }}
                  button="Seen"
                  tone="strong"
                  compact
                />
              )}
            </li>
          ))}
        </ul>
      )}
      {muster.people.length === 0 && <p>Nobody was on, on post or inside there.</p>}
      {muster.closed === null && mayClose && left.length === 0 && (
        <div className="my-4 max-w-md">
          <ActForm
            act="muster.close"
            label="Close the muster"
            fixed={{ muster: muster.number }}
            pin
            button="Close the muster"
            tone="strong"
          />
        </div>
      )}
      {seen.length > 0 && (
        <section className="mt-6">
          <h2 className="mb-1 font-semibold">Seen, {seen.length}</h2>
          <ul aria-label="Seen">
            {seen.map((one) => {
              const by = seenOf(muster, one.person)!;
              return (
                <li
                  key={one.person}
                  className="border-base-300 flex flex-wrap items-center gap-x-4 gap-y-1 border-b py-2"
                >
                  <span className="min-w-48 flex-1">
                    {nameOf(one.person)}, <span className="num">{clock(by.at_ms, timeZone)}</span>, by {nameOf(by.by)}
                    <Permits numbers={one.permits} />
                  </span>
                  {muster.closed === null && (
                    <ActForm
                      act="muster.not-seen"
                      label={`${nameOf(one.person)} was not seen`}
                      fixed={{ muster: muster.number, person: one.person }}
                      button="Said in error"
                      compact
                    />
                  )}
                </li>
              );
            })}
          </ul>
        </section>
      )}
    </div>
  );
}

function Permits({ numbers }: { numbers: readonly string[] }) {
  return (
    <span className="ml-2 text-sm">
      {numbers.map((number) => (
        <Link key={number} href={`/permits/${number}`} className="link tag mr-2">
          {number}
        </Link>
      ))}
    </span>
  );
}
