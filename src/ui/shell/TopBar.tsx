"use client";

import { Menu, Search } from "lucide-react";
import { Link } from "../text/Link";
import { usePathname } from "next/navigation";
import { useEffect, useRef, type ReactNode } from "react";
import { LanternMark } from "./LanternMark";
import { isHere, PLACES } from "./places";

/** The one head of every page: mark, places, what is sought, and who is signed in. Rare things are in the menu. */
export function TopBar({ person, roles, children }: { person: string; roles: string; children: ReactNode }) {
  const path = usePathname();
  return (
    <header className="no-print bg-base-200 border-base-300 flex h-12 items-center gap-x-4 border-b px-3 md:px-5">
      <Link href="/" className="flex items-center gap-2 font-semibold whitespace-nowrap">
        <LanternMark />
        <span className="max-md:sr-only md:max-xl:sr-only lg:inline">Heavy Lantern</span>
      </Link>
      <nav aria-label="Main" className="hidden min-w-0 flex-1 md:flex">
        {PLACES.map(({ href, words }) => (
          <Link
            key={href}
            href={href}
            aria-current={isHere(href, path) ? "page" : undefined}
            className={`hover:bg-base-300 flex h-9 items-center rounded-sm px-2 whitespace-nowrap xl:px-3 ${isHere(href, path) ? "bg-base-300 font-semibold" : ""}`}
          >
            {words}
          </Link>
        ))}
      </nav>
      <Find />
      <details className="relative ml-auto md:ml-0">
        <summary className="hover:bg-base-300 flex h-9 cursor-pointer list-none items-center gap-2 rounded-sm px-2 text-sm whitespace-nowrap">
          <span className="max-w-28 truncate sm:max-w-48">
            <span className="font-medium">{person}</span>
          </span>
          <Menu aria-hidden size={16} />
          <span className="sr-only">, units, theme, sign out</span>
        </summary>
        <div className="bg-base-100 border-base-300 absolute top-11 right-0 z-30 w-72 border p-3 shadow-lg">
          <p className="font-medium">{person}</p>
          <p className="mb-2 text-sm">{roles}</p>
          <div className="flex flex-wrap items-center gap-2">{children}</div>
          <p className="mt-2 text-sm">
            <Link href="/programs" className="link">
              Calendar and programs
            </Link>
          </p>
          <p className="border-base-300 mt-3 border-t pt-2 text-sm">
            A planning and record aid. Local codes, licensed people and your own procedures decide.
          </p>
        </div>
      </details>
    </header>
  );
}

/** Two letters of a tag, a job, a permit, a person or a lock. `/` goes there from anywhere. */
function Find() {
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    const toField = (event: KeyboardEvent) => {
      const at = event.target as HTMLElement | null;
      const isTyping = at !== null && (at.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(at.tagName));
      if (event.key !== "/" || isTyping || event.ctrlKey || event.metaKey || event.altKey) return;
      event.preventDefault();
      field.current?.focus();
    };
    document.addEventListener("keydown", toField);
    return () => document.removeEventListener("keydown", toField);
  }, []);
  return (
    <form action="/find" role="search" aria-label="Everywhere" className="ml-auto flex min-w-0 items-center">
      <label className="border-base-300 bg-base-100 flex h-9 min-w-0 items-center gap-2 rounded-sm border px-2">
        <Search aria-hidden size={16} className="shrink-0 opacity-80" />
        <span className="sr-only">Find a tag, job, permit, person or lock</span>
        <input
          ref={field}
          name="q"
          type="search"
          maxLength={60}
          autoComplete="off"
          placeholder="Tag, job, permit, lock"
          className="w-24 min-w-0 bg-transparent text-sm outline-none sm:w-40 lg:w-44"
        />
        <kbd aria-hidden className="hidden text-sm opacity-80 lg:inline">
          /
        </kbd>
      </label>
    </form>
  );
}
