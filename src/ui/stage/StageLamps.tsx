"use client";

import { Link } from "../text/Link";
import { useEffect, useRef } from "react";

type Stage = Readonly<{
  href: string;
  short: string;
  words: string;
  /** How far it is, in a word or a count. */
  told: string;
  isHere: boolean;
  lamp: "behind" | "next" | "ahead";
}>;

/** The stages of a job as a string of lamps. Where not all fit, the one that is open stands in the middle. */
export function StageLamps({ stages }: { stages: readonly Stage[] }) {
  const here = useRef<HTMLAnchorElement>(null);
  const at = stages.findIndex(({ isHere }) => isHere);
  useEffect(() => {
    const string = here.current?.closest("nav");
    if (!string || !here.current) return;
    string.scrollLeft = here.current.offsetLeft - (string.clientWidth - here.current.offsetWidth) / 2;
  }, [at]);
  return (
    <nav
      aria-label="The job, in the order of the work"
      className="relative min-w-0 overflow-x-auto max-lg:order-last max-lg:basis-full"
    >
      <ol className="flex">
        {stages.map(({ href, short, words, told, isHere, lamp }) => (
          <li key={href}>
            <Link
              ref={isHere ? here : undefined}
              href={href}
              aria-current={isHere ? "step" : undefined}
              className={`hover:bg-base-200 flex h-11 items-center gap-1.5 rounded-sm px-1.5 text-sm whitespace-nowrap ${isHere ? "font-bold underline decoration-2 underline-offset-8" : ""}`}
            >
              <Lamp state={lamp} />
              <span aria-hidden={short !== words}>{short}</span>
              {short !== words && <span className="sr-only">{words}</span>}
              {told && <span className="sr-only">, {told}</span>}
            </Link>
          </li>
        ))}
      </ol>
    </nav>
  );
}

/** A stage's lamp: behind the work, the one that is next, or ahead of it. */
function Lamp({ state }: { state: Stage["lamp"] }) {
  return (
    <svg aria-hidden viewBox="0 0 14 14" className="size-3 shrink-0">
      {state === "next" && <circle cx="7" cy="7" r="6.5" style={{ fill: "var(--glow)" }} opacity="0.35" />}
      <circle
        cx="7"
        cy="7"
        r="4.2"
        style={{
          fill: state === "behind" ? "currentColor" : state === "next" ? "var(--glow)" : "none",
          stroke: state === "next" ? "var(--glow)" : "currentColor",
        }}
        strokeWidth="1.4"
      />
    </svg>
  );
}
