"use client";

import { usePathname, useRouter } from "next/navigation";
import { useEffect, useRef } from "react";
import { pageName } from "../act/pageName";
import { AlarmBand } from "./AlarmBand";
import { askAlarms, hasAlarms, sayAlarm } from "./alarms";
import { looksFor, toldLately } from "./concerns";
import { readHappening } from "./happening";
import { heardBefore, rememberHeard } from "./heard";
import { looks } from "./looks";

const PERMIT = /^P-\d+$/;
const now_ms = () => performance.now();

/** Everything that one tab has to hear of: the page that is shown, what it is told, and when it looks again. */
type Ear = Readonly<{ page: ReturnType<typeof looks>; lately: ReturnType<typeof toldLately> }>;

/**
 * Listens to the server and fetches the page again when something changed. What is an alarm is said over everything else,
 * whatever page is open, until somebody looks. No page shows what was so before it came: one that was hidden, gone back to,
 * on its way, or drawn before its line stood looks again for what it missed.
 */
export function LiveUpdates({ drawnAfter }: { /** What had been told when the page was drawn. */ drawnAfter: string }) {
  const router = useRouter();
  const path = usePathname();
  const here = useRef(path);
  const ear = useRef<Ear>(null);
  const drawn = useRef(drawnAfter);
  useEffect(() => {
    here.current = path;
    const missed = ear.current?.lately.missedBy(path) ?? null;
    if (missed !== null) ear.current?.page.soon(missed);
  }, [path]);
  useEffect(() => {
    let source: EventSource | null = null;
    const page = looks(() => router.refresh(), {
      now_ms,
      after: (ms, then) => {
        const timer = setTimeout(then, ms);
        return () => clearTimeout(timer);
      },
    });
    const lately = toldLately(now_ms);
    ear.current = { page, lately };
    let heard = heardBefore();
    let followed = false;
    const hear = ({ data, lastEventId }: MessageEvent<string>) => {
      heard = rememberHeard(lastEventId) ?? heard;
      const happening = readHappening(data);
      if (happening === null) return;
      if (happening.kind === "open") {
        // Looked once the line stands, so that nothing falls between the look and the line.
        if (followed || happening.told !== drawn.current) page.soon(0);
        followed = true;
        // A line that stands anew: what was answered meanwhile is not told on it.
        return void askAlarms();
      }
      if (happening.kind === "alarm") sayAlarm(happening.subject);
      else {
        // Somebody sees to it, or did something about it.
        if (hasAlarms() && happening.about.some((number) => PERMIT.test(number))) void askAlarms();
        // The form that did it fetches the page itself, once it has its answer.
        if (happening.page === pageName()) return;
      }
      lately.keep(happening);
      const soon = looksFor(happening, here.current);
      if (soon !== null) page.soon(soon);
    };
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
      }
    };
    // A page that is gone back to is shown as it was left.
    const goneBack = () => page.soon(0);
    const shownAgain = ({ persisted }: PageTransitionEvent) => persisted && page.soon(0);
    follow();
    document.addEventListener("visibilitychange", follow);
    window.addEventListener("popstate", goneBack);
    window.addEventListener("pageshow", shownAgain);
    return () => {
      document.removeEventListener("visibilitychange", follow);
      window.removeEventListener("popstate", goneBack);
      window.removeEventListener("pageshow", shownAgain);
      source?.close();
      page.stop();
    };
  }, [router]);
  return <AlarmBand />;
}
