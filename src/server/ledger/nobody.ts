/** Who the ledger names where nobody acted: time went by, or the facts changed. */
export const CLOCK = "clock";

/** And where an instrument did. */
export const instrumentName = (id: string) => `instrument ${id}`;
export const isInstrument = (by: string) => by.startsWith("instrument ");
