"use client";

import { usePathname, useRouter } from "next/navigation";
import { useEffect, useRef } from "react";
import { pageName } from "../act/pageName";
import { AlarmBand } from "./AlarmBand";
import { askAlarms, hasAlarms, sayAlarm } from "./alarms";
import { readHappening } from "./happening";
import { heardBefore, rememberHeard } from "./heard";
import { looks } from "./looks";

/** Readings come every second, and a board shows everybody's acts: such pages look no more often than this. */
const OFTEN_MS = { readings: 3000, boards: 5000 };
const PERMIT = /^P-\d+$/;
const BOARDS: readonly string[] = ["/", "/permits", "/locks", "/jobs"];

/**
 * Listens to the server and fetches the page again when something changed. What is an alarm is said over everything else,
 * whatever page is open, until somebody looks. A page that was hidden asks from what it last heard, and looks again.
 */
export function LiveUpdates() {
  const router = useRouter();
  const path = usePathname();
  const here = useRef(path);
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
      if (happening === null) return;
      // A line that stands anew: what was answered meanwhile is not told on it.
      if (happening.kind === "open") return void askAlarms();
      if (happening.kind === "alarm") {
        sayAlarm(happening.subject);
        return page.soon(0);
      }
      // Somebody sees to it, or did something about it.
      if (hasAlarms() && happening.about.some((number) => PERMIT.test(number))) void askAlarms();
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
  return <AlarmBand />;
}
