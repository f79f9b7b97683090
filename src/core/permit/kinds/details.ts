import { z } from "zod";
import { momentOf } from "../../units/moment";
import { SUBSTANCES } from "../../atmosphere/substances";
import { HOT_WORKS } from "./hotWorks";
import { AFTER_WATCHES } from "../../fire/hotWork";
import { digits } from "../../units/format";
import { readNumber } from "../../units/readNumber";
import { fromSi, unitOf, type Quantity } from "../../units/units";

/** What each kind of permit says of its work. Figures in SI; a person may type them as text. */

const words = (label: string, most = 500) =>
  z
    .string(`${label} is missing`)
    .trim()
    .min(1, `${label} is missing`)
    .max(most, `${label} is longer than ${most} characters`);

type Bounds = Readonly<{ min?: number; max?: number; above?: number; whole?: boolean; as?: Quantity }>;

/** A bound in both systems of units: who reads it may have typed in either. */
function bound(value_SI: number, quantity: Quantity): string {
  const [metric, us] = (["metric", "us"] as const).map((system) => {
    const unit = unitOf(quantity, system);
    return `${digits(fromSi(value_SI, unit))} ${unit.symbol}`.trim();
  });
  return metric === us ? metric! : `${metric} (${us})`;
}

/** A figure, typed or sent as a number; faults say what it is of and what is wrong. */
function figure(label: string, { min, max, above, whole, as = "count" }: Bounds) {
  return z.union([z.number(), z.string()], `${label} is missing`).transform((raw, context) => {
    const read = typeof raw === "number" ? { ok: true as const, value: raw } : readNumber(raw);
    const say = (message: string) => {
      context.addIssue({ code: "custom", message: `${label} ${message}` });
      return z.NEVER;
    };
    if (!read.ok) return say(read.message);
    const { value } = read;
    if (!Number.isFinite(value)) return say("is not a number");
    if (whole && !Number.isInteger(value)) return say("must be a whole number");
    if (above !== undefined && value <= above) return say(`must be above ${bound(above, as)}`);
    if (min !== undefined && value < min) return say(`must be at least ${bound(min, as)}`);
    if (max !== undefined && value > max) return say(`must be at most ${bound(max, as)}`);
    return value;
  });
}

const list = (label: string, most = 40) =>
  z.array(z.string().trim().min(1).max(120)).max(most, `${label}: at most ${most}`).default([]);
const yes = z.union([z.boolean(), z.literal("on").transform(() => true)]).default(false);
/** Of a hazard: there until somebody says that it is not. */
const unlessDenied = z.union([z.boolean(), z.literal("on").transform(() => true)]).default(true);
const gases = z
  .array(z.enum(SUBSTANCES.map(({ name }) => name) as [string, ...string[]], "no such gas in the list"))
  .default([]);

/** How a sample was drawn, in permits from before the instrument's own sheet said so; nobody is asked any more. */
const sampling = {
  hose_m: figure("The sampling hose", { min: 0, max: 100, as: "length" }).default(0),
  bore_m: figure("The hose's bore", { above: 0, max: 0.05, as: "bore" }).default(0.004),
  pump_m3_s: figure("The sampling pump", { above: 0, max: 1, as: "smallFlow" }).default(0.5e-3 / 60),
  t90_s: figure("The sensor's settling time", { above: 0, max: 600, as: "seconds" }).default(30),
};

export const WATCH_IDS = AFTER_WATCHES.map(({ id }) => id) as [string, ...string[]];

const hotWork = z.object({
  kind: z.literal("hot work"),
  works: z.array(z.enum(HOT_WORKS)).min(1, "say what kind of hot work it is"),
  /** In or on equipment, which then must be isolated for it; or in the open or a building. */
  inEquipment: yes,
  x_m: figure("Where it is, x", { min: -100_000, max: 100_000, as: "length" }),
  y_m: figure("Where it is, y", { min: -100_000, max: 100_000, as: "length" }),
  level_m: figure("The level", { min: -500, max: 1000, as: "length" }),
  /** Above the floor below. */
  height_m: figure("The height above the floor", { min: 0, max: 500, as: "length" }).default(0),
  welders: figure("People with a flame or arc", { min: 1, max: 50, whole: true }).default(1),
  /** Levels that sparks can reach, and whether one person sees all of it. */
  levels: figure("Levels that sparks can reach", { min: 1, max: 20, whole: true }).default(1),
  outOfSight: yes,
  cylinders_m: figure("Cylinders from the work", { min: 0, max: 1000, as: "length" }).default(0),
  noCylinders: yes,
  afterWatch: z.enum(WATCH_IDS, "choose the watch afterwards"),
  points: list("Test points").refine((points) => points.length > 0, "name at least one place where the air is tested"),
  gases,
  ...sampling,
});

