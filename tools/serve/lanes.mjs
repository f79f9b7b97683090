// Turns before the application: whoever sends a great deal at once waits behind themselves, and nobody behind them.

/**
 * Requests are answered a few at a time for each sender, and those of one address together no more than so many; among the
 * senders at one address in turn. What waits is bounded. Kept in memory only as long as somebody of it is here.
 *
 * @typedef {{ running: number, waiting: ((leave: () => void) => void)[] }} Lane
 * @typedef {{ running: number, lanes: Map<string, Lane> }} Address
 */
export class Lanes {
  /** @type {Map<string, Address>} */
  #addresses = new Map();

  /** @param {{ ofOne: number, ofAddress: number, waiting: number }} most */
  constructor(most) {
    this.most = most;
  }

  /**
   * Calls `go` in this sender's turn, with what is to be called once it is over. Null where too many wait already; else a
   * function that takes it back while it still waits.
   *
   * @param {string} address
   * @param {string} sender
   * @param {(leave: () => void) => void} go
   * @returns {(() => void) | null}
   */
  enter(address, sender, go) {
    const at = this.#addresses.get(address) ?? { running: 0, lanes: new Map() };
    this.#addresses.set(address, at);
    const lane = at.lanes.get(sender) ?? { running: 0, waiting: [] };
    at.lanes.set(sender, lane);
    if (lane.waiting.length >= this.most.waiting) return null;
    lane.waiting.push(go);
    this.#next(address, at);
    return () => {
      lane.waiting = lane.waiting.filter((one) => one !== go);
      this.#tidy(address, at);
    };
  }

  /** How many addresses are kept, for tests. */
  get kept() {
    return this.#addresses.size;
  }

  /**
   * @param {string} address
   * @param {Address} at
   */
  #next(address, at) {
    while (at.running < this.most.ofAddress) {
      const found = [...at.lanes].find(([, { running, waiting }]) => waiting.length > 0 && running < this.most.ofOne);
      if (found === undefined) break;
      const [sender, lane] = found;
      // Behind the others of this address: theirs come first next time.
      at.lanes.delete(sender);
      at.lanes.set(sender, lane);
      const go = /** @type {(leave: () => void) => void} */ (lane.waiting.shift());
      at.running++;
      lane.running++;
      let isOver = false;
      go(() => {
        if (isOver) return;
        isOver = true;
        at.running--;
        lane.running--;
        this.#next(address, at);
      });
    }
    this.#tidy(address, at);
  }

  /**
   * @param {string} address
   * @param {Address} at
   */
  #tidy(address, at) {
    for (const [sender, { running, waiting }] of at.lanes) {
      if (running === 0 && waiting.length === 0) at.lanes.delete(sender);
    }
    if (at.lanes.size === 0 && this.#addresses.get(address) === at) this.#addresses.delete(address);
  }
}
