"use client";

import { useEffect, useRef, useState, type ReactNode } from "react";
import type { DueRow } from "../../core/board/rows";
import { clock, dayAndClock, span } from "../text/when";
import { dueWords, MARK_WORDS } from "./dueWords";

const FILTERS = [
  { id: "mine", words: "mine", only: (row: DueRow) => row.isMine },
  { id: "craft", words: "my craft", only: (row: DueRow) => row.isOfMyCraft },
  { id: "all", words: "all", only: () => true },
] as const;
type Filter = (typeof FILTERS)[number]["id"];

/** So many are shown before somebody asks for the rest. */
const FIRST = 12;
/** On a phone: the site comes soon below. */
const FEW = 5;
const DAY_MS = 86_400_000;

/** What is due and overdue, first what cannot wait. A full stop on the keyboard goes to the first. */
export function DueList({
  rows,
  area,
  now_ms,
  timeZone,
  shown,
  choose,
  children,
}: {
  rows: readonly DueRow[];
  area: string;
  now_ms: number;
  timeZone: string;
  shown: string | null;
  choose: (number: string | null) => void;
  children: ReactNode;
}) {
  const [filter, setFilter] = useState<Filter>("all");
  const [isWhole, setWhole] = useState(false);
  const firstLink = useRef<HTMLAnchorElement>(null);
  useEffect(() => {
    const toFirst = (event: KeyboardEvent) => {
      const at = event.target as HTMLElement | null;
      const isTyping = at !== null && (at.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(at.tagName));
      if (
        event.key !== "." ||
        (isTyping && (at as HTMLInputElement).type !== "range") ||
        event.ctrlKey ||
        event.metaKey
      )
        return;
      event.preventDefault();
      firstLink.current?.focus();
    };
    document.addEventListener("keydown", toFirst);
    return () => document.removeEventListener("keydown", toFirst);
  }, []);
  const here = rows.filter((row) => area === "" || row.area === area);
  const wanted = here.filter(FILTERS.find(({ id }) => id === filter)!.only);
  const listed = isWhole ? wanted : wanted.slice(0, FIRST);
  return (
    <>
      <div className="board-head">
        <h2 className="font-semibold">Due</h2>
        <div role="group" aria-label="Whose" className="board-levels !p-0">
          {FILTERS.map(({ id, words, only }) => (
            <button key={id} type="button" aria-pressed={filter === id} onClick={() => setFilter(id)}>
              {words} <span className="num">{here.filter(only).length}</span>
            </button>
          ))}
        </div>
        <p aria-hidden className="hidden text-sm opacity-85 lg:block">
          <kbd className="font-mono">.</kbd> goes to the first
        </p>
        <div className="ml-auto flex flex-wrap items-center gap-x-4 gap-y-1">{children}</div>
      </div>
      {wanted.length === 0 && (
        <p className="px-4 py-3">
          {rows.length === 0 ? "Nothing is due." : "Nothing is due here for you: look under “all”."}
        </p>
      )}
      <ol aria-label="Due" className={`board-dues ${isWhole ? "" : "board-dues-few"}`}>
        {listed.map((row, index) => (
          <li
            key={row.key}
            className={`board-row ${row.isOverdue ? "board-row-late" : ""} ${shown === row.about ? "board-row-shown" : ""}`}
            onPointerEnter={() => choose(row.about)}
            onPointerLeave={() => choose(null)}
          >
            <span className={`board-mark board-mark-${row.mark}`}>
              {row.inside > 0 && row.mark !== "inside" ? `${row.inside} inside` : MARK_WORDS[row.mark]}
            </span>
            <span className="tag board-about">{row.about}</span>
            <span className="board-words">
              <a
                ref={index === 0 ? firstLink : undefined}
                href={row.href}
                className="link decoration-1 underline-offset-4"
              >
                {dueWords(row)}
              </a>
              {(row.title || row.area) && (
                <span className="block text-sm opacity-85 lg:ml-3 lg:inline">
                  {[row.title, row.area].filter(Boolean).join(" · ")}
                </span>
              )}
            </span>
            <span className="board-who text-sm">{row.who.join(", ")}</span>
            <span className="num board-when">{whenWords(row, now_ms, timeZone)}</span>
          </li>
        ))}
      </ol>
      {!isWhole && wanted.length > FEW && (
        <p className={`px-4 py-2 ${wanted.length > FIRST ? "" : "sm:hidden"}`}>
          <button type="button" className="link min-h-8" onClick={() => setWhole(true)}>
            Show all {wanted.length}
          </button>
        </p>
      )}
    </>
  );
}

function whenWords({ due_ms, isOverdue, what }: DueRow, now_ms: number, timeZone: string): string {
  if (due_ms === null) return "now";
  if (isOverdue && due_ms < now_ms && what !== "conflict") return `${span(now_ms - due_ms)} late`;
  if (what === "conflict" && isOverdue) return "now";
  return Math.abs(due_ms - now_ms) < DAY_MS / 2 ? clock(due_ms, timeZone) : dayAndClock(due_ms, timeZone);
}
