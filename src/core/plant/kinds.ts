import type { Carrier } from "./carriers";
import type { SiteKind } from "./plant";

type Conversion = readonly [from: Carrier, to: Carrier];

type Kind = Readonly<{
  /** Within each part of the item. */
  converts: readonly Conversion[];
  /** From one part to every other part. An item without parts makes them within its body: the worse assumption. */
  convertsAcross?: readonly Conversion[];
  /** Made only by an item that has a link of the carrier they end in: a pump feeds hydraulics only where it is piped to. */
  convertsWhereLinked?: readonly Conversion[];
  /** False: what goes in may not come out by itself, so a bleed beyond it proves nothing. True unless said. */
  surelyPasses?: boolean;
}>;

const both = (a: Carrier, b: Carrier): readonly Conversion[] => [
  [a, b],
  [b, a],
];

const rotatingMachine: Kind = {
  surelyPasses: false,
  // A stopped pump is turned by flow.
  converts: both("shaft", "fluid"),
  convertsWhereLinked: [
    ["shaft", "hydraulic"],
    ["shaft", "pneumatic"],
  ],
};
const transformer: Kind = {
  // Test voltage on the low side comes out high on the other: power and control turn into each other.
  converts: both("power", "control"),
};
const ownControlSupply: Kind = { converts: [["power", "control"]] };
const actuator: Kind = {
  converts: [
    ["pneumatic", "shaft"],
    ["hydraulic", "shaft"],
    ["power", "shaft"],
    ["shaft", "hydraulic"],
    ["shaft", "pneumatic"],
    ...both("gravity", "shaft"),
  ],
};
const hoist: Kind = { converts: both("shaft", "gravity") };
const conveyor: Kind = { surelyPasses: false, converts: [...both("shaft", "bulk"), ["gravity", "shaft"]] };
const exchanger: Kind = { converts: [], convertsAcross: both("fluid", "heat") };
const passesOnly: Kind = { converts: [] };
const mayHoldBack: Kind = { converts: [], surelyPasses: false };

/**
 * What an item does to a carrier inside it: it passes every carrier on, and its kind adds these conversions. A device
 * makes none, whatever its kind. Common practice, no source.
 */
export const KINDS: Readonly<Record<string, Kind>> = {
  motor: { converts: both("power", "shaft") }, // a driven motor generates
  pump: rotatingMachine,
  compressor: rotatingMachine,
  fan: rotatingMachine,
  transformer,
  "voltage transformer": transformer,
  "control transformer": transformer,
  starter: ownControlSupply,
  panel: ownControlSupply,
  drive: ownControlSupply,
  ups: ownControlSupply,
  actuator,
  cylinder: actuator,
  hoist,
  lift: hoist,
  "tilting table": hoist,
  conveyor,
  screw: conveyor,
  feeder: conveyor,
  elevator: conveyor,
  exchanger,
  jacket: exchanger,
  coil: exchanger,
  tracer: exchanger,
  heater: { converts: [["power", "heat"]] },
  // Kinds that pass energy on and change nothing. Listed so that a misspelt kind can be told from these.
  header: passesOnly,
  junction: passesOnly,
  tee: passesOnly,
  pipe: passesOnly,
  vessel: passesOnly,
  tank: passesOnly,
  silo: mayHoldBack,
  sump: passesOnly,
  sewer: passesOnly,
  flare: passesOnly,
  stack: passesOnly,
  atmosphere: passesOnly,
  valve: passesOnly,
  "check valve": mayHoldBack,
  "control valve": mayHoldBack,
  "relief valve": mayHoldBack,
  blind: passesOnly,
  breaker: passesOnly,
  isolator: passesOnly,
  switch: passesOnly,
  "load switch": passesOnly,
  "control isolator": passesOnly,
  contactor: passesOnly,
  fuse: passesOnly,
  "knife terminal": passesOnly,
  shutter: passesOnly,
  busbar: passesOnly,
  incomer: passesOnly,
  coupling: passesOnly,
  gearbox: passesOnly,
  pin: passesOnly,
  bleed: passesOnly,
  filter: mayHoldBack,
  instrument: passesOnly,
  capacitor: passesOnly,
  accumulator: passesOnly,
  spring: passesOnly,
  agitator: passesOnly,
};

/** Kinds of things that can be shut. One that nobody described as a device may be. */
const SHUTS: ReadonlySet<string> = new Set([
  "valve",
  "check valve",
  "control valve",
  "relief valve",
  "blind",
  "breaker",
  "isolator",
  "switch",
]);

export function canBeShut(kind: string): boolean {
  return SHUTS.has(kind);
}

/** Kinds in which what flows may run off for ever, or for long. Common practice, no source. */
const SINKS: ReadonlySet<string> = new Set(["tank", "sump", "silo", "sewer", "flare", "stack", "atmosphere"]);

export function isSink(kind: string): boolean {
  return SINKS.has(kind);
}

/** Kinds that hold enough to draw from, or to circulate through. Common practice, no source. */
const VESSELS: ReadonlySet<string> = new Set(["vessel", "tank", "silo", "sump"]);

export function isVessel(kind: string): boolean {
  return VESSELS.has(kind);
}

/** Kinds that move what flows through them, and are harmed when it cannot come or go. Common practice, no source. */
const MOVERS: ReadonlySet<string> = new Set(["pump", "compressor", "fan", "conveyor", "screw", "feeder", "elevator"]);

export function isMover(kind: string): boolean {
  return MOVERS.has(kind);
}

/** Kinds that normal flow never runs off through, though a line leads there. Common practice, no source. */
const DEAD_ENDS: ReadonlySet<string> = new Set(["bleed", "relief valve", "instrument", "blind", "accumulator"]);

export function isDeadEnd(kind: string): boolean {
  return DEAD_ENDS.has(kind);
}

/** Kinds that open a circuit without a gap that anybody can see or a maker vouches for. Common practice, no source. */
const SWITCHES: ReadonlySet<string> = new Set(["switch", "load switch", "control isolator", "contactor"]);

const TRANSFORMERS: ReadonlySet<string> = new Set(["transformer", "voltage transformer", "control transformer"]);

/** Does one voltage end at it and another begin? */
export function isTransformer(kind: string): boolean {
  return TRANSFORMERS.has(kind);
}

/** Is it made to isolate, and not only to switch? */
export function isIsolating(kind: string): boolean {
  return !SWITCHES.has(kind);
}

/** May it be relied on that what stands in this item runs on through it? Never said of a kind that nobody described. */
export function surelyPasses(kind: string, siteKinds: readonly SiteKind[]): boolean {
  const found = kindOf(kind, siteKinds);
  return found !== undefined && found.surelyPasses !== false;
}

/** The kind's conversions, the site's own kinds first; undefined when nobody has said what the kind does. */
export function kindOf(kind: string, siteKinds: readonly SiteKind[]): Kind | undefined {
  return siteKinds.find((own) => own.kind === kind) ?? (Object.hasOwn(KINDS, kind) ? KINDS[kind] : undefined);
}
