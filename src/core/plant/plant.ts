import type { Carrier } from "./carriers";
import type { System } from "./conductors";
import type { StoredEnergy } from "../energy/storedEnergy";

/**
 * The plant register as the core sees it. An item is a tagged thing; a part is a declared compartment of it that does
 * not communicate with the others; a place is an item or one of its parts: where energy can be and where people work.
 */
export type Item = Readonly<{
  tag: string;
  kind: string;
  name?: string;
  area?: string;
  /** Floor level, in metres above the site datum. */
  level_m?: number;
  /** Where it stands, in metres from the site datum, y to the south; missing means the middle of its area. */
  x_m?: number;
  y_m?: number;
  /** What is written on the plate of the real device, when it differs from the tag. */
  plate?: string;
  /** What is inside, in the words of the register. */
  contents?: Contents;
  /** Its shape, for how long it drains. Missing: a vertical cylinder twice as high as wide, and full, is assumed. */
  vessel?: Vessel;
  /** What a person who enters it would find; missing figures are asked for. */
  space?: Space;
  parts: readonly string[];
  /** Nominal voltage of its conductors. Missing means any: high voltage is assumed where people touch it. */
  voltage_V?: number;
  /** Its conductors. Missing: the system with the most pairs is tested. */
  system?: System;
  /** How much its stopping matters, 1 when not said; weighs in the outage that a plan causes. */
  criticality?: number;
  /** The item that normally feeds this one's power. Power from anywhere else is hidden. */
  feeder?: string;
  /** Carriers that this consumer needs to run. */
  needs: readonly Carrier[];
  /** What flows here may run off for ever; missing: by its kind, and where no other end is known the last place is taken. */
  sink?: boolean;
  /** What it does for others besides carrying on: losing it backs up what empties into it, or leaves them unprotected. */
  service?: Service;
  /** Tags that the service protects. */
  protects: readonly string[];
  /** The most that can stand here or pass, gauge, by a relief device that is sized for it; missing: nothing limits it. */
  limit_Pa?: number;
  sources: readonly Source[];
  device?: Device;
  bleed?: Bleed;
}>;

export type Contents = Readonly<{
  fluid: string;
  temperature_C?: number;
  /** Gauge pressure, in pascal. */
  pressure_Pa?: number;
  /** What the item holds when full. */
  volume_m3?: number;
  phase?: "liquid" | "gas" | "two-phase" | "solid";
  density_kg_m3?: number;
  /** Ratio of heat capacities and molar mass, of a gas. */
  gamma?: number;
  molar_kg?: number;
  hazards: readonly Hazard[];
}>;

export const HAZARDS = ["flammable", "toxic", "corrosive", "asphyxiant", "self-heating"] as const;
export type Hazard = (typeof HAZARDS)[number];

export const VESSEL_SHAPES = ["vertical", "horizontal", "sphere", "cone"] as const;

export type Vessel = Readonly<{
  shape: (typeof VESSEL_SHAPES)[number];
  diameter_m: number;
  /** Length of a horizontal cylinder, height of a vertical one or a cone. */
  length_m?: number;
  /** Level of liquid above its outlet when it is shut down; missing: full. */
  level_m?: number;
}>;

/** A space that people enter. */
export type Space = Readonly<{
  chimneys?: number;
  depth_m?: number;
  travel_m?: number;
  width_m?: number;
  /** Its door or manhole, inside the gasket; missing: one that a person fits through is assumed. */
  door_m?: number;
  /** A part of a machine that is turned until its hatch can be reached. */
  turned?: boolean;
  corners?: number;
  ducts?: number;
}>;

/** A place that supplies a carrier by itself. */
export type Source = Readonly<{
  carrier: Carrier;
  /** True keeps supplying; false is stored: finite, to be released, restrained or waited for. */
  feeding: boolean;
  /** Stored energy that comes back by itself stays lit and is verified continuously. */
  regenerating: boolean;
  /** False for a source that cannot be disconnected: a battery, a photovoltaic panel. */
  disconnectable: boolean;
  /** The part it is in; missing means every part (the worse). */
  part?: string;
  stored?: StoredEnergy;
}>;

