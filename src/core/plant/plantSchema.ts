import { closest } from "fastest-levenshtein";
import { z } from "zod";
import { AFTER_WATCHES } from "../fire/hotWork";
import { CARRIERS } from "./carriers";
import { SYSTEMS } from "./conductors";
import { HAZARDS, SERVICES, VESSEL_SHAPES } from "./plant";
import { storedEnergySchema } from "../energy/storedEnergy";

export const PLANT_FORMAT = "heavy-lantern/plant";

/** Two years of minutes. An effort above it is a slip of the keyboard, and would not fit the exact arithmetic. */
const MAX_EFFORT_MIN = 1_000_000;

const word = z.string({ error: "must be text" });
const tag = word
  .min(1, "must not be empty")
  .max(80, "must be at most 80 characters")
  .refine((text) => text === text.trim() && !/[\u0000-\u001f]/.test(text), {
    error: "must not begin or end with a space or hold control characters",
  });
const flag = z.boolean({ error: "must be true or false" });
const number = z.number({ error: "must be a number" });
const carrier = z.enum(CARRIERS, {
  error: (issue) => `unknown carrier ${JSON.stringify(issue.input)}; one of ${CARRIERS.join(", ")}`,
});

/** An object that refuses a field which it does not know, and names the nearest that it does. */
function strict<Shape extends z.ZodRawShape>(shape: Shape) {
  const known = Object.keys(shape);
  return z.strictObject(shape, {
    error: (issue) =>
      issue.code === "unrecognized_keys"
        ? issue.keys.map((key) => `${key} is not known here; did you mean ${closest(key, known)}?`).join(" ")
        : undefined,
  });
}

const service = z.enum(SERVICES, { error: `must be ${SERVICES.join(", ")}` });
const protects = z.array(tag, { error: "must be a list of tags" }).default([]);
const length = number.gt(0, "must be above 0").max(1000, "must be at most 1000");
const bore = number.gt(0, "must be above 0").max(10, "must be at most 10");
const count = number.int("must be a whole number").min(0, "must be 0 or more").max(1000, "must be at most 1000");

/** What decides about barriers is strict: a misspelt word would be one barrier too many, or a bleed that is none. */
const source = strict({
  carrier,
  feeding: flag.default(true),
  regenerating: flag.default(false),
  disconnectable: flag.default(true),
  part: word.optional(),
  stored: storedEnergySchema.optional(),
});

const device = strict({
  stops: z.array(carrier, { error: "must be a list of carriers" }).min(1, "must name at least one carrier"),
  credit: flag,
  positive: flag.default(false),
  lockable: flag.default(false),
  effort: z
    .number({ error: "must be a number of minutes, 0 or more" })
    .min(0, "must be a number of minutes, 0 or more")
    .max(MAX_EFFORT_MIN, `must be at most ${MAX_EFFORT_MIN} minutes`),
  commonCause: word.min(1, "must not be empty").optional(),
  heldBy: z.array(tag, { error: "must be a list of tags" }).default([]),
  stands: z
    .enum(["passing", "stopping", "unknown"], { error: "must be passing, stopping or unknown" })
    .default("unknown"),
  bore_m: bore.optional(),
  flangeClass: word.optional(),
  seatTested: flag.optional(),
  safety: word.min(1, "must not be empty").optional(),
  bodyBleed: tag.optional(),
  positions: z.array(z.array(z.tuple([word, word]))).optional(),
});

