import { z } from "zod";
import { CARRIERS } from "../plant/carriers";
import { OBJECTIVES, SCHOOLS } from "../request/jobFile";
import { LOSS_KINDS } from "../losses/alsoStops";
import { FAMILIES, GRADES } from "../requirement/grades";
import { FINDING_CODES } from "../trace/findings";
import { HIDDEN_BY } from "../trace/hiddenRoute";
import type { Plan } from "./plan";

const carrier = z.enum(CARRIERS);
const grade = z.enum(GRADES);
const tags = z.array(z.string());
const way = { source: z.string(), carrier, face: z.string() };
const figure = z.number().nullable();
const energy = z
  .object({
    energy_J: figure,
    most_J: z.number().optional(),
    formula: z.string(),
    source: z.string(),
    missing: tags,
  })
  .nullable();
const found = { source: z.string(), carrier, via: tags };
const hidden = { hidden: z.boolean(), hiddenBy: z.array(z.enum(HIDDEN_BY)) };

/** Plans of before ranked nothing: everything mattered first. */
const tier = z.union([z.literal(1), z.literal(2), z.literal(3)]).default(1);

const energySchema = z.object({
  face: z.string(),
  lock: z.string().nullable(),
  locked: z.boolean(),
  by: z.string().nullable(),
  tier,
  rows: z.array(
    z.object({
      source: z.string(),
      carrier,
      arrives: carrier,
      tier,
      brings: z.string().nullable(),
      hiddenBy: z.array(z.enum(HIDDEN_BY)),
      via: tags,
      forgotten: tags.nullable(),
    }),
  ),
});

const pointSchema = z.object({
  device: z.string(),
  stops: z.array(carrier),
  effort_min: z.number(),
  lockable: z.boolean(),
  positive: z.boolean(),
  stage: z.union([z.literal(1), z.literal(2)]),
  because: z.enum(["computed", "pinned", "positive", "to fit the blinds", "to prove the space between"]),
  layer: z.number(),
  holds: z.array(z.object(way)),
});

const routeSchema = z.object({
  ...way,
  required: z.number(),
  available: z.number(),
  depth: z.number(),
  arrives: carrier,
  family: z.enum(FAMILIES),
  requiredGrade: grade.nullable(),
  grade,
  held: z.boolean(),
  unlinked: tags.default([]),
  because: tags,
  rule: z.object({ row: z.string(), reason: z.string(), source: z.string() }),
  brings: z.string().nullable(),
  via: tags,
});

/** Ways that a plan does not hold, as they are kept with it. */
export const shortfallsSchema: z.ZodType<Plan["shortfalls"]> = z.array(
  z.object({
    ...way,
    required: z.number(),
    available: z.number(),
    requiredGrade: grade.nullable(),
    grade,
    because: tags,
    proved: z.enum(["impossible", "not found"]).default("not found"),
    noWayOut: z.literal(true).optional(),
    measures: tags,
  }),
);

/** What goes dark with a plan, as it is kept with it. */
export const goesDarkSchema: z.ZodType<Plan["goesDark"]> = z.array(
  z.object({
    tag: z.string(),
    name: z.string(),
    area: z.string(),
    tell: z.string(),
    loses: z.array(carrier),
    criticality: z.number(),
    isWork: z.boolean(),
  }),
);

/** Plans of before looked only at what goes dark. */
const alsoStopsSchema: z.ZodType<Plan["alsoStops"]> = z.array(
  z.object({
    kind: z.enum(LOSS_KINDS),
    tag: z.string(),
    name: z.string(),
    area: z.string(),
    tell: z.string(),
    criticality: z.number(),
    by: tags,
    others: tags,
  }),
);

/** A plan as an isolation keeps it. */
export const planSchema: z.ZodType<Plan> = z.object({
  format: z.literal("heavy-lantern/plan"),
  version: z.literal(1),
  objective: z.enum(OBJECTIVES),
  school: z.enum(SCHOOLS),
  profile: z.string(),
  points: z.array(pointSchema),
  cost: z.number(),
  minutes: z.number(),
  exact: z.boolean(),
  bound: z.number(),
  feasible: z.boolean(),
  held: z.boolean(),
  unlinked: tags.default([]),
  routes: z.array(routeSchema),
  shortfalls: shortfallsSchema,
  singleFailures: z.array(
    z.object({
      device: z.string(),
      faces: tags,
      lights: z.array(z.object({ face: z.string(), arrives: carrier, ...found })),
    }),
  ),
  cavities: z.array(
    z.object({
      carrier,
      zone: z.enum(["between", "work"]),
      places: tags,
      barriers: tags,
      bleeds: tags,
      // Plans of before drained through valves that were taken to stand open.
      opens: tags.default([]),
      undrained: tags,
      faces: tags,
    }),
  ),
  bleeds: tags,
  opens: tags.default([]),
  unusable: tags.default([]),
  blinds: z.array(
    z.object({
      device: z.string(),
      bore_m: figure,
      flangeClass: z.string().nullable(),
      pressure_Pa: figure,
      rated_Pa: figure.default(null),
      from: z.string().nullable().default(null),
      thickness_m: figure,
      missing: tags,
    }),
  ),
  darkZone: z.object({
    places: tags,
    trapped: z.array(
      z.object({
        place: z.string(),
        fluid: z.string(),
        volume_m3: figure,
        pressure_Pa: figure,
        energy,
        bleeds: tags,
      }),
    ),
  }),
  goesDark: goesDarkSchema,
  alsoStops: alsoStopsSchema.default([]),
  notices: tags,
  energies: z.array(energySchema).default([]),
  waysIn: z.array(
    z.object({
      face: z.string(),
      through: z.string(),
      carrier,
      tier,
      sources: z.array(z.object({ ...found, tier, nearestDevice: z.string().nullable(), ...hidden })),
    }),
  ),
  stored: z.array(
    z.object({
      ...found,
      face: z.string(),
      arrives: carrier,
      devices: tags,
      bleeds: tags,
      brings: z.string().nullable(),
      tier,
      likeliest: tags.nullable().default(null),
      lastLock: z.string().nullable().default(null),
      regenerating: z.boolean(),
      quantity: energy,
      harmless: z.string(),
    }),
  ),
  findings: z.array(z.object({ code: z.enum(FINDING_CODES), tags, sentence: z.string() })),
});
