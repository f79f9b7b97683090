"use client";

import Link from "next/link";
import { usePathname, useRouter } from "next/navigation";
import { useEffect, useRef, useState } from "react";
import { pageName } from "../act/pageName";

type Happening = Readonly<{
  kind: "act" | "permit" | "instrument";
  subject: string;
  about: readonly string[];
  alarm: boolean;
  page?: string | null;
}>;

/** Many things may happen at once; the page is fetched once for them. */
const GATHER_MS = 250;
/** Readings come every second, and a board shows everybody's acts: such pages look no more often than this. */
const OFTEN_MS = { readings: 3000, boards: 20_000 };
const BOARDS: readonly string[] = ["/", "/permits", "/locks"];

/**
 * Listens to the server and fetches the page again when something changed. What is an alarm is said over everything else,
 * whatever page is open, until somebody looks.
 */
export function LiveUpdates() {
  const router = useRouter();
  const path = usePathname();
  const here = useRef(path);
  const [alarms, setAlarms] = useState<readonly string[]>([]);
  useEffect(() => {
    here.current = path;
  }, [path]);
  useEffect(() => {
    let source: EventSource | null = null;
    let waiting: ReturnType<typeof setTimeout> | null = null;
    let lastLook = 0;
    const look = () => {
      waiting ??= setTimeout(() => {
        waiting = null;
        router.refresh();
      }, GATHER_MS);
    };
    const hear = ({ data }: MessageEvent<string>) => {
      const { kind, subject, about, alarm, page } = JSON.parse(data) as Happening;
      if (alarm) {
        setAlarms((all) => [...all.filter((one) => one !== subject), subject]);
        return look();
      }
      // The form that did it fetches the page itself, once it has its answer.
      if (page === pageName()) return;
      const concerns = about.some((number) => here.current.includes(number));
      if (!concerns && !BOARDS.includes(here.current)) return;
      const often_ms = !concerns ? OFTEN_MS.boards : kind === "instrument" ? OFTEN_MS.readings : 0;
      if (Date.now() - lastLook < often_ms) return;
      lastLook = Date.now();
      look();
    };
    // A browser keeps few connections to one server: a page that nobody sees holds none, and looks when it is seen again.
    const follow = () => {
      if (document.visibilityState === "hidden") {
        source?.close();
        source = null;
      } else if (source === null) {
        source = new EventSource("/api/events");
        source.onmessage = hear;
        let opened = false;
        source.onopen = () => {
          if (opened) look();
          opened = true;
        };
      }
    };
    follow();
    document.addEventListener("visibilitychange", follow);
    return () => {
      document.removeEventListener("visibilitychange", follow);
      source?.close();
      if (waiting) clearTimeout(waiting);
    };
  }, [router]);
  return (
    <div role="alert" className={alarms.length > 0 ? "no-print bg-error text-error-content px-4 py-2 md:px-8" : ""}>
      {alarms.map((number) => (
        <p key={number} className="flex flex-wrap items-center gap-x-4 gap-y-1">
          <strong>Permit {number} has stopped.</strong>
          <Link
            href={`/permits/${number}`}
            className="link"
            onClick={() => setAlarms((all) => all.filter((one) => one !== number))}
          >
            See why
          </Link>
          <button
            type="button"
            className="link ml-auto"
            onClick={() => setAlarms((all) => all.filter((one) => one !== number))}
          >
            I have seen it
          </button>
        </p>
      ))}
    </div>
  );
}
