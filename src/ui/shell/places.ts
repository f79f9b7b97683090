/** Where one may be, in the order of the day. On a phone the first four stand at the bottom, the others behind “More”. After `g`, its key goes there. */
export const PLACES = [
  { href: "/", words: "Board", key: "b" },
  { href: "/permits", words: "Permits", key: "p" },
  { href: "/locks", words: "Locks", key: "l" },
  { href: "/plant", words: "Plant", key: "n" },
  { href: "/procedures", words: "Procedures", key: "r" },
  { href: "/bench", words: "Calculators", key: "c" },
  { href: "/store", words: "Stores", key: "s" },
  { href: "/people", words: "People", key: "o" },
  { href: "/ledger", words: "Ledger", key: "e" },
] as const;

export function isHere(href: string, path: string): boolean {
  if (href === "/") return path === "/" || path.startsWith("/jobs");
  return path.startsWith(href) || (href === "/locks" && path.startsWith("/boxes"));
}
