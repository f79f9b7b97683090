/** What an instrument that sends by itself is decides how it is judged, never what it happens to send. */
export const INSTRUMENT_KINDS = ["gas", "gauge", "blower"] as const;
export type InstrumentKind = (typeof INSTRUMENT_KINDS)[number];
