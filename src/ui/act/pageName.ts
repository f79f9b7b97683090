export const PAGE_HEADER = "x-lantern-page";

let name: string | undefined;

/** What this page calls itself towards the server while it is open: it need not be told of what it did itself. */
export function pageName(): string {
  return (name ??= crypto.getRandomValues(new Uint32Array(3)).join("-"));
}
