/** Who the ledger names where nobody acted: time went by, or the facts changed. */
export const CLOCK = "clock";

/** And where whoever runs the server did it there, by a command. */
export const COMMAND_LINE = "command line";

/** And where an instrument did. */
export const instrumentName = (id: string) => `instrument ${id}`;
const isInstrument = (by: string) => by.startsWith("instrument ");

/** The clock, an instrument or the command line: no person who is signed in. */
export const isNobody = (by: string) => by === CLOCK || by === COMMAND_LINE || isInstrument(by);

/** What is shown for who is no person; null for a person. */
export function nobodyNamed(by: string): string | null {
  if (by === CLOCK) return "the clock";
  if (by === COMMAND_LINE) return "the server's command line";
  return isInstrument(by) ? by : null;
}

/** The first row of a demo's ledger: nobody opens a site's own data with the demo's one-click sign-in. */
export const DEMO_MADE = "demo.made";
