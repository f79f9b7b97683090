"use client";

import Link from "next/link";
import { usePathname } from "next/navigation";
import type { ReactNode } from "react";

const PLACES = [
  { href: "/", words: "Board" },
  { href: "/permits", words: "Permits" },
  { href: "/plant", words: "Plant" },
  { href: "/bench", words: "Bench" },
  { href: "/locks", words: "Locks" },
  { href: "/store", words: "Store" },
  { href: "/people", words: "People" },
  { href: "/ledger", words: "Ledger" },
] as const;

export function TopBar({ person, roles, children }: { person: string; roles: string; children: ReactNode }) {
  const path = usePathname();
  const here = (href: string) =>
    href === "/"
      ? path === "/" || path.startsWith("/jobs")
      : path.startsWith(href) || (href === "/locks" && path.startsWith("/boxes"));
  return (
    <header className="no-print border-base-300 flex flex-wrap items-center gap-x-6 gap-y-1 border-b px-4 py-2 md:px-8">
      <Link href="/" className="flex items-center gap-2 text-lg font-semibold tracking-tight">
        <LanternMark />
        Heavy Lantern
      </Link>
      <nav aria-label="Main" className="flex flex-wrap gap-x-1">
        {PLACES.map(({ href, words }) => (
          <Link
            key={href}
            href={href}
            aria-current={here(href) ? "page" : undefined}
            className={`hover:bg-base-200 rounded-sm px-2 py-1.5 md:px-3 ${here(href) ? "decoration-accent font-semibold underline decoration-2 underline-offset-8" : ""}`}
          >
            {words}
          </Link>
        ))}
      </nav>
      <div className="ml-auto flex items-center gap-2">
        <p className="text-right text-sm leading-tight">
          <span className="block font-medium">{person}</span>
          <span className="block opacity-80">{roles}</span>
        </p>
        {children}
      </div>
    </header>
  );
}

function LanternMark() {
  return (
    <svg aria-hidden viewBox="0 0 32 32" className="size-7">
      <path
        d="M9 26h14M11 26V13l5-6 5 6v13M16 7V4"
        fill="none"
        stroke="currentColor"
        strokeWidth="2"
        strokeLinecap="round"
        strokeLinejoin="round"
      />
      <circle cx="16" cy="18" r="3.4" style={{ fill: "var(--glow)" }} />
    </svg>
  );
}
