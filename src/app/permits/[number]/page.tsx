import type { Metadata } from "next";
import Link from "next/link";
import { notFound } from "next/navigation";
import type { ReactNode } from "react";
import { permitView, type PermitView } from "@/server/queries/board";
import { removalsOf } from "@/server/queries/removals";
import { Removals } from "@/ui/locks/Removals";
import { figuresFor } from "@/server/queries/dayView";
import { AttachedFigures } from "@/ui/bench/AttachedFigures";
import { requirePerson } from "@/server/session";
import { requestTime_ms, siteTimeZone } from "@/server/siteTime";
import type { Person } from "@/server/signIn";
import { ActForm } from "@/ui/act/ActForm";
import { HandOverForm } from "@/ui/locks/HandOverForm";
import { SignOnForm } from "@/ui/locks/SignOnForm";
import { dayAndClock, span } from "@/ui/text/when";

type Params = { params: Promise<{ number: string }> };

export async function generateMetadata({ params }: Params): Promise<Metadata> {
  return { title: `Permit ${(await params).number}` };
}

export default async function PermitPage({ params }: Params) {
  const person = await requirePerson();
  const { number } = await params;
  const now_ms = requestTime_ms();
  const permit = permitView(number, now_ms);
  if (permit === null) notFound();
  const timeZone = siteTimeZone();
  const on = permit.signOns.filter((signOn) => signOn.off_ms === null);
  const left = permit.validTo_ms - now_ms;
  const figures = figuresFor({ permit: permit.number });
  return (
    <div className="grid max-w-6xl gap-x-14 gap-y-8 px-4 py-6 md:px-8 lg:grid-cols-[minmax(0,1.2fr)_minmax(0,1fr)]">
      <section>
        <p>
          Permit to work, general, for{" "}
          <Link href={`/jobs/${permit.job.number}/permits`} className="link">
            <span className="tag">{permit.job.number}</span> {permit.job.title}
          </Link>
        </p>
        <h1 className="mt-1 flex flex-wrap items-baseline gap-x-5 text-3xl font-semibold">
          <span className="tag">{permit.number}</span>
          <span className="text-xl">{permit.runOut && permit.state !== "closed" ? "Run out" : permit.state}</span>
          <a href={`/permits/${permit.number}/paper`} className="link ml-auto pr-1 text-base font-normal">
            On paper (PDF)
          </a>
        </h1>
        {permit.runOut && permit.state === "live" && (
          <p role="alert" className="border-error bg-error/10 mt-3 border-l-4 px-3 py-2">
            This permit ran out at {dayAndClock(permit.validTo_ms, timeZone)}. Stop work, make safe, sign off.
          </p>
        )}
        {permit.stale.length > 0 && ["draft", "issued", "live"].includes(permit.state) && (
          <p className="border-warning mt-3 border-l-4 px-3 py-2">
            Nobody goes on before{" "}
            <Link className="link" href={`/jobs/${permit.job.number}/walk`}>
              {permit.stale.length === 1 ? "a proof is" : `${permit.stale.length} proofs are`} done again
            </Link>
            : {permit.stale.slice(0, 2).join("; ")}
            {permit.stale.length > 2 && ` and ${permit.stale.length - 2} more`}.
          </p>
        )}
        <dl className="mt-6 grid gap-x-6 gap-y-4 sm:grid-cols-[9rem_1fr]">
          <Row label="May be done">{permit.words}</Row>
          <Row label="Where">
            <span className="tag whitespace-normal">{permit.job.job.faces.map((face) => face.place).join(", ")}</span>
          </Row>
          <Row label="Hazards">{permit.hazards}</Row>
          <Row label="Precautions">{permit.precautions}</Row>
          <Row label="Valid">
            <span className="num">
              {dayAndClock(permit.validFrom_ms, timeZone)} to {dayAndClock(permit.validTo_ms, timeZone)}
            </span>
            <span className="block">{left > 0 ? `${span(left)} left. At that time work stops.` : "No time left."}</span>
          </Row>
          <Row label="Holder">{permit.holder}</Row>
          <Row label="Issuer">{permit.issuer ?? "not issued yet"}</Row>
          <Row label="Isolation">
            {permit.job.isolation ? (
              <Link className="link" href={`/jobs/${permit.job.number}/walk`}>
                <span className="tag">{permit.job.isolation.number}</span>, {permit.job.isolation.state}
              </Link>
            ) : (
              "none"
            )}
            {permit.job.boxes.map((box) => (
              <span key={box.number}>
                {" "}
                on box{" "}
                <Link href={`/boxes/${box.number}`} className="link tag">
                  {box.number}
                </Link>
              </span>
            ))}
          </Row>
        </dl>
        {figures.length > 0 && (
          <div className="mt-8">
            <AttachedFigures figures={figures} units={person.units} timeZone={timeZone} />
          </div>
        )}
      </section>
      <section aria-label="Acts and people" className="space-y-8">
        <PermitActs permit={permit} person={person} />
        <Removals
          permit={permit.number}
          removals={removalsOf(permit.number)}
          on={on}
          person={{ id: person.id, roles: person.roles }}
          timeZone={timeZone}
        />
        {permit.state === "live" &&
          on.length > 0 &&
          person.roles.some((role) => role === "coordinator" || role === "issuer" || role === "holder") && (
            <HandOverForm
              permit={permit.number}
              lead={permit.holderId}
              on={on.map((one) => ({ id: one.personId, name: one.name, lock: one.lock }))}
              coming={permit.job.crewIds
                .map((id, i) => ({ id, name: permit.job.crew[i]! }))
                .filter(({ id }) => !on.some((one) => one.personId === id))}
              points={permit.pointsToLock}
            />
          )}
        <div>
          <h2 className="mb-2 text-lg font-semibold">
            Signed on now: <span className="num">{on.length}</span>
          </h2>
          {permit.signOns.length === 0 ? (
            <p>Nobody has signed on.</p>
          ) : (
            <ul aria-label="Everybody who signed on" className="border-base-300 divide-base-300 divide-y border-y">
              {permit.signOns.map((signOn) => (
                <li
                  key={`${signOn.personId} ${signOn.on_ms}`}
                  className="grid grid-cols-[5rem_1fr] gap-x-4 py-2 sm:grid-cols-[5rem_minmax(0,1fr)_minmax(0,1.1fr)]"
                >
                  <span className="tag whitespace-normal">
                    {Object.keys(signOn.points).length > 0 ? Object.values(signOn.points).join(" ") : signOn.lock}
                  </span>
                  <span className="font-medium">
                    {signOn.name}
                    {signOn.personId === permit.holderId && <span className="font-normal">, leads</span>}
                  </span>
                  <span className="col-start-2 text-sm sm:col-start-3">
                    <span className="num">on {dayAndClock(signOn.on_ms, timeZone)}</span>,{" "}
                    {signOn.off_ms === null ? (
                      <strong>still on</strong>
                    ) : (
                      <span className="num">off {dayAndClock(signOn.off_ms, timeZone)}</span>
                    )}
                  </span>
                </li>
              ))}
            </ul>
          )}
        </div>
      </section>
    </div>
  );
}

