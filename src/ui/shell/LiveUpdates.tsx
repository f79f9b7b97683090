"use client";

import Link from "next/link";
import { usePathname, useRouter } from "next/navigation";
import { useEffect, useRef } from "react";
import { pageName } from "../act/pageName";
import { sayAlarm, settleAlarm, useAlarms } from "./alarms";
import { readHappening } from "./happening";
import { heardBefore, rememberHeard } from "./heard";
import { looks } from "./looks";

/** What stops is a permit, or all work somewhere that could not be written down. */
const PERMIT = /^P-\d+$/;
/** More alarms at once are one line. */
const TOLD_APART = 4;
/** Readings come every second, and a board shows everybody's acts: such pages look no more often than this. */
const OFTEN_MS = { readings: 3000, boards: 5000 };
const BOARDS: readonly string[] = ["/", "/permits", "/locks", "/jobs"];

/**
 * Listens to the server and fetches the page again when something changed. What is an alarm is said over everything else,
 * whatever page is open, until somebody looks. A page that was hidden asks from what it last heard, and looks again.
 */
export function LiveUpdates() {
  const router = useRouter();
  const path = usePathname();
  const here = useRef(path);
  const alarms = useAlarms();
  useEffect(() => {
    here.current = path;
  }, [path]);
  useEffect(() => {
    let source: EventSource | null = null;
    const page = looks(() => router.refresh(), {
      now_ms: () => performance.now(),
      after: (ms, then) => {
        const timer = setTimeout(then, ms);
        return () => clearTimeout(timer);
      },
    });
    let heard = heardBefore();
    const hear = ({ data, lastEventId }: MessageEvent<string>) => {
      heard = rememberHeard(lastEventId) ?? heard;
      const happening = readHappening(data);
      if (happening === null || happening.kind === "open") return;
      if (happening.kind === "alarm") {
        sayAlarm(happening.subject);
        return page.soon(0);
      }
      // The form that did it fetches the page itself, once it has its answer.
      if (happening.page === pageName()) return;
      const concerns = happening.about.some((number) => here.current.includes(number));
      if (!concerns && !BOARDS.includes(here.current)) return;
      page.soon(!concerns ? OFTEN_MS.boards : happening.kind === "instrument" ? OFTEN_MS.readings : 0);
    };
    let followed = false;
    // A browser keeps few connections to one server: a page that nobody sees holds none, and looks when it is seen again.
    const follow = () => {
      if (document.visibilityState === "hidden") {
        source?.close();
        source = null;
      } else if (source === null) {
        source = new EventSource(heard === null ? "/api/events" : `/api/events?since=${heard}`);
        source.onmessage = hear;
        // Refused, not broken off: the sign-in is over, and the page says so when it looks.
        source.onerror = () => {
          if (source?.readyState === EventSource.CLOSED) page.soon(0);
        };
        // Looked once the line stands, so that nothing falls between the look and the line.
        source.onopen = () => {
          if (followed) page.soon(0);
          followed = true;
        };
      }
    };
    follow();
    document.addEventListener("visibilitychange", follow);
    return () => {
      document.removeEventListener("visibilitychange", follow);
      source?.close();
      page.stop();
    };
  }, [router]);
  return (
    <div role="alert" className={alarms.length > 0 ? "no-print bg-error text-error-content px-4 py-2 md:px-8" : ""}>
      {alarms.length > TOLD_APART && (
        <p className="flex flex-wrap items-center gap-x-4 gap-y-1">
          <strong>{alarms.length} permits have stopped.</strong>
          <Link href="/" className="link">
            See the board
          </Link>
          <button type="button" className="link ml-auto" onClick={() => alarms.forEach(settleAlarm)}>
            I have seen it
          </button>
        </p>
      )}
      {(alarms.length > TOLD_APART ? [] : alarms).map((number) => (
        <p key={number} className="flex flex-wrap items-center gap-x-4 gap-y-1">
          <strong>{PERMIT.test(number) ? `Permit ${number} has stopped.` : `Stop: ${number}.`}</strong>
          <Link
            href={PERMIT.test(number) ? `/permits/${number}` : "/"}
            className="link"
            onClick={() => settleAlarm(number)}
          >
            See why
          </Link>
          <button type="button" className="link ml-auto" onClick={() => settleAlarm(number)}>
            I have seen it
          </button>
        </p>
      ))}
    </div>
  );
}