const item = z.looseObject({
  tag,
  kind: word.min(1, "must not be empty"),
  name: word.optional(),
  area: word.optional(),
  level_m: number.optional(),
  x_m: number.optional(),
  y_m: number.optional(),
  plate: word.optional(),
  contents: z
    .object({
      fluid: word,
      temperature_C: number.min(-273.15, "must be above absolute zero").optional(),
      pressure_Pa: number.optional(),
      volume_m3: number.min(0, "must be 0 or more").optional(),
      phase: z
        .enum(["liquid", "gas", "two-phase", "solid"], { error: "must be liquid, gas, two-phase or solid" })
        .optional(),
      density_kg_m3: number.gt(0, "must be above 0").max(25_000, "must be at most 25000").optional(),
      gamma: number.gt(1, "must be above 1").max(1.67, "must be at most 1.67").optional(),
      molar_kg: number.gt(0, "must be above 0").max(0.4, "must be at most 0.4").optional(),
      hazards: z.array(z.enum(HAZARDS, { error: `must be among ${HAZARDS.join(", ")}` })).default([]),
    })
    .optional(),
  vessel: z
    .object({
      shape: z.enum(VESSEL_SHAPES, { error: `must be ${VESSEL_SHAPES.join(", ")}` }),
      diameter_m: length,
      length_m: length.optional(),
      level_m: number.min(0, "must be 0 or more").max(1000, "must be at most 1000").optional(),
    })
    .optional(),
  space: z
    .object({
      chimneys: count.min(1, "must be at least 1").optional(),
      depth_m: number.min(0, "must be 0 or more").max(500, "must be at most 500").optional(),
      travel_m: number.min(0, "must be 0 or more").max(500, "must be at most 500").optional(),
      width_m: number.min(0, "must be 0 or more").max(500, "must be at most 500").optional(),
      door_m: number.gt(0, "must be above 0").max(20, "must be at most 20").optional(),
      turned: z.boolean("must be true or false").optional(),
      corners: count.optional(),
      ducts: count.optional(),
    })
    .optional(),
  parts: z.array(tag, { error: "must be a list of names" }).default([]),
  voltage_V: number.min(0, "must be 0 or more").optional(),
  system: z.enum(SYSTEMS, { error: `must be ${SYSTEMS.join(", ")}` }).optional(),
  criticality: number.min(0, "must be 0 or more").max(1000, "must be at most 1000").optional(),
  feeder: tag.optional(),
  needs: z.array(carrier).default([]),
  sink: flag.optional(),
  service: service.optional(),
  protects,
  limit_Pa: number.gt(0, "must be above 0").optional(),
  source: z.array(source, { error: "must be a list" }).default([]),
  device: device.optional(),
  bleed: strict({ safe: flag.default(false), gauge: flag.default(false), bore_m: bore.optional() }).optional(),
});

const isoDate = word.regex(/^\d{4}-\d{2}-\d{2}$/, "must be a date, year-month-day");

const link = z.looseObject({
  from: tag,
  to: tag,
  carries: carrier,
  oneWay: flag.default(false),
  normal: z.enum(["forward", "none"], { error: "must be forward or none" }).default("forward"),
  wall: flag.default(false),
  service: service.optional(),
  protects,
  walked: isoDate.optional(),
  temporary: z.object({ from: isoDate, until: isoDate }).optional(),
});

const siteKind = z.object({
  kind: word.min(1, "must not be empty"),
  converts: z.array(z.tuple([carrier, carrier])).default([]),
  convertsAcross: z.array(z.tuple([carrier, carrier])).optional(),
  surelyPasses: flag.optional(),
});

const WATCH_IDS = AFTER_WATCHES.map(({ id }) => id) as [string, ...string[]];
const size = number.gt(0, "must be above 0").max(100_000, "must be at most 100000");
const area = z.object({
  name: word.min(1, "must not be empty").max(80, "must be at most 80 characters"),
  x_m: number,
  y_m: number,
  width_m: size,
  depth_m: size,
  level_m: number.default(0),
  tell: word.optional(),
  opensTo: z.array(word, { error: "must be a list of areas" }).optional(),
  tightFloor: flag.optional(),
  watchClass: z.enum(WATCH_IDS, { error: `must be one of ${WATCH_IDS.join(", ")}` }).optional(),
  extinguisher: word.optional(),
  exits: z.array(word, { error: "must be a list" }).optional(),
  phone: word.optional(),
  alarm: word.optional(),
  eyewash: word.optional(),
});

export const plantSchema = z.looseObject({
  format: z.literal(PLANT_FORMAT, { error: `must be "${PLANT_FORMAT}"` }),
  version: z.literal(1, { error: "must be 1" }),
  kinds: z.array(siteKind, { error: "must be a list" }).default([]),
  areas: z.array(area, { error: "must be a list" }).default([]),
  items: z.array(item, { error: "must be a list" }),
  links: z.array(link, { error: "must be a list" }),
});

export type PlantFile = z.output<typeof plantSchema>;
/** What a file may hold before the defaults are filled in. */
export type PlantInput = z.input<typeof plantSchema>;