const entry = z.object({
  kind: z.literal("confined space entry"),
  space: words("The space", 80),
  /** Why the space asks for a permit. Each that nobody denied is taken to be there. */
  badAir: unlessDenied,
  engulfing: unlessDenied,
  trapping: unlessDenied,
  otherHazard: unlessDenied,
  otherWords: z.string().trim().max(500).default(""),
  depth_m: figure("The depth", { min: 0, max: 200, as: "length" }),
  travel_m: figure("How far people go in", { min: 0, max: 500, as: "length" }),
  /** Permits of before never said it: then it is taken wide, see widthOr. */
  width_m: figure("How wide it is", { min: 0, max: 500, as: "length" }).optional(),
  corners: figure("Corners", { min: 0, max: 40, whole: true }),
  ducts: figure("Duct mouths", { min: 0, max: 40, whole: true }),
  volume_m3: figure("The volume", { above: 0, max: 1e6, as: "volume" }),
  chimneys: figure("Openings at the top", { min: 1, max: 50, whole: true }).default(1),
  blower_m3_s: figure("The blower", { above: 0, max: 100, as: "flow" }),
  bends: figure("Bends in the blower's hose", { min: 0, max: 10, whole: true }),
  /** The item that ventilates, when it is one of the register: another job may not switch it off. */
  ventilation: z.string().trim().max(80).default(""),
  gases,
  most: figure("Entrants at a time", { min: 1, max: 50, whole: true }),
  talk_min: figure("Minutes between calls", { above: 0, max: 60 }),
  rescue: words("The rescue plan", 1000),
  rehearsed_ms: momentOf("when the rescue was last rehearsed is missing"),
  ...sampling,
});

const lineBreak = z.object({
  kind: z.literal("line break"),
  line: words("The line", 120),
  flange: words("The first flange", 120),
  /** Where what is left in it comes out, and where it is led. */
  release: words("The release point", 300),
});

const electrical = z.object({
  kind: z.literal("electrical work"),
  voltage_V: figure("The voltage", { above: 0, max: 800_000, as: "voltage" }),
  gloves: z.string().trim().max(40).default(""),
  /** Earths come off so that something can be tested; nobody else works there meanwhile. */
  sanction: yes,
  live: yes,
  liveReason: z.string().trim().max(1000).default(""),
});

const height = z.object({
  kind: z.literal("work at height"),
  height_m: figure("The height", { min: 0, max: 500, as: "length" }),
  protection: words("What keeps people from falling", 300),
  harnesses: list("Harnesses", 50),
});

const pressure = z.object({
  kind: z.literal("pressure test"),
  medium: z.enum(["water", "gas"], "say what it is filled with: water or gas"),
  /** Gauge. */
  pressure_Pa: figure("The test pressure", { above: 0, max: 4e8, as: "gauge" }),
  volume_m3: figure("The volume", { above: 0, max: 1e6, as: "volume" }),
  gamma: figure("Ratio of heat capacities", { above: 1, max: 1.67 }).default(1.4),
  x_m: figure("Where it is, x", { min: -100_000, max: 100_000, as: "length" }),
  y_m: figure("Where it is, y", { min: -100_000, max: 100_000, as: "length" }),
  gauge: words("The gauge's number", 40),
});

const bypass = z.object({
  kind: z.literal("safeguard bypass"),
  safeguard: words("The safeguard", 120),
  /** Who answers for it until it is back. */
  owner: words("The owner", 60),
  why: words("The reason", 1000),
  compensation: words("What is done instead", 1000),
  until_ms: momentOf("until when is missing"),
});

export const detailsSchema = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("general") }),
  hotWork,
  entry,
  lineBreak,
  electrical,
  height,
  pressure,
  bypass,
  z.object({ kind: z.literal("minor isolation") }),
]);

/**
 * What permits of before were taken to say by default, and what whoever writes one now says: a figure that nobody wrote down
 * is asked, and never taken as the kinder one.
 */
const SAID: Readonly<Partial<Record<PermitDetails["kind"], Readonly<Record<string, string>>>>> = {
  "hot work": {
    inEquipment: "Whether it is in or on equipment is missing",
    outOfSight: "Whether one person sees all of it is missing",
    height_m: "How high above the floor the flame is, is missing",
    welders: "How many people have a flame or arc is missing",
    levels: "How many levels sparks can reach is missing",
  },
  "confined space entry": { width_m: "How wide it is, is missing" },
};

/** The details of a permit that is written now: as they are kept, with nothing left to a default that decides on safety. */
export const askedDetailsSchema = z.unknown().transform((raw, context): PermitDetails => {
  const read = detailsSchema.safeParse(raw);
  const fields: Readonly<Record<string, unknown>> = typeof raw === "object" && raw !== null ? { ...raw } : {};
  const missing = Object.entries(SAID[fields.kind as PermitDetails["kind"]] ?? {}).filter(
    ([name]) => fields[name] === undefined || fields[name] === null || fields[name] === "",
  );
  for (const { path, message } of read.error?.issues ?? []) {
    if (!missing.some(([name]) => path[0] === name)) context.addIssue({ code: "custom", path, message });
  }
  for (const [name, message] of missing) context.addIssue({ code: "custom", path: [name], message });
  return read.success && missing.length === 0 ? read.data : z.NEVER;
});

export type PermitDetails = z.output<typeof detailsSchema>;
export type DetailsOf<K extends PermitDetails["kind"]> = Extract<PermitDetails, { kind: K }>;
