import { expect, type Site } from "./site";

/** A server's clock, moved on from where it is. */
export class Clock {
  offset_ms = 0;
  /** How much of it is somebody's who set the clock, and no time that went by. */
  #set_ms = 0;
  constructor(private readonly site: Site) {}
  get now_ms(): number {
    return Date.now() + this.offset_ms;
  }
  /** Somebody sets the server's clock. */
  async set(ms: number): Promise<void> {
    this.#set_ms += ms;
    await this.on(ms);
  }
  async on(ms: number): Promise<void> {
    this.offset_ms += Math.ceil(ms);
    const moved = await fetch(`${this.site.url}/api/test-clock`, {
      method: "POST",
      body: JSON.stringify({ offset_ms: this.offset_ms, set_ms: this.#set_ms }),
    });
    expect(moved.status).toBe(200);
  }
}

const CLOCKS = new WeakMap<Site, Clock>();

/** The one clock of a site. */
export function clockOf(site: Site): Clock {
  const clock = CLOCKS.get(site) ?? new Clock(site);
  CLOCKS.set(site, clock);
  return clock;
}
