import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { permitState } from "@/core/words/en/permitState";
import { signOut } from "@/app/sign-in/actions";
import { crewView, type CrewView } from "@/server/crew/crewView";
import { requirePerson } from "@/server/people/session";
import { requestTime_ms, siteTimeZone } from "@/server/runtime/siteTime";
import { BeginCrew } from "@/ui/crew/BeginCrew";
import { CrewBench } from "@/ui/crew/CrewBench";
import { LeaveBox } from "@/ui/crew/LeaveBox";
import { WhenOver } from "@/ui/crew/WhenOver";
import { Link } from "@/ui/text/Link";
import { clock, span } from "@/ui/text/when";
import { StopWork } from "../parts/StopWork";

type Params = { params: Promise<{ number: string }> };

export async function generateMetadata({ params }: Params): Promise<Metadata> {
  return { title: `Crew at the box, ${(await params).number}` };
}

/** The screen at the box. Until its leader ends the round it shows nothing else. */
export default async function CrewPage({ params }: Params) {
  const { number } = await params;
  const person = await requirePerson({ box: number });
  const now_ms = requestTime_ms();
  const timeZone = siteTimeZone();
  const view = crewView(number, person, now_ms);
  if (view === null) notFound();
  const { round } = view;
  const isHere = round !== null && person.crewRound === round.number;
  return (
    <>
      <header className="border-base-content flex flex-wrap items-center gap-x-5 gap-y-1 border-b-2 px-4 py-2 md:px-6">
        <h1 className="flex flex-wrap items-baseline gap-x-4 font-semibold">
          <span className="tag text-2xl">{number}</span>
          <span className="text-lg">Crew at the box · {permitState(view.state)}</span>
        </h1>
        <p className="min-w-0 flex-1 max-md:order-3 max-md:basis-full">
          <span className="tag">{view.job}</span> {view.title}
        </p>
        <p className="text-right leading-tight max-md:order-4 max-md:text-left">
          {isHere && round.isOpen ? (
            <>
              <strong className="block">{person.name} stands by</strong>
              <span className="num text-sm">
                round <span className="tag">{round.number}</span>, over at {clock(round.until_ms, timeZone)} if nobody
                comes or goes
              </span>
            </>
          ) : (
            <span>
              no round open; permit ends <span className="num">{clock(view.validTo_ms, timeZone)}</span>
              {view.validTo_ms > now_ms && <span className="num">, in {span(view.validTo_ms - now_ms)}</span>}
            </span>
          )}
        </p>
        <StopWork permit={view} />
      </header>
      {isHere && round.isOpen ? (
        <>
          <WhenOver in_ms={round.until_ms - now_ms} />
          <CrewBench view={view} round={round} lead={person.name} timeZone={timeZone} signOut={signOut} />
        </>
      ) : isHere ? (
        <Over view={view} round={round.number} lead={person.name} />
      ) : (
        <Before view={view} />
      )}
    </>
  );
}

/** Ten minutes without anybody: the screen stays where it is, and asks for its leader. */
function Over({ view, round, lead }: { view: CrewView; round: string; lead: string }) {
  return (
    <div className="grid max-w-5xl gap-8 px-4 py-5 md:grid-cols-2 md:px-6">
      <section aria-labelledby="again" className="space-y-3">
        <h2 id="again" className="text-xl font-semibold">
          This round is over
        </h2>
        <p className="max-w-prose">
          Nobody came or went for ten minutes. Nobody signs here until {lead} is beside it again and begins another.
        </p>
        <BeginCrew permit={view.number} button={`${lead} stands by again`} />
      </section>
      <LeaveBox view={view} round={round} lead={lead} signOut={signOut} />
    </div>
  );
}

function Before({ view }: { view: CrewView }) {
  return (
    <div className="max-w-prose space-y-4 px-4 py-5 md:px-6">
      <h2 className="text-xl font-semibold">Everybody signs here, one after the other</h2>
      <p>
        Each of the crew touches their name, says where the work is, hangs their own lock and signs with their own PIN.
        Whoever leads or issued the work stands beside it and signs for that once. The round is over when nobody comes
        or goes for ten minutes. Until it is ended this screen shows the crew and nothing else; work can be stopped on
        it as on every other.
      </p>
      {view.mayLead ? (
        <BeginCrew permit={view.number} button="I stand by, begin" />
      ) : (
        <p className="border-base-content rounded-md border-2 px-4 py-3">
          {view.leads.join(" or ")} begins it. On your own device you sign on at{" "}
          <Link href={`/permits/${view.number}`} className="link">
            the permit
          </Link>
          .
        </p>
      )}
    </div>
  );
}
