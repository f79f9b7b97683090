import { isolationState } from "@/core/words/en/notHeld";
import type { Metadata } from "next";
import Link from "next/link";
import { notFound } from "next/navigation";
import type { ReactNode } from "react";
import { figure } from "@/core/units/format";
import type { UnitSystem } from "@/core/units/units";
import { figuresFor } from "@/server/figures/dayView";
import { mayDo, permitView, type PermitView } from "@/server/permit/permitView";
import { removalsOf } from "@/server/box/removals";
import { requirePerson } from "@/server/people/session";
import { requestTime_ms, siteTimeZone } from "@/server/runtime/siteTime";
import { AttachedFigures } from "@/ui/bench/AttachedFigures";
import { HandOverForm } from "@/ui/locks/HandOverForm";
import { Removals } from "@/ui/locks/Removals";
import { dayAndClock, span } from "@/ui/text/when";
import { Air } from "./parts/Air";
import { Clashes, Out } from "./parts/Around";
import { Asks } from "./parts/Asks";
import { PeopleOn } from "./parts/PeopleOn";
import { AfterWatch, Posts } from "./parts/Posts";
import { Reach } from "./parts/Reach";
import { ChangeDraft } from "./parts/ChangeDraft";
import { SigningActs, StopWork } from "./parts/SigningActs";

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
  const figures = figuresFor({ permit: permit.number });
  const leads = person.roles.some((role) => role === "coordinator" || role === "issuer" || role === "holder");
  // Whoever tests gas comes for that: it stands first, with gloves on and in the rain.
  const testsGas = permit.air !== null && mayDo(permit, person, "begin sample");
  return (
    <div className="max-w-7xl px-4 py-6 md:px-8">
      <Head permit={permit} timeZone={timeZone} />
      <div className="mt-6 grid grid-cols-[minmax(0,1fr)] gap-x-14 gap-y-10 lg:grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)]">
        <section aria-label="Acts and people" className="space-y-8 lg:order-2">
          {testsGas && <Air permit={permit} person={person} now_ms={now_ms} timeZone={timeZone} />}
          <AfterWatch permit={permit} person={person} timeZone={timeZone} />
          <SigningActs permit={permit} person={person} />
          <StopWork permit={permit} />
          <Posts permit={permit} person={person} now_ms={now_ms} timeZone={timeZone} />
          <Removals
            permit={permit.number}
            removals={removalsOf(permit.number)}
            on={on}
            person={{ id: person.id, roles: person.roles }}
            timeZone={timeZone}
          />
          {permit.state === "live" && on.length > 0 && leads && (
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
          <PeopleOn permit={permit} timeZone={timeZone} />
          <Out permit={permit} person={person} timeZone={timeZone} />
        </section>
        <div className="space-y-10">
          <Words permit={permit} units={person.units} now_ms={now_ms} timeZone={timeZone} />
          <ChangeDraft permit={permit} person={person} />
          <Clashes permit={permit} person={person} timeZone={timeZone} />
          {!testsGas && <Air permit={permit} person={person} now_ms={now_ms} timeZone={timeZone} />}
          <Asks permit={permit} person={person} />
          <Reach permit={permit} units={person.units} />
          {figures.length > 0 && <AttachedFigures figures={figures} units={person.units} timeZone={timeZone} />}
          <Story permit={permit} timeZone={timeZone} />
        </div>
      </div>
    </div>
  );
}

function Head({ permit, timeZone }: { permit: PermitView; timeZone: string }) {
  const { stop } = permit;
  return (
    <header>
      <p>
        Permit to work, {permit.kind}, for{" "}
        <Link href={`/jobs/${permit.job.number}/permits`} className="link">
          <span className="tag">{permit.job.number}</span> {permit.job.title}
        </Link>
        {permit.previous && (
          <>
            . Goes on from{" "}
            <Link href={`/permits/${permit.previous}`} className="link tag">
              {permit.previous}
            </Link>
          </>
        )}
        {permit.next.map((number) => (
          <span key={number}>
            . Goes on in{" "}
            <Link href={`/permits/${number}`} className="link tag">
              {number}
            </Link>
          </span>
        ))}
      </p>
      <h1 className="mt-1 flex flex-wrap items-baseline gap-x-5 text-3xl font-semibold">
        <span className="tag">{permit.number}</span>
        <span className="text-xl">{permit.state}</span>
        <a href={`/permits/${permit.number}/paper`} className="link ml-auto pr-1 text-base font-normal">
          On paper (PDF)
        </a>
      </h1>
      {permit.runOut && (
        <p role="alert" className="border-error bg-error/10 mt-3 border-l-4 px-3 py-2">
          This permit ran out at {dayAndClock(permit.validTo_ms, timeZone)}. Stop work, make safe, sign off.
        </p>
      )}
      {permit.sentBack && (
        <p role="status" className="border-warning mt-3 border-l-4 px-3 py-2">
          <strong>Sent back</strong> {dayAndClock(permit.sentBack.at_ms, timeZone)} by {permit.sentBack.by}:{" "}
          {permit.sentBack.words}
        </p>
      )}
      {stop?.type === "stopped" && (
        <div role="alert" className="border-error bg-error/10 mt-3 border-l-4 px-3 py-2">
          <p className="text-lg font-semibold">{stop.evacuate ? "Stop. Everybody out." : "Work is stopped."}</p>
          <p>
            {dayAndClock(stop.at_ms, timeZone)}, {stop.cause}: {stop.reason}
          </p>
          {permit.entry && permit.entry.inside.length > 0 && (
            <p>
              <strong>Still inside: {permit.entry.inside.map(({ name }) => name).join(", ")}.</strong>
            </p>
          )}
          {permit.entry && stop.evacuate && permit.entry.inside.length === 0 && (
            <p>Everybody is accounted for. Purge and test again before anybody goes in.</p>
          )}
        </div>
      )}
      {stop?.type === "break begun" && (
        <p className="border-warning mt-3 border-l-4 px-3 py-2">
          A break since {dayAndClock(stop.at_ms, timeZone)}. The watch stays; the air is read again before work goes on.
        </p>
      )}
      {permit.stale.length > 0 && ["draft", "checked", "authorised", "issued", "live"].includes(permit.state) && (
        <p className="border-warning mt-3 border-l-4 px-3 py-2">
          Nobody goes on before{" "}
          <Link className="link" href={`/jobs/${permit.job.number}/walk`}>
            {permit.stale.length === 1 ? "a proof is" : `${permit.stale.length} proofs are`} done again
          </Link>
          : {permit.stale.slice(0, 2).join("; ")}
          {permit.stale.length > 2 && ` and ${permit.stale.length - 2} more`}.
        </p>
      )}
    </header>
  );
}

function Words({
  permit,
  units,
  now_ms,
  timeZone,
}: {
  permit: PermitView;
  units: UnitSystem;
  now_ms: number;
  timeZone: string;
}) {
  const left = permit.validTo_ms - now_ms;
  return (
    <section aria-label="What it says">
      <dl className="grid gap-x-6 gap-y-4 sm:grid-cols-[9rem_1fr]">
        <Row label="May be done">{permit.words}</Row>
        <Row label="Where">
          <span className="tag whitespace-normal">{permit.job.job.faces.map((face) => face.place).join(", ")}</span>
        </Row>
        <Row label="Hazards">{permit.hazards}</Row>
        <Row label="Precautions">{permit.precautions}</Row>
        <Details permit={permit} units={units} timeZone={timeZone} />
        <Row label="Valid">
          <span className="num">
            {dayAndClock(permit.validFrom_ms, timeZone)} to {dayAndClock(permit.validTo_ms, timeZone)}
          </span>
          <span className="block">{left > 0 ? `${span(left)} left. At that time work stops.` : "No time left."}</span>
        </Row>
        <Row label="Holder">{permit.holder}</Row>
        <Row label="Issuer">{permit.issuer ?? "not issued yet"}</Row>
        <Row label="Isolation">
          {permit.kind === "safeguard bypass" ? (
            "none: a bypass stands on no isolation"
          ) : permit.job.isolation ? (
            <Link className="link" href={`/jobs/${permit.job.number}/walk`}>
              <span className="tag">{permit.job.isolation.number}</span>,{" "}
              {isolationState(permit.job.isolation.state, permit.job.planFault)}
            </Link>
          ) : (
            "none"
          )}
          {permit.kind !== "safeguard bypass" &&
            permit.job.boxes.map((box) => (
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
    </section>
  );
}

/** What only its kind says. */
function Details({ permit, units, timeZone }: { permit: PermitView; units: UnitSystem; timeZone: string }) {
  const { details } = permit;
  switch (details.kind) {
    case "hot work":
      return (
        <>
          <Row label="Hot work">
            {details.works.join(", ")}, {details.inEquipment ? "in or on equipment" : "in the open or a building"};{" "}
            {details.welders} with a flame or arc; level{" "}
            <span className="num whitespace-nowrap">{figure(details.level_m, "length", units)}</span>
          </Row>
          <Row label="Watch after">{details.afterWatch}</Row>
        </>
      );
    case "confined space entry":
      return (
        <>
          <Row label="The space">
            {details.space}: {classified(details)};{" "}
            <span className="num">
              {figure(details.volume_m3, "volume", units)}, {figure(details.depth_m, "length", units)}
            </span>{" "}
            deep
          </Row>
          <Row label="Inside">
            At most <span className="num">{details.most}</span>, spoken to every{" "}
            <span className="num">{details.talk_min} min</span>
          </Row>
          <Row label="Rescue">{details.rescue}</Row>
        </>
      );
    case "line break":
      return (
        <Row label="Line">
          {details.line}. First flange: {details.flange}. Release: {details.release}.
        </Row>
      );
    case "electrical work":
      return (
        <Row label="Conductors">
          <span className="num">{details.voltage_V} V</span>
          {details.live && <strong>, stays live: {details.liveReason}</strong>}
          {details.sanction && ", sanction for test"}
        </Row>
      );
    case "work at height":
      return (
        <Row label="Height">
          <span className="num">{figure(details.height_m, "length", units)}</span>: {details.protection}
          {details.harnesses.length > 0 && `; harnesses ${details.harnesses.join(", ")}`}
        </Row>
      );
    case "pressure test":
      return (
        <Row label="Test">
          <span className="num">
            {figure(details.pressure_Pa, "gauge", units)}, {figure(details.volume_m3, "volume", units)}
          </span>{" "}
          of {details.medium}
        </Row>
      );
    case "safeguard bypass":
      return (
        <>
          <Row label="Safeguard">
            {details.safeguard}: {details.why}
          </Row>
          <Row label="Instead">{details.compensation}</Row>
          <Row label="Back by">{dayAndClock(details.until_ms, timeZone)}</Row>
        </>
      );
    case "general":
      return null;
  }
}

function classified(space: Extract<PermitView["details"], { kind: "confined space entry" }>): string {
  const why = [
    space.badAir && "bad air",
    space.engulfing && "may bury or drown",
    space.trapping && "traps",
    space.otherHazard && (space.otherWords || "another serious hazard"),
  ].filter(Boolean);
  return why.length === 0 ? "no hazard was named, so all are assumed" : why.join(", ");
}

function Story({ permit, timeZone }: { permit: PermitView; timeZone: string }) {
  if (permit.story.length === 0) return null;
  return (
    <section aria-labelledby="story">
      <details open={permit.story.length <= STORY_OPEN}>
        <summary className="cursor-pointer">
          <h2 id="story" className="inline text-lg font-semibold">
            Log: <span className="num">{permit.story.length}</span>
          </h2>
        </summary>
        <ol aria-label="Log" className="border-base-300 divide-base-300 mt-2 divide-y border-y">
          {[...permit.story].reverse().map(({ at_ms, by, words }, i) => (
            <li key={`${at_ms} ${i}`} className="grid grid-cols-[8.5rem_1fr] gap-x-4 py-1.5">
              <span className="num">{dayAndClock(at_ms, timeZone)}</span>
              <span>
                {words}
                {by && <span className="opacity-80">, {by}</span>}
              </span>
            </li>
          ))}
        </ol>
      </details>
    </section>
  );
}
const STORY_OPEN = 12;

function Row({ label, children }: { label: string; children: ReactNode }) {
  return (
    <>
      <dt className="opacity-85">{label}</dt>
      <dd className="max-w-prose whitespace-pre-wrap">{children}</dd>
    </>
  );
}
