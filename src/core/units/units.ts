/**
 * Quantities and the units people read and type them in. Inside, everything is SI; a unit is only met at the edge.
 *
 * A unit's value in SI is `value · scale + offset`. Scales are exact by definition: inch 25.4 mm, avoirdupois pound
 * 0.45359237 kg, standard gravity 9.80665 m/s², international-table Btu 1055.05585262 J.
 */
export type Unit = Readonly<{ symbol: string; scale: number; offset?: number }>;

export const SYSTEMS = ["metric", "us"] as const;
/** Which units a person reads and types. */
export type UnitSystem = (typeof SYSTEMS)[number];

const INCH_m = 0.0254;
const FOOT_m = 0.3048;
const POUND_kg = 0.45359237;
const GRAVITY_m_s2 = 9.80665;
const LBF_N = POUND_kg * GRAVITY_m_s2;
const PSI_Pa = LBF_N / INCH_m ** 2;
const ATMOSPHERE_Pa = 101_325;

const unit = (symbol: string, scale = 1, offset = 0): Unit => ({ symbol, scale, offset });
const both = (one: Unit) => ({ metric: one, us: one });

/** Every quantity of the program with its unit in both systems. */
export const QUANTITIES = {
  length: { metric: unit("m"), us: unit("ft", FOOT_m) },
  bore: { metric: unit("mm", 1e-3), us: unit("in", INCH_m) },
  area: { metric: unit("m²"), us: unit("ft²", FOOT_m ** 2) },
  volume: { metric: unit("m³"), us: unit("ft³", FOOT_m ** 3) },
  capacity: { metric: unit("L", 1e-3), us: unit("US gal", 231 * INCH_m ** 3) },
  flow: { metric: unit("m³/h", 1 / 3600), us: unit("cfm", FOOT_m ** 3 / 60) },
  smallFlow: both(unit("L/min", 1e-3 / 60)),
  pressure: { metric: unit("bar abs", 1e5), us: unit("psia", PSI_Pa) },
  gauge: { metric: unit("bar", 1e5), us: unit("psig", PSI_Pa) },
  stress: { metric: unit("MPa", 1e6), us: unit("ksi", 1000 * PSI_Pa) },
  temperature: { metric: unit("°C"), us: unit("°F", 5 / 9, -160 / 9) },
  temperatureStep: { metric: unit("K"), us: unit("°F apart", 5 / 9) },
  kelvin: { metric: unit("°C", 1, 273.15), us: unit("°F", 5 / 9, 273.15 - 160 / 9) },
  duration: both(unit("min", 60)),
  seconds: both(unit("s")),
  energy: { metric: unit("kJ", 1e3), us: unit("Btu", 1055.05585262) },
  mass: { metric: unit("kg"), us: unit("lb", POUND_kg) },
  density: { metric: unit("kg/m³"), us: unit("lb/ft³", POUND_kg / FOOT_m ** 3) },
  inertia: { metric: unit("kg·m²"), us: unit("lb·ft²", POUND_kg * FOOT_m ** 2) },
  force: { metric: unit("N"), us: unit("lbf", LBF_N) },
  torque: { metric: unit("N·m"), us: unit("lbf·ft", LBF_N * FOOT_m) },
  stiffness: { metric: unit("kN/m", 1e3), us: unit("lbf/in", LBF_N / INCH_m) },
  speed: both(unit("rpm")),
  velocity: { metric: unit("m/s"), us: unit("ft/s", FOOT_m) },
  wireArea: both(unit("mm²", 1e-6)),
  massFlow: { metric: unit("kg/h", 1 / 3600), us: unit("lb/h", POUND_kg / 3600) },
  dust: both(unit("mg/m³", 1e-6)),
  viscosity: both(unit("mPa·s", 1e-3)),
  angle: both(unit("°", Math.PI / 180)),
  ground: { metric: unit("kPa", 1e3), us: unit("psf", LBF_N / FOOT_m ** 2) },
  heatOnSkin: both(unit("cal/cm²", 41_840)),
  leakRate: both(unit("mbar·L/s", 0.1)),
  conductivity: { metric: unit("W/(m·K)"), us: unit("Btu/(h·ft·°F)", 1055.05585262 / 3600 / FOOT_m / (5 / 9)) },
  power: { metric: unit("kW", 1e3), us: unit("hp", 550 * FOOT_m * LBF_N) },
  frequency: both(unit("Hz")),
  soil: both(unit("Ω·m")),
  molar: both(unit("g/mol", 1e-3)),
  percent: both(unit("%", 0.01)),
  ppm: both(unit("ppm", 1e-6)),
  voltage: both(unit("V")),
  current: both(unit("A")),
  milliampere: both(unit("mA", 1e-3)),
  resistance: both(unit("Ω")),
  capacitance: both(unit("µF", 1e-6)),
  perKelvin: { metric: unit("1/K"), us: unit("1/°F", 9 / 5) },
  perPressure: { metric: unit("1/bar", 1e-5), us: unit("1/psi", 1 / PSI_Pa) },
  pressurePerKelvin: { metric: unit("bar/K", 1e5), us: unit("psi/°F", (PSI_Pa * 9) / 5) },
  illuminance: both(unit("lx")),
  count: both(unit("")),
  ratio: both(unit("")),
} as const satisfies Record<string, Readonly<{ metric: Unit; us: Unit }>>;

export type Quantity = keyof typeof QUANTITIES;
export const QUANTITY_NAMES = Object.keys(QUANTITIES) as [Quantity, ...Quantity[]];

export const STANDARD_GRAVITY_m_s2 = GRAVITY_m_s2;
export const STANDARD_ATMOSPHERE_Pa = ATMOSPHERE_Pa;
/** CODATA 2018, exact by the definition of the mole and the kelvin. */
export const GAS_CONSTANT_J_mol_K = 8.31446261815324;

export function unitOf(quantity: Quantity, system: UnitSystem): Unit {
  return QUANTITIES[quantity][system];
}

/** A value read in a person's unit, in SI. */
export function toSi(value: number, { scale, offset = 0 }: Unit): number {
  return value * scale + offset;
}

/** A value in SI, in a person's unit. */
export function fromSi(value: number, { scale, offset = 0 }: Unit): number {
  return (value - offset) / scale;
}
