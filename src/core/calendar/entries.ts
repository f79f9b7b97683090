import type { PersonId } from "../people/roles";

/** What stands in a calendar: something that lasts, or a moment by which something is due. */
export type CalendarEntry = Readonly<{
  /** The same thing keeps its name when its time moves, so that a calendar moves it and does not show it twice. */
  id: string;
  words: string;
  from_ms: number;
  /** Null for a moment. */
  to_ms: number | null;
  /** The page that shows it, from the site's root. */
  path: string;
  /** Whose it is: in these people's own calendars too. */
  people: readonly PersonId[];
}>;

const DAY_MS = 86_400_000;
/** What is over or due longer than this ago is history. */
export const CALENDAR_BACK_MS = 7 * DAY_MS;
/** What comes later is not settled enough to plan by. */
export const CALENDAR_AHEAD_MS = 400 * DAY_MS;

/**
 * What somebody's calendar, or the site's where `person` is null, shows at a moment, the earliest first. Two things of one name
 * are a fault of whoever made them: the later is left out rather than one shown as moved.
 */
export function entriesFor(
  all: readonly CalendarEntry[],
  person: PersonId | null,
  now_ms: number,
): readonly CalendarEntry[] {
  const seen = new Set<string>();
  return all
    .filter(({ people }) => person === null || people.includes(person))
    .filter(
      ({ from_ms, to_ms }) => (to_ms ?? from_ms) >= now_ms - CALENDAR_BACK_MS && from_ms < now_ms + CALENDAR_AHEAD_MS,
    )
    .sort((a, b) => a.from_ms - b.from_ms || (a.id < b.id ? -1 : 1))
    .filter(({ id }) => !seen.has(id) && seen.add(id));
}
