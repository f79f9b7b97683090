import type { ReactNode } from "react";

/** The words and choices by which a list is made shorter, on the line of its heading. What it is sorted by stays. */
export function FindForm({
  path,
  query,
  words,
  children,
}: {
  path: string;
  query: Readonly<{ find: string; sort: string; down: boolean }>;
  /** What is looked into. */
  words: string;
  /** Choices of the list's own. */
  children?: ReactNode;
}) {
  return (
    <form role="search" action={path} className="flex flex-wrap items-center gap-2">
      <input type="hidden" name="sort" value={query.sort} />
      {query.down && <input type="hidden" name="down" value="1" />}
      {children}
      <input
        name="find"
        type="search"
        aria-label={words}
        placeholder={words}
        defaultValue={query.find}
        className="input w-64"
      />
      <button type="submit" className="btn btn-outline">
        Show
      </button>
    </form>
  );
}

/** One choice of a list. */
export function ListChoice({
  name,
  words,
  value,
  options,
}: {
  name: string;
  words: string;
  value: string;
  options: readonly (readonly [value: string, words: string])[];
}) {
  return (
    <select name={name} aria-label={words} defaultValue={value} className="select w-40">
      {options.map(([one, said]) => (
        <option key={one} value={one}>
          {said}
        </option>
      ))}
    </select>
  );
}
