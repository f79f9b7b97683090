import { expect, type Site } from "./site";

/** A server's clock, moved on from where it is. */
export class Clock {
  offset_ms = 0;
  constructor(private readonly site: Site) {}
  get now_ms(): number {
    return Date.now() + this.offset_ms;
  }
  async on(ms: number): Promise<void> {
    this.offset_ms += Math.ceil(ms);
    const moved = await fetch(`${this.site.url}/api/test-clock`, {
      method: "POST",
      body: JSON.stringify({ offset_ms: this.offset_ms }),
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
