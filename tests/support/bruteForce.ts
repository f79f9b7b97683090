import type { SmallCase } from "./plantArbitrary";

/**
 * The definitions of depth and of the cheapest set, worked out by trying everything, from the files alone. It shares no
 * code with the engine: states are strings, reach is a flood, sets are tried one by one.
 */

type State = string; // "TAG carrier"

const CONVERSIONS: Record<string, [string, string][]> = {
  pump: [
    ["shaft", "fluid"],
    ["fluid", "shaft"],
  ],
  motor: [
    ["power", "shaft"],
    ["shaft", "power"],
  ],
  starter: [["power", "control"]],
  vessel: [],
};
const CARRIERS = [
  "power",
  "control",
  "fluid",
  "hydraulic",
  "pneumatic",
  "shaft",
  "gravity",
  "bulk",
  "heat",
  "radiation",
];

export type BrutePair = { source: string; carrier: string; face: string; required: number };

export class BruteForce {
  readonly #arcs = new Map<State, State[]>();
  readonly devices: string[] = [];
  readonly pairs: BrutePair[] = [];
  readonly #stops = new Map<string, string[]>();
  readonly #unit = new Map<string, string>();
  readonly effort = new Map<string, number>();

  constructor({ plant, job }: SmallCase) {
    const faces = job.faces.map((face) => face.place);
    const arc = (a: State, b: State) => this.#arcs.set(a, [...(this.#arcs.get(a) ?? []), b]);
    for (const link of plant.links) {
      arc(`${link.from} ${link.carries}`, `${link.to} ${link.carries}`);
      if (!link.oneWay) arc(`${link.to} ${link.carries}`, `${link.from} ${link.carries}`);
    }
    for (const item of plant.items) {
      if (item.device) {
        if (item.device.credit && !faces.includes(item.tag)) {
          this.devices.push(item.tag);
          this.#stops.set(item.tag, item.device.stops);
          this.#unit.set(item.tag, item.device.commonCause ? `cause ${item.device.commonCause}` : item.tag);
          this.effort.set(item.tag, item.device.effort);
        }
      } else for (const [a, b] of CONVERSIONS[item.kind] ?? []) arc(`${item.tag} ${a}`, `${item.tag} ${b}`);
    }
    for (const item of plant.items) {
      for (const { carrier } of item.source ?? []) {
        for (const face of faces) {
          if (this.#reaches({ source: item.tag, carrier, face, required: 0 }, new Set())) {
            const required = (job.require as Record<string, number>)[carrier] ?? 0;
            this.pairs.push({ source: item.tag, carrier, face, required });
          }
        }
      }
    }
  }

  /** Does energy come from source to face, past the devices in `blocked`? The source's own device never blocks it. */
  #reaches({ source, carrier, face }: BrutePair, blocked: ReadonlySet<string>): boolean {
    const seen = new Set<State>([`${source} ${carrier}`]);
    const queue = [...seen];
    for (const state of queue) {
      const [tag] = state.split(" ");
      if (tag === face && CARRIERS.some((c) => state === `${face} ${c}`)) return true;
      for (const next of this.#arcs.get(state) ?? []) {
        const [to, c] = next.split(" ") as [string, string];
        const stopped = to !== source && blocked.has(to) && this.#stops.get(to)!.includes(c);
        if (!stopped && !seen.has(next)) {
          seen.add(next);
          queue.push(next);
        }
      }
    }
    return false;
  }

  /** The fewest units that must fail before the face is lit: failing them one set at a time, small sets first. */
  depth(pair: BrutePair, isolated: readonly string[]): number {
    const units = [...new Set(isolated.map((tag) => this.#unit.get(tag)!))];
    for (let size = 0; size <= units.length; size++) {
      for (let mask = 0; mask < 1 << units.length; mask++) {
        const failed = units.filter((_, i) => (mask >> i) & 1);
        if (failed.length !== size) continue;
        const holding = isolated.filter((tag) => !failed.includes(this.#unit.get(tag)!));
        if (this.#reaches(pair, new Set(holding))) return size;
      }
    }
    return Infinity; // never lit, whatever fails: no way at all
  }

  /** Least total effort of any set that gives each pair min(required, available) barriers. */
  cheapest(): number {
    const need = this.pairs.map((pair) => ({ pair, k: Math.min(pair.required, this.depth(pair, this.devices)) }));
    let best = Infinity;
    for (let mask = 0; mask < 1 << this.devices.length; mask++) {
      const set = this.devices.filter((_, i) => (mask >> i) & 1);
      const cost = set.reduce((sum, tag) => sum + this.effort.get(tag)!, 0);
      if (cost < best && need.every(({ pair, k }) => k === 0 || this.depth(pair, set) >= k)) best = cost;
    }
    return best;
  }
}
