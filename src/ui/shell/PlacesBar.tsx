"use client";

import { Link } from "../text/Link";
import { usePathname } from "next/navigation";
import { isHere, PLACES } from "./places";

const AT_HAND = 4;

/** The places at the bottom of a phone, under the thumb. */
export function PlacesBar() {
  const path = usePathname();
  const rest = PLACES.slice(AT_HAND);
  return (
    <nav
      aria-label="Places"
      className="no-print bg-base-200 border-base-300 fixed inset-x-0 bottom-0 z-20 flex h-14 border-t md:hidden"
    >
      {PLACES.slice(0, AT_HAND).map(({ href, words }) => (
        <Link
          key={href}
          href={href}
          aria-current={isHere(href, path) ? "page" : undefined}
          className={`flex flex-1 items-center justify-center text-sm ${isHere(href, path) ? "font-bold" : ""}`}
        >
          {words}
        </Link>
      ))}
      <details className="flex-1">
        <summary
          className={`flex h-14 cursor-pointer list-none items-center justify-center text-sm ${rest.some(({ href }) => isHere(href, path)) ? "font-bold" : ""}`}
        >
          More
        </summary>
        <ul className="bg-base-100 border-base-300 absolute right-0 bottom-14 w-48 border shadow-lg">
          {rest.map(({ href, words }) => (
            <li key={href}>
              <Link
                href={href}
                aria-current={isHere(href, path) ? "page" : undefined}
                className={`flex h-12 items-center px-4 ${isHere(href, path) ? "font-bold" : ""}`}
              >
                {words}
              </Link>
            </li>
          ))}
        </ul>
      </details>
    </nav>
  );
}