/** The acts that this person may do now; the server decides again when they do them. */
function PermitActs({ permit, person }: { permit: PermitView; person: Person }) {
  const fixed = { permit: permit.number };
  const isHolder = permit.holderId === person.id;
  const isIssuer = person.roles.includes("issuer");
  const isOn = permit.signOns.some((signOn) => signOn.personId === person.id && signOn.off_ms === null);
  const acts: ReactNode[] = [];
  const add = (key: string, heading: string, words: string, form: ReactNode) =>
    acts.push(
      <div key={key} className="border-base-content border-t-2 pt-3">
        <h2 className="text-lg font-semibold">{heading}</h2>
        <p className="mb-3">{words}</p>
        {form}
      </div>,
    );
  if (isOn) {
    add(
      "off",
      "Sign off",
      "Tools out, you are clear. Take your own lock off the box.",
      <ActForm
        act="permit.sign-off"
        label="Sign off"
        fixed={fixed}
        pin
        button="Sign off, my lock is off"
        tone="strong"
        compact
      />,
    );
  }
  if (permit.state === "live" && !isOn && !permit.runOut) {
    add(
      "on",
      "Sign on",
      permit.pointsToLock.length > 0
        ? "Read what may be done. Hang a lock of your own on every point, then sign."
        : "Read what may be done. Hang your own lock on the box, then sign.",
      <SignOnForm permit={permit.number} points={permit.pointsToLock} />,
    );
  }
  if (permit.state === "draft" && isIssuer) {
    add(
      "issue",
      "Issue",
      "You have checked the site: the points are locked, the place is safe for this work.",
      <ActForm act="permit.issue" label="Issue" fixed={fixed} pin button="Issue the permit" tone="strong" compact />,
    );
  }
  if (permit.state === "issued" && isHolder) {
    add(
      "accept",
      "Accept",
      "You have read it, you keep to its words, you brief the crew.",
      <ActForm act="permit.accept" label="Accept" fixed={fixed} pin button="Accept the permit" tone="strong" compact />,
    );
  }
  if (permit.state === "live" && isHolder) {
    add(
      "back",
      "Hand back",
      "The work has ended, everybody is signed off, the place is clean.",
      <ActForm act="permit.hand-back" label="Hand back" fixed={fixed} pin button="Hand back" compact />,
    );
  }
  if (permit.state === "handed back" && isIssuer) {
    add(
      "close",
      "Close",
      "You have inspected the place yourself.",
      <ActForm act="permit.close" label="Close" fixed={fixed} pin button="Close the permit" tone="strong" compact />,
    );
  }
  if ((permit.state === "draft" || permit.state === "issued") && isIssuer) {
    add(
      "cancel",
      "Cancel",
      "Nobody works on it; a new one is written when needed.",
      <ActForm act="permit.cancel" label="Cancel" fixed={fixed} pin button="Cancel the permit" compact />,
    );
  }
  if (acts.length > 0) return acts;
  const waiting: Record<string, string> = {
    draft: "An issuer checks the site and issues it.",
    issued: `${permit.holder} accepts it.`,
    "handed back": "An issuer inspects and closes it.",
  };
  return (
    <p className="border-base-content border-t-2 pt-3">{waiting[permit.state] ?? "Nothing to do here for you now."}</p>
  );
}

function Row({ label, children }: { label: string; children: ReactNode }) {
  return (
    <>
      <dt className="opacity-85">{label}</dt>
      <dd className="max-w-prose whitespace-pre-wrap">{children}</dd>
    </>
  );
}
