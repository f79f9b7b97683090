import { onHappening, type Happening } from "./events";

/** An open screen's line: the ledger's row that it was told of last, and what sends it bytes. */
export type Screen = { heard: number; readonly send: (bytes: Uint8Array) => void };
export type AlarmRow = Readonly<{ seq: number; subject: string }>;
/** What the ledger says: alarms after a row, oldest first, and its last row. */
export type Ask = Readonly<{ alarmsAfter: (seq: number) => readonly AlarmRow[]; head: () => number }>;

/** What is no alarm is told so much later at most, together with what else happened: hundreds of screens are written to. */
const GATHER_MS = 250;
const text = new TextEncoder();
const line = (event: object, id: number) => `id: ${id}\ndata: ${JSON.stringify(event)}\n\n`;

/** Lines for a screen: alarms, each under the number of its row, then what happened, under the ledger's last. */
export function linesFor(alarms: readonly AlarmRow[], happenings: readonly object[], head: number): Uint8Array {
  const told = alarms.map(({ seq, subject }) => line({ kind: "alarm", subject, about: [subject] }, seq));
  return text.encode([...told, ...happenings.map((one) => line(one, head))].join(""));
}

/**
 * Tells every open screen what happened: the ledger is asked once for all of them, and the same bytes go to all that know the
 * same. An alarm goes at once; the rest is gathered, away from the act that it came of. Cost: two queries for each happening
 * and a write for each screen each time.
 */
export class Caster {
  readonly #screens = new Set<Screen>();
  #waiting: Happening[] = [];
  #timer: NodeJS.Timeout | null = null;
  #deafen: (() => void) | null = null;
  /** Up to this row every screen was told. */
  #told = 0;

  constructor(
    private readonly ask: Ask,
    private readonly onFault: (error: unknown) => void,
  ) {}

  /** The screen has been told of everything up to the row that it says. Until the function that comes back is called. */
  join(screen: Screen): () => void {
    if (this.#screens.size === 0) {
      this.#told = screen.heard;
      this.#deafen = onHappening((happening) => this.#hear(happening));
    }
    this.#told = Math.min(this.#told, screen.heard);
    this.#screens.add(screen);
    return () => {
      this.#screens.delete(screen);
      if (this.#screens.size > 0) return;
      this.#deafen?.();
      this.#deafen = null;
      this.#waiting = [];
      if (this.#timer !== null) clearTimeout(this.#timer);
      this.#timer = null;
    };
  }

  #hear(happening: Happening): void {
    this.#waiting.push(happening);
    if (happening.kind === "alarm" || this.#read().alarms.length > 0) return this.#cast();
    this.#timer ??= setTimeout(() => this.#cast(), GATHER_MS);
  }

  /** Where the ledger cannot be read the happening itself is still told, and the alarms when it can again. */
  #read(): Readonly<{ alarms: readonly AlarmRow[]; head: number }> {
    try {
      return { alarms: this.ask.alarmsAfter(this.#told), head: this.ask.head() };
    } catch (error) {
      this.onFault(error);
      return { alarms: [], head: this.#told };
    }
  }

  #cast(): void {
    if (this.#timer !== null) clearTimeout(this.#timer);
    this.#timer = null;
    const happenings = this.#waiting;
    this.#waiting = [];
    const { alarms, head } = this.#read();
    const made = new Map<number, Uint8Array>();
    for (const screen of [...this.#screens]) {
      const news = alarms.filter(({ seq }) => seq > screen.heard);
      const bytes = made.get(news.length) ?? linesFor(news, happenings, head);
      made.set(news.length, bytes);
      screen.heard = Math.max(screen.heard, head);
      try {
        screen.send(bytes);
      } catch (error) {
        // One that is gone keeps nobody else from hearing.
        this.onFault(error);
      }
    }
    this.#told = Math.max(this.#told, head);
  }
}
