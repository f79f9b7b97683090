import type { PlantInput } from "../../../src/core/plant/plantSchema";

/**
 * A judge of its own, from what may fail: it knows nothing of the engine's search, reads the register's file as it is, and
 * is slow. For every set of units that fail it asks what reaches the face, and whether what does passed an open, drained
 * space on each of its ways. Definitions: docs/grades.md.
 */

type Item = PlantInput["items"][number];
type Arc = Readonly<{ from: string; to: string; line: boolean; steady: boolean }>;

export type Situation = Readonly<{ plant: PlantInput; faceItems: readonly string[]; isolated: readonly string[] }>;
export type Scope = "contents" | "energy";

export const FLOWS = ["fluid", "hydraulic", "pneumatic", "bulk"];
const CARRIERS = [...FLOWS, "power", "control", "shaft", "gravity", "heat", "radiation"];
/** What the kinds that the generator uses turn into what. */
const TURNS: Readonly<Record<string, readonly (readonly [string, string])[]>> = {
  pump: [
    ["shaft", "fluid"],
    ["fluid", "shaft"],
  ],
  motor: [
    ["power", "shaft"],
    ["shaft", "power"],
  ],
};
const LETS_THROUGH = ["pipe", "vessel", "header", "bleed", "exchanger", "valve"];

export class Failures {
  readonly items: ReadonlyMap<string, Item>;
  readonly arcs: readonly Arc[];
  readonly nodes: readonly string[];
  readonly gates: ReadonlyMap<string, string>;
  readonly lit: ReadonlySet<string>;
  readonly drained: ReadonlySet<string>;

  constructor(readonly given: Situation) {
    this.items = new Map(given.plant.items.map((item) => [item.tag, item]));
    this.arcs = this.#arcs();
    this.nodes = [...new Set(this.arcs.flatMap(({ from, to }) => [from, to]))];
    this.gates = new Map(
      given.isolated.flatMap((tag) => {
        const device = this.items.get(tag)!.device!;
        if (!device.credit || given.faceItems.includes(tag) || this.#bursts(tag)) return [];
        return device.stops.map((carrier) => [`${tag}|${carrier}`, tag] as const);
      }),
    );
    this.lit = this.#reach(this.#live(), (node) => !this.gates.has(node));
    this.drained = this.#drained();
  }

  itemAt(node: string): Item {
    const place = node.slice(0, node.indexOf("|"));
    return this.items.get(place) ?? this.items.get(place.slice(0, place.lastIndexOf(".")))!;
  }

  unitOf(tag: string): string {
    return this.items.get(tag)!.device!.commonCause ?? tag;
  }

  #arcs(): Arc[] {
    const arcs: Arc[] = [];
    for (const link of this.given.plant.links) {
      const [from, to] = [`${link.from}|${link.carries}`, `${link.to}|${link.carries}`];
      const steady = link.temporary === undefined;
      arcs.push({ from, to, line: true, steady });
      if (!link.oneWay) arcs.push({ from: to, to: from, line: true, steady });
    }
    for (const item of this.given.plant.items) {
      if (item.device) continue;
      for (const [a, b] of TURNS[item.kind] ?? []) {
        arcs.push({ from: `${item.tag}|${a}`, to: `${item.tag}|${b}`, line: false, steady: true });
      }
      if (item.kind === "exchanger") {
        for (const one of item.parts ?? []) {
          for (const other of item.parts ?? []) {
            if (one === other) continue;
            arcs.push({ from: `${item.tag}.${one}|fluid`, to: `${item.tag}.${other}|heat`, line: false, steady: true });
            arcs.push({ from: `${item.tag}.${one}|heat`, to: `${item.tag}.${other}|fluid`, line: false, steady: true });
          }
        }
      }
    }
    return arcs;
  }

