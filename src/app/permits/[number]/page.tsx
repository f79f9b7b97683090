import { isolationState } from "@/core/words/en/notHeld";
import { permitState } from "@/core/words/en/permitState";
import type { Metadata } from "next";
import { Link } from "@/ui/text/Link";
import { notFound } from "next/navigation";
import type { ReactNode } from "react";
import { kindRule } from "@/core/permit/kinds/kinds";
import { figure } from "@/core/units/format";
import type { UnitSystem } from "@/core/units/units";
import { mayDo, permitView, type PermitView } from "@/server/permit/permitView";
import { removalsOf } from "@/server/box/removals";
import { requirePerson } from "@/server/people/session";
import { requestTime_ms, siteTimeZone } from "@/server/runtime/siteTime";
import { HandOverForm } from "@/ui/locks/HandOverForm";
import { Removals } from "@/ui/locks/Removals";
import { dayAndClock, span } from "@/ui/text/when";
import { Air } from "./parts/Air";
import { Clashes, Out } from "./parts/Around";
import { Asks } from "./parts/Asks";
import { hungAlone, PeopleOn } from "./parts/PeopleOn";
import { AfterWatch, Posts } from "./parts/Posts";
import { Reach } from "./parts/Reach";
import { Reports } from "./parts/Reports";
import { ChangeDraft } from "./parts/ChangeDraft";
import { SigningActs } from "./parts/SigningActs";
import { StopWork } from "./parts/StopWork";
import { Sums } from "./parts/Sums";

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
  const leads = person.roles.some((role) => role === "coordinator" || role === "issuer" || role === "holder");
  // Whoever tests gas comes for that: it stands first, with gloves on and in the rain.
  const testsGas = permit.air !== null && mayDo(permit, person, "begin sample");
  return (
    <>
      <Band permit={permit} now_ms={now_ms} timeZone={timeZone} />
      <div className="grid grid-cols-[minmax(0,1fr)] lg:min-h-[calc(100dvh-7.75rem)] lg:grid-cols-[minmax(0,1fr)_25rem]">
        <section
          aria-label="Acts and people"
          className="border-base-300 space-y-6 px-4 py-4 max-lg:border-b md:px-5 lg:order-2 lg:border-l"
        >
          {testsGas && <Air permit={permit} person={person} now_ms={now_ms} timeZone={timeZone} />}
          <AfterWatch permit={permit} person={person} timeZone={timeZone} />
          <SigningActs permit={permit} person={person} />
          <Posts permit={permit} person={person} now_ms={now_ms} timeZone={timeZone} />
          <PeopleOn permit={permit} timeZone={timeZone} />
          <Removals
            permit={permit.number}
            removals={removalsOf(permit.number)}
            on={[...on, ...hungAlone(permit, on)]}
            person={{ id: person.id, roles: person.roles }}
            timeZone={timeZone}
          />
          {permit.state === "live" && on.length > 0 && leads && mayDo(permit, person, "hand over") && (
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
          <Out permit={permit} person={person} timeZone={timeZone} />
          <Reports permit={permit} person={person} timeZone={timeZone} />
        </section>
        <div className="space-y-7 px-4 py-4 md:px-5">
          <Notices permit={permit} timeZone={timeZone} />
          <Words permit={permit} units={person.units} now_ms={now_ms} timeZone={timeZone} />
          <ChangeDraft permit={permit} person={person} />
          <Clashes permit={permit} person={person} timeZone={timeZone} />
          <Asks permit={permit} person={person} />
          {!testsGas && <Air permit={permit} person={person} now_ms={now_ms} timeZone={timeZone} />}
          <Reach permit={permit} units={person.units} />
          <Sums permit={permit} units={person.units} timeZone={timeZone} />
          <Story permit={permit} timeZone={timeZone} />
        </div>
      </div>
    </>
  );
}

/** How a state looks besides its word: a tone, and a texture of its own, so that neither is needed alone. */
const BANDS: Readonly<Record<PermitView["state"], string>> = {
  draft: "band-paper",
  checked: "band-paper",
  authorised: "band-paper",
  issued: "band-paper",
  live: "band-active",
  suspended: "band-stopped",
  "run out": "band-stopped",
  watching: "band-watch",
  "work done": "band-watch",
  closed: "band-over",
  cancelled: "band-over",
};

/** The permit's number, kind and state as a band, how long it still holds, and the way to stop the work. */
function Band({ permit, now_ms, timeZone }: { permit: PermitView; now_ms: number; timeZone: string }) {
  const left = permit.validTo_ms - now_ms;
  const isRunning = ["issued", "live", "suspended"].includes(permit.state);
  return (
    <header
      className={`band ${BANDS[permit.runOut ? "run out" : permit.state]} border-base-content flex flex-wrap items-center gap-x-5 gap-y-1 border-b-2 px-4 py-2 md:px-5`}
    >
      <h1 className="flex flex-wrap items-baseline gap-x-4 font-semibold max-md:flex-1">
        <span className="tag text-2xl">{permit.number}</span>
        <span className="text-lg">
          <span className="inline-block first-letter:uppercase">{permit.kind}</span> ·{" "}
          <span>{permitState(permit.state)}</span>
        </span>
      </h1>
      <p className="min-w-0 flex-1 max-md:order-3 max-md:basis-full">
        <Link href={`/jobs/${permit.job.number}/permits`} className="link">
          <span className="tag">{permit.job.number}</span> {permit.job.title}
        </Link>
        {permit.previous && (
          <>
            , goes on from{" "}
            <Link href={`/permits/${permit.previous}`} className="link tag">
              {permit.previous}
            </Link>
          </>
        )}
        {permit.next.map((number) => (
          <span key={number}>
            , goes on in{" "}
            <Link href={`/permits/${number}`} className="link tag">
              {number}
            </Link>
          </span>
        ))}
      </p>
      {isRunning && (
        <p className="flex-none text-right leading-tight max-md:order-4 max-md:text-left">
          <strong className="num block text-lg">{left > 0 ? `${span(left)} left` : "no time left"}</strong>
          <span className="num text-sm">to {dayAndClock(permit.validTo_ms, timeZone)}, then work stops</span>
        </p>
      )}
      <StopWork permit={permit} />
    </header>
  );
}

/** What must be read before anything else on the sheet. */
function Notices({ permit, timeZone }: { permit: PermitView; timeZone: string }) {
  const { stop } = permit;
  return (
    <>
      {permit.runOut && (
        <p role="alert" className="border-error bg-error/10 border-l-4 px-3 py-2">
          This permit expired at {dayAndClock(permit.validTo_ms, timeZone)}. Stop work, make safe, sign off.
        </p>
      )}
      {permit.sentBack && (
        <p role="status" className="border-warning border-l-4 px-3 py-2">
          <strong>Sent back</strong> {dayAndClock(permit.sentBack.at_ms, timeZone)} by {permit.sentBack.by}:{" "}
          {permit.sentBack.words}
        </p>
      )}
      {stop?.type === "stopped" && (
        <div role="alert" className="border-error bg-error/10 border-l-4 px-3 py-2">
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
        <p className="border-warning border-l-4 px-3 py-2">
          A break since {dayAndClock(stop.at_ms, timeZone)}. The watch stays; the air is read again before work goes on.
        </p>
      )}
      {permit.stale.length > 0 &&
        ["draft", "checked", "authorised", "issued", "live", "suspended"].includes(permit.state) && (
          <p className="border-warning border-l-4 px-3 py-2">
            Nobody goes on before{" "}
            <Link className="link" href={`/jobs/${permit.job.number}/walk`}>
              {permit.stale.length === 1 ? "a proof is" : `${permit.stale.length} proofs are`} done again
            </Link>
            : {permit.stale.slice(0, 2).join("; ")}
            {permit.stale.length > 2 && ` and ${permit.stale.length - 2} more`}.
          </p>
        )}
    </>
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
  const isAlone = kindRule(permit.kind).alone;
  return (
    <section aria-label="What it says">
      <dl className="grid gap-x-5 gap-y-2 sm:grid-cols-[8rem_1fr]">
        <Row label="Permitted work">
          <strong>{permit.words}</strong>
        </Row>
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
        <Row label={isAlone ? "Works alone" : "Holder"}>{permit.holder}</Row>
        <Row label="Issuer">{permit.issuer ?? (isAlone ? "none: the short route" : "not issued yet")}</Row>
        <Row label="Isolation">
          {permit.kind === "safeguard bypass" ? (
            "none: a bypass stands on no isolation"
          ) : permit.job.isolation ? (
            <Link className="link" href={`/jobs/${permit.job.number}/walk`}>
              <span className="tag">{permit.job.isolation.number}</span>,{" "}
              {isolationState(permit.job.isolation.state, permit.job.planFault, permit.stale)}
            </Link>
          ) : (
            "none"
          )}
          {permit.kind !== "safeguard bypass" &&
            !isAlone &&
            permit.job.boxes.map((box) => (
              <span key={box.number}>
                {" "}
                on group lock box{" "}
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
          <Row label="Post-work watch">{details.afterWatch}</Row>
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
  return (
    <section aria-labelledby="story">
      <p className="mb-1">
        <a href={`/permits/${permit.number}/paper`} className="link">
          On paper (PDF)
        </a>
      </p>
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
