/** Where one may be, in the order of the day. On a phone the first four stand at the bottom, the others behind “More”. */
export const PLACES = [
  { href: "/", words: "Board" },
  { href: "/permits", words: "Permits" },
  { href: "/locks", words: "Locks" },
  { href: "/plant", words: "Plant" },
  { href: "/procedures", words: "Procedures" },
  { href: "/bench", words: "Calculators" },
  { href: "/store", words: "Stores" },
  { href: "/people", words: "People" },
  { href: "/ledger", words: "Ledger" },
] as const;

export function isHere(href: string, path: string): boolean {
  if (href === "/") return path === "/" || path.startsWith("/jobs");
  return path.startsWith(href) || (href === "/locks" && path.startsWith("/boxes"));
}
