/**
 * The forms in which energy travels. The order is the code-unit order used for indices in the state graph; add at the
 * end only, for stored plans name carriers by word, never by index.
 */
export const CARRIERS = [
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
] as const;

export type Carrier = (typeof CARRIERS)[number];

export const CARRIER_COUNT = CARRIERS.length;

const indexByCarrier = new Map<Carrier, number>(CARRIERS.map((carrier, index) => [carrier, index]));

export function carrierIndex(carrier: Carrier): number {
  const index = indexByCarrier.get(carrier);
  if (index === undefined) throw new RangeError(`unknown carrier ${String(carrier)}`);
  return index;
}

export function carrierAt(index: number): Carrier {
  const carrier = CARRIERS[index];
  if (carrier === undefined) throw new RangeError(`no carrier has index ${index}`);
  return carrier;
}

/** What a carrier is, in words for people who have not met the word. */
export const CARRIER_WORDS: Readonly<Record<Carrier, string>> = {
  power: "electrical power supply",
  control: "any voltage that is not the item's own power feed",
  fluid: "process liquid, gas or steam",
  hydraulic: "hydraulic oil under pressure",
  pneumatic: "compressed air for actuators",
  shaft: "rotation or thrust",
  gravity: "weight that can fall",
  bulk: "solids that can flow",
  heat: "heat through a wall",
  radiation: "ionising radiation",
};

/** Carriers that run in pipes or on wires, where `oneWay` would act as a credited check valve. */
export const PIPED_OR_WIRED: ReadonlySet<Carrier> = new Set(["power", "control", "fluid", "hydraulic", "pneumatic"]);
