import { checkedPromises } from "./checked";
import { heldNow } from "../siteRows";
import { stateOf } from "../replay";
import { Watched, withoutClock } from "../promises";
import type { TestSite } from "../testSite";

/** Does acts on a site, asks the promises after each, and counts what was done and what was refused. */
export class Player {
  readonly done = new Map<string, number>();
  readonly refused = new Map<string, number>();
  readonly #watched: Watched;
  #acts = 0;

  constructor(
    readonly site: TestSite,
    /** Asks no promise: for what leads up to where a sequence begins. */
    readonly unasked = false,
  ) {
    this.#watched = new Watched(site);
  }

  async act(who: string, type: string, input: unknown): Promise<boolean> {
    const { site } = this;
    if (this.unasked) return (await site.act(who, type, input)).ok;
    const before = heldNow(site);
    // To read all of the state is dear: of one act in eight it is looked whether a refusal changed any.
    const was = this.#acts++ % 8 === 0 ? stateOf(site.db) : null;
    const answer = await site.act(who, type, input);
    if (!answer.ok && answer.code === "bad input")
      throw new Error(`${type} ${JSON.stringify(input)}: ${answer.sentence}`);
    if (!answer.ok && was !== null) expect(withoutClock(stateOf(site.db))).toEqual(withoutClock(was));
    const [count, name] = answer.ok ? [this.done, type] : [this.refused, answer.code];
    count.set(name, (count.get(name) ?? 0) + 1);
    checkedPromises(site, before, this.#watched.changed());
    return answer.ok;
  }
}