  /** In its flanges, all of class PN 10 that have one, stands more than they bear: what comes over the lines, less what limits it there. */
  #bursts(tag: string): boolean {
    const { device } = this.items.get(tag)!;
    if (device?.flangeClass === undefined) return false;
    const bears_Pa = Number(device.flangeClass.slice(3)) * 1e5;
    return device.stops.some((carrier) => (this.#stands().get(`${tag}|${carrier}`) ?? 0) > bears_Pa);
  }

  #pressures: Map<string, number> | undefined;

  /** The most that stands at each place with everything passing, in Pa: again and again over all lines until nothing rises. */
  #stands(): ReadonlyMap<string, number> {
    if (this.#pressures) return this.#pressures;
    const most = new Map<string, number>();
    const raise = (node: string, pressure: number) => {
      const limited = Math.min(pressure, this.itemAt(node).limit_Pa ?? Infinity);
      if (limited <= (most.get(node) ?? 0)) return false;
      most.set(node, limited);
      return true;
    };
    for (const { tag, source = [], contents } of this.given.plant.items) {
      for (const { carrier } of source)
        if (FLOWS.includes(carrier)) raise(`${tag}|${carrier}`, contents?.pressure_Pa ?? 0);
    }
    for (let rose = true; rose;) {
      rose = false;
      for (const { from, to, line } of this.arcs) {
        const isFlow = FLOWS.includes(from.slice(from.indexOf("|") + 1));
        if (line && isFlow && most.has(from) && raise(to, most.get(from)!)) rose = true;
      }
    }
    return (this.#pressures = most);
  }

  #live(): string[] {
    return this.given.plant.items.flatMap((item) =>
      (item.source ?? []).flatMap((source) =>
        source.feeding !== false || source.regenerating ? [`${item.tag}|${source.carrier}`] : [],
      ),
    );
  }

  #reach(starts: readonly string[], through: (node: string) => boolean): Set<string> {
    const found = new Set(starts);
    for (let grew = true; grew;) {
      grew = false;
      for (const { from, to } of this.arcs) {
        if (!found.has(from) || found.has(to) || !(starts.includes(from) || through(from)) || !through(to)) continue;
        found.add(to);
        grew = true;
      }
    }
    return found;
  }