/** An item that can stop carriers. It stands passing or stopping, never "open" or "closed". */
export type Device = Readonly<{
  stops: readonly Carrier[];
  credit: boolean;
  positive: boolean;
  lockable: boolean;
  /** Minutes to isolate, lock and tag it. Finite, 0 or more. */
  effort_min: number;
  /** Devices with the same word fail together and count as one barrier. */
  commonCause?: string;
  /** Tags of what holds this device in place. Credited only once that is made safe; until then it is not. */
  heldBy: readonly string[];
  /** How it stands today; missing or unknown counts as passing. */
  stands: "passing" | "stopping" | "unknown";
  /** Inside diameter of its line, in metres: for blinds, hoses and the pick list. */
  bore_m?: number;
  /** Pressure class of its flange, as the line list writes it. */
  flangeClass?: string;
  /** Its seat was tested and holds. Missing or false: nobody knows, and a seat test comes before it is relied on. */
  seatTested?: boolean;
  /** Isolating it takes away a safety function (a relief path, a fire pump): a person approves that. */
  safety?: string;
  /** Tag of the bleed between the two seats in its body: opened, it shows whether the first of them passes. */
  bodyBleed?: string;
  /** Port pairs that pass, one list for each position of a several-way device. */
  positions?: readonly (readonly (readonly [string, string])[])[];
}>;

export type Bleed = Readonly<{
  safe: boolean;
  gauge: boolean;
  /** Inside diameter; missing: a narrow one is assumed. */
  bore_m?: number;
}>;

/** What empties through these backs up when they are shut off. */
export const EMPTYING = ["drain", "vent", "overflow", "condensate"] as const;
/** What these protect stands unprotected when they are shut off. */
export const PROTECTING = ["relief", "cooling", "quench", "purge", "inert", "firewater", "trip"] as const;
export const SERVICES = [...EMPTYING, ...PROTECTING] as const;
export type Service = (typeof SERVICES)[number];

/** A connection between two places that carries one carrier, both ways unless `oneWay`. */
export type Link = Readonly<{
  from: string;
  to: string;
  carries: Carrier;
  oneWay: boolean;
  /** Normal flow is from→to, or none. */
  normal: "forward" | "none";
  /** A wall between two fluids: no connection, but a tube leak would make it one. */
  wall: boolean;
  /** As for an item. */
  service?: Service;
  protects: readonly string[];
  /** ISO date of the day somebody last walked it on the plant. */
  walked?: string;
  /** A hose, jumper or generator that is there only for a while: ISO dates. */
  temporary?: Readonly<{ from: string; until: string }>;
}>;

/** A kind that the site adds: the conversions it makes besides passing each carrier on. */
export type SiteKind = Readonly<{
  kind: string;
  converts: readonly (readonly [Carrier, Carrier])[];
  /** From one part to every other. */
  convertsAcross?: readonly (readonly [Carrier, Carrier])[];
  /** False for what never surely passes on: a filter, a trap. True unless said. */
  surelyPasses?: boolean;
}>;

/** A part of the site, for the site plan and for knowing whom to tell. Metres from the site datum, y to the south. */
export type Area = Readonly<{
  name: string;
  x_m: number;
  y_m: number;
  width_m: number;
  depth_m: number;
  level_m: number;
  /** Who is told when something here goes dark. */
  tell?: string;
  /** Areas below that sparks and loads can fall into through openings. */
  opensTo?: readonly string[];
  /** Its floor lets nothing through but at those openings. Missing or false: nobody knows, and sparks are taken to fall. */
  tightFloor?: boolean;
  /** How long hot work here is watched afterwards: the id of a class of rules/hotWork. */
  watchClass?: string;
  /** Where the nearest of each is; missing means that somebody has to find out. */
  extinguisher?: string;
  exits?: readonly string[];
  phone?: string;
  alarm?: string;
  eyewash?: string;
}>;

export type Plant = Readonly<{
  items: readonly Item[];
  links: readonly Link[];
  kinds: readonly SiteKind[];
  areas: readonly Area[];
}>;

/**
 * May isolating this device be counted as a barrier? A device held in place by another energy is not credited, for the
 * register cannot know that the energy is locked out; nor is a several-way device with no position that passes nothing.
 */
export function isCreditable(device: Device): boolean {
  if (!device.credit || device.heldBy.length > 0) return false;
  return device.positions === undefined || device.positions.some((pairs) => pairs.length === 0);
}
