import type { Metadata } from "next";
import { Link } from "@/ui/text/Link";
import type { ReactNode } from "react";
import { mayRead } from "@/core/people/mayRead";
import { duration } from "@/core/units/format";
import { database } from "@/server/db/database";
import { siteFigures } from "@/server/figures/siteFigures";
import { requirePerson } from "@/server/people/session";
import { requestTime_ms, siteTimeZone } from "@/server/runtime/siteTime";
import { NotToRead } from "@/ui/people/NotToRead";
import { Bars } from "@/ui/figures/Bars";
import { SpreadLine } from "@/ui/figures/SpreadLine";
import { dayAndClock } from "@/ui/text/when";
import { daysOf, PERIODS } from "./period";

export const metadata: Metadata = { title: "Figures" };

const DAY_MS = 86_400_000;

/** What the record says of a time that is over: what ran late, failed, was missed or stopped, and how long things took. */
export default async function FiguresPage({ searchParams }: { searchParams: Promise<{ days?: string }> }) {
  const person = await requirePerson();
  if (!mayRead("figures", person)) return <NotToRead what="figures" head="Figures" />;
  const days = daysOf((await searchParams).days);
  const now = requestTime_ms();
  const from = now - days * DAY_MS;
  const figures = siteFigures(database(), from, now);
  const missed = figures.missedLooks.reduce((sum, { n }) => sum + n, 0);
  return (
    <div className="max-w-6xl px-4 py-4 md:px-5">
      <div className="flex flex-wrap items-baseline gap-x-6 gap-y-1">
        <h1 className="text-2xl font-semibold tracking-tight">Figures</h1>
        <nav aria-label="Time" className="flex flex-wrap gap-x-4">
          {PERIODS.map(([length, words]) => (
            <Link
              key={length}
              href={`/figures?days=${length}`}
              aria-current={length === days ? "page" : undefined}
              className={`inline-flex min-h-11 items-center ${length === days ? "font-semibold" : "link"}`}
            >
              {words}
            </Link>
          ))}
        </nav>
        <a href={`/figures/csv?days=${days}`} className="link ml-auto inline-flex min-h-11 items-center">
          As a table (CSV)
        </a>
      </div>
      <p className="mb-6">
        Since <span className="num">{dayAndClock(from, siteTimeZone())}</span>, from the record alone.
      </p>
      <div className="grid gap-x-14 gap-y-9 lg:grid-cols-2">
        <Part head="From request to start">
          <SpreadLine
            label="From request to start"
            spread={figures.toStart_h}
            words={(hours) => toMinutes(hours * 60)}
            none="No job began in this time."
          />
        </Part>
        <Part head="From an alarm to who sees to it">
          <SpreadLine
            label="From an alarm to who sees to it"
            spread={figures.toAnswer_min}
            words={toMinutes}
            none="No alarm was answered in this time."
          />
          {figures.unanswered > 0 && (
            <p className="mt-1">
              <strong className="num">{figures.unanswered}</strong> not answered.
            </p>
          )}
        </Part>
        <Part head="Work stopped, by cause">
          <Bars label="Stops by cause" counts={figures.stops} none="Nothing was stopped." />
        </Part>
        <Part head="Proofs that failed">
          <Bars
            label="Failed proofs"
            counts={figures.failedProofs.map(({ key, n }) => ({ key: FAILED_WORDS[key] ?? key, n }))}
            none="None failed."
          />
        </Part>
        <Part head="Deviations, by the device that should have held">
          <Bars label="Deviations by device" counts={figures.deviations} none="None was accepted." />
        </Part>
        <Part head="Expired before they were handed back">
          {figures.ranOver.length === 0 ? (
            <p>
              None of <span className="num">{figures.worked}</span> permits.
            </p>
          ) : (
            <p>
              <span className="num">
                {figures.ranOver.length} of {figures.worked}
              </span>{" "}
              permits:{" "}
              {figures.ranOver.map((number, i) => (
                <span key={number}>
                  {i > 0 && ", "}
                  <Link href={`/permits/${number}`} className="link tag">
                    {number}
                  </Link>
                </span>
              ))}
            </p>
          )}
        </Part>
        <Part head="Periodic checks after hot work">
          {figures.looks === 0 ? (
            <p>None was due.</p>
          ) : (
            <p>
              <span className="num">
                {missed} of {figures.looks}
              </span>{" "}
              missed.
            </p>
          )}
          {missed > 0 && <Bars label="Missed checks by permit" counts={figures.missedLooks} none="" />}
        </Part>
        <Part head="Locks read at their points">
          {figures.lockRounds === 0 ? (
            <p>No round was made.</p>
          ) : (
            <p>
              Rounds: <span className="num">{figures.lockRounds}</span>. Not found:{" "}
              <strong className="num">{figures.locksNotFound}</strong>.
            </p>
          )}
        </Part>
      </div>
    </div>
  );
}

/** Nobody counts the seconds of what takes longer than minutes. */
function toMinutes(minutes: number): string {
  return duration(minutes < 2 ? Math.round(minutes * 60) : Math.round(minutes) * 60);
}

const FAILED_WORDS: Readonly<Record<string, string>> = {
  "not safe": "the reading was not safe",
  leaks: "it leaked",
  started: "it started",
};

function Part({ head, children }: { head: string; children: ReactNode }) {
  const id = head.toLowerCase().replaceAll(/[^a-z]+/g, "-");
  return (
    <section aria-labelledby={id}>
      <h2 id={id} className="border-base-content mb-2 border-b pb-1 font-semibold">
        {head}
      </h2>
      {children}
    </section>
  );
}