  #surelyPasses(node: string): boolean {
    const item = this.itemAt(node);
    if (!LETS_THROUGH.includes(item.kind)) return false;
    if (item.bleed && !item.bleed.safe) return false;
    if (item.device === undefined) return item.kind !== "valve";
    const { lockable, positive, positions } = item.device;
    return (
      lockable === true &&
      !positive &&
      positions === undefined &&
      !this.given.isolated.includes(item.tag) &&
      !this.given.faceItems.includes(item.tag)
    );
  }

  /** Everything that a line joins to this, of its own carrier. */
  #beside(node: string): string[] {
    return [
      ...new Set(
        this.arcs.flatMap(({ from, to, line }) => (!line ? [] : from === node ? [to] : to === node ? [from] : [])),
      ),
    ];
  }

  #openBleeds(): string[] {
    return this.nodes.filter((node) => {
      if (!FLOWS.includes(node.slice(node.indexOf("|") + 1))) return false;
      return this.itemAt(node).bleed?.safe === true && !this.#beside(node).some((beside) => this.gates.has(beside));
    });
  }

  #drained(): Set<string> {
    const bleeds = this.#openBleeds();
    const drained = new Set(bleeds);
    const inside = this.nodes.filter(
      (node) => !this.gates.has(node) && FLOWS.includes(node.slice(node.indexOf("|") + 1)),
    );
    for (const node of inside) {
      if (bleeds.includes(node) || !this.#surelyPasses(node)) continue;
      const item = this.itemAt(node);
      const runsTo = this.#runsTo(node);
      const lets = bleeds.some((bleed) => {
        if (!runsTo.has(bleed)) return false;
        const [low, high] = [this.itemAt(bleed).level_m, item.level_m];
        if (low === undefined || high === undefined) return true;
        return item.contents?.phase === "gas" ? low >= high : low <= high;
      });
      if (lets) drained.add(node);
    }
    for (let grew = true; grew;) {
      grew = false;
      for (const node of inside) {
        if (drained.has(node) || this.#surelyPasses(node)) continue;
        const beside = this.#beside(node).filter((one) => !this.gates.has(one));
        if (beside.length === 0 || !beside.every((one) => drained.has(one))) continue;
        drained.add(node);
        grew = true;
      }
    }
    return drained;
  }

  #runsTo(start: string): Set<string> {
    const found = new Set([start]);
    for (let grew = true; grew;) {
      grew = false;
      for (const { from, to, line, steady } of this.arcs) {
        if (!line || !steady || !found.has(from) || found.has(to) || this.gates.has(to)) continue;
        // What runs on from here has to pass it; a bleed is where it comes out.
        if (!this.#surelyPasses(from)) continue;
        found.add(to);
        grew = true;
      }
    }
    return found;
  }

  /** Arcs that a scope has. */
  scoped(scope: Scope): readonly Arc[] {
    const isFlow = (node: string) => FLOWS.includes(node.slice(node.indexOf("|") + 1));
    return scope === "energy" ? this.arcs : this.arcs.filter(({ from, to }) => isFlow(from) && isFlow(to));
  }

  proved(node: string): boolean {
    return this.drained.has(node) && !this.lit.has(node);
  }

  /** Nodes that a way can leave only to where it came from, struck again and again. */
  deadLegs(arcs: readonly Arc[], closed: ReadonlySet<string>): Set<string> {
    const struck = new Set<string>();
    const isKept = (node: string) => {
      const item = this.itemAt(node);
      const isIsolated =
        this.given.isolated.includes(item.tag) && item.device!.credit && !this.given.faceItems.includes(item.tag);
      return isIsolated || (item.source ?? []).length > 0 || this.given.faceItems.includes(item.tag);
    };
    for (let grew = true; grew;) {
      grew = false;
      for (const node of this.nodes) {
        if (struck.has(node) || closed.has(node) || isKept(node)) continue;
        const open = (other: string) => !struck.has(other) && !closed.has(other);
        const into = new Set(arcs.filter(({ from, to }) => to === node && open(from)).map(({ from }) => from));
        const out = new Set(arcs.filter(({ from, to }) => from === node && open(to)).map(({ to }) => to));
        const leadsOn = [...into].some((from) => [...out].some((to) => to !== from));
        if (leadsOn) continue;
        struck.add(node);
        grew = true;
      }
    }
    return struck;
  }
}

export { CARRIERS };

/** Which of its isolated devices close a way for good, of a family of carriers. */
export function closedBy(failures: Failures, families: readonly string[], own: string): Set<string> {
  const needsLock = ["power", "control", "shaft", "gravity"];
  const isOf = (tag: string) => {
    const device = failures.items.get(tag)!.device!;
    return (
      device.positive === true &&
      device.stops.some((carrier) => families.includes(carrier) && (device.lockable || !needsLock.includes(carrier)))
    );
  };
  return new Set([...failures.gates].filter(([, tag]) => tag !== own && isOf(tag)).map(([node]) => node));
}

