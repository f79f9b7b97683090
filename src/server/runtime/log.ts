import pino, { type Logger } from "pino";

const holder = globalThis as { heavyLanternLog?: Logger };

/**
 * What the server says while it runs, a line of JSON each on standard output: when, how bad, what. `LANTERN_LOG` sets from
 * which level on (`debug`, `info`, `warn`, `error`, `silent`). It names acts, numbers and people's ids, never what people
 * typed, never a secret: the ledger is the record, this is for whoever keeps the server.
 */
export function log(): Logger {
  return (holder.heavyLanternLog ??= pino({
    level: process.env.LANTERN_LOG ?? (process.env.NODE_ENV === "test" ? "silent" : "info"),
    base: null,
    timestamp: pino.stdTimeFunctions.isoTime,
    formatters: { level: (label) => ({ level: label }) },
  }));
}