/** Grades of what flows, of one source to one face place. */
export function flowGrade(failures: Failures, from: string, face: string, scope: Scope): string {
  const own = failures.itemAt(from).tag;
  const closed = closedBy(failures, FLOWS, own);
  const arcs = failures.scoped(scope);
  const legs = failures.deadLegs(arcs, closed);
  const ownGates = new Set([...failures.gates].filter(([, tag]) => tag === own).map(([node]) => node));
  const isGate = (node: string) => failures.gates.has(node) && !ownGates.has(node) && node !== from;
  const isOpen = (node: string) => node === from || (!closed.has(node) && !legs.has(node));
  const usable = arcs.filter(({ from: a, to: b }) => isOpen(a) && isOpen(b) && a !== face);
  const units = [...new Set([...failures.gates.values()].map((tag) => failures.unitOf(tag)))];

  /** What reaches the face when these units fail, from the source. */
  const reaches = (failing: ReadonlySet<string>) => {
    const found = new Set([from]);
    for (let grew = true; grew;) {
      grew = false;
      for (const { from: a, to: b } of usable) {
        if (!found.has(a) || found.has(b)) continue;
        if (isGate(b) && !failing.has(failures.unitOf(failures.gates.get(b)!))) continue;
        found.add(b);
        grew = true;
      }
    }
    return found;
  };
  const sets = Array.from(
    { length: 2 ** units.length },
    (_, bits) => new Set(units.filter((_, i) => (bits >> i) % 2 === 1)),
  );
  const lighting = sets.filter((failing) => reaches(failing).has(face));
  if (lighting.length === 0) return "positive";
  const depth = Math.min(...lighting.map(({ size }) => size));
  if (depth === 0) return "none";
  const provedDouble = depth >= 2 && lighting.every((failing) => !passesNoSpace(failing));
  if (provedDouble) return "proved double";
  const zone = zoneBefore();
  const zoneProved =
    failures.proved(face) &&
    zone.every((node) => failures.proved(node) || !reaches(new Set(units)).has(node)) &&
    !legPushes();
  if (zoneProved) return "proved single";
  return depth >= 2 ? "unproved double" : "unproved single";

  /** With these units failing: does anything come that passed no space, between two crossings, all of it open and drained? */
  function passesNoSpace(failing: ReadonlySet<string>): boolean {
    const mayCross = (node: string) => isGate(node) && failing.has(failures.unitOf(failures.gates.get(node)!));
    const bodyIsOpen = (node: string) => {
      const bleed = failures.items.get(failures.gates.get(node)!)!.device!.bodyBleed;
      return bleed !== undefined && failures.items.get(bleed)!.bleed?.safe === true;
    };
    /** Places reached from these without another crossing, and whether by a stretch that holds one that is not proved. */
    const stretch = (starts: readonly string[]) => {
      const found = new Set<string>(starts.map((node) => `${node} ${!failures.proved(node)}`));
      for (const key of found) {
        const [node, spoilt] = key.split(" ") as [string, string];
        for (const { from: a, to: b } of usable) {
          if (a !== node || isGate(b) || b === face) continue;
          found.add(`${b} ${spoilt === "true" || !failures.proved(b)}`);
        }
      }
      return found;
    };
    const next = (node: string) => usable.filter(({ from: a }) => a === node).map(({ to }) => to);
    // What stands before the first crossing is no space.
    const before = new Set([from]);
    for (const node of before) for (const to of next(node)) if (!isGate(to) && to !== face) before.add(to);
    const crossed = new Set<string>();
    for (const node of before) for (const to of next(node)) if (mayCross(to) && !bodyIsOpen(to)) crossed.add(to);
    for (const node of before) if (next(node).includes(face)) return true;
    for (const gate of crossed) {
      const out = next(gate);
      if (out.includes(face)) return true;
      for (const to of out) if (mayCross(to) && !bodyIsOpen(to)) crossed.add(to);
      const places = stretch(out.filter((to) => !isGate(to) && to !== face));
      for (const key of places) {
        const [node, spoilt] = key.split(" ") as [string, string];
        for (const to of next(node)) {
          // The last stretch is no space either: what reaches the face from here passed none.
          if (to === face) return true;
          if (spoilt === "true" && mayCross(to) && !bodyIsOpen(to)) crossed.add(to);
        }
      }
    }
    return false;
  }

  /** Places from which the face is reached with nothing isolated between. */
  function zoneBefore(): string[] {
    const found = new Set([face]);
    for (const node of found) {
      for (const { from: a, to: b } of usable) if (b === node && !isGate(a) && !closed.has(a)) found.add(a);
    }
    found.delete(face);
    return [...found].filter((node) => !failures.gates.has(node));
  }

  function legPushes(): boolean {
    const found = new Set([face]);
    for (const node of found) {
      for (const { from: a, to: b } of arcs) {
        if (b !== node || failures.gates.has(a) || closed.has(a) || failures.drained.has(a)) continue;
        found.add(a);
      }
    }
    return [...found].some((node) => legs.has(node));
  }
}
