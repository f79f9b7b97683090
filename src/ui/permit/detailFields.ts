import { instantOf, siteField } from "../text/siteInstant";
import { SUBSTANCES } from "../../core/atmosphere/substances";
import type { PermitDetails } from "../../core/permit/kinds/details";
import { HOT_WORKS } from "../../core/permit/kinds/hotWorks";
import type { PermitKind } from "../../core/permit/kinds/kinds";
import { AFTER_WATCHES } from "../../core/fire/hotWork";
import { readWhen } from "../../core/units/whenText";
import { readNumber } from "../../core/units/readNumber";
import { toSi, unitOf, type Quantity, type UnitSystem } from "../../core/units/units";

/** One question of a kind's form. Figures with a quantity are asked in the person's unit and sent in SI. */
export type DetailField = Readonly<{
  name: string;
  label: string;
  as: "text" | "area" | "number" | "tick" | "yes no" | "select" | "ticks" | "lines" | "date" | "time";
  options?: readonly Readonly<{ value: string; words: string }>[];
  hint?: string;
  quantity?: Quantity;
  /** Takes the whole width. */
  wide?: boolean;
  /** Used where neither the register nor the job knows better; SI, where it is a figure. */
  initial?: string;
  group: string;
}>;

const options = (values: readonly string[]) => values.map((value) => ({ value, words: value }));
const GASES = options(SUBSTANCES.map(({ name }) => name));

/** What is so, and what is not; neither stands there beforehand. */
const yesNo = (yes: string, no: string) => [
  { value: "yes", words: yes },
  { value: "no", words: no },
];

const SPOT: readonly DetailField[] = [
  { name: "x_m", label: "Where, x", as: "number", quantity: "length", group: "Where" },
  { name: "y_m", label: "Where, y", as: "number", quantity: "length", group: "Where" },
];

/** What each kind asks besides what every permit says. */
export const DETAIL_FIELDS: Readonly<Record<PermitKind, readonly DetailField[]>> = {
  general: [],
  "hot work": [
    { name: "works", label: "Kind of hot work", as: "ticks", options: options(HOT_WORKS), group: "The work" },
    {
      name: "inEquipment",
      label: "Where the flame is",
      as: "yes no",
      options: yesNo("in or on equipment, isolated for hot work", "in the open or in a building"),
      group: "The work",
    },
    { name: "welders", label: "People with a flame or arc", as: "number", group: "The work" },
    ...SPOT,
    { name: "level_m", label: "Level", as: "number", quantity: "length", group: "Where" },
    { name: "height_m", label: "Above the floor", as: "number", quantity: "length", group: "Where" },
    { name: "levels", label: "Levels that sparks can reach", as: "number", group: "Fire watch" },
    {
      name: "outOfSight",
      label: "Where sparks can land",
      as: "yes no",
      options: yesNo("one person cannot see all of it", "one person sees all of it"),
      group: "Fire watch",
    },
    {
      name: "afterWatch",
      label: "Watch afterwards",
      as: "select",
      wide: true,
      options: AFTER_WATCHES.map(({ id, words }) => ({ value: id, words: `${id}: ${words}` })),
      group: "Fire watch",
    },
    { name: "noCylinders", label: "No gas cylinders are used", as: "tick", group: "Cylinders" },
    {
      name: "cylinders_m",
      label: "Cylinders from the work",
      as: "number",
      quantity: "length",
      initial: "0",
      group: "Cylinders",
    },
    {
      name: "points",
      label: "Places where the air is tested, one a line",
      as: "lines",
      initial: "at the work\nat the edge, low",
      group: "Gas test",
    },
    { name: "gases", label: "Gases that may be there", as: "ticks", options: GASES, group: "Gas test" },
  ],
  "confined space entry": [
    { name: "space", label: "The space", as: "text", group: "The space" },
    { name: "badAir", label: "Its air may be bad", as: "tick", initial: "on", group: "The space" },
    { name: "engulfing", label: "Something may bury or drown", as: "tick", initial: "on", group: "The space" },
    { name: "trapping", label: "Walls or floors that narrow and trap", as: "tick", initial: "on", group: "The space" },
    { name: "otherHazard", label: "Another serious hazard", as: "tick", initial: "on", group: "The space" },
    { name: "otherWords", label: "Which", as: "text", group: "The space" },
    { name: "volume_m3", label: "Volume", as: "number", quantity: "volume", group: "The space" },
    { name: "depth_m", label: "Depth", as: "number", quantity: "length", group: "The space" },
    {
      name: "travel_m",
      label: "How far people go in",
      as: "number",
      quantity: "length",
      group: "The space",
    },
    { name: "width_m", label: "How wide it is", as: "number", quantity: "length", group: "The space" },
    { name: "corners", label: "Corners", as: "number", group: "The space" },
    { name: "ducts", label: "Duct mouths", as: "number", group: "The space" },
    { name: "chimneys", label: "Openings at the top", as: "number", initial: "1", group: "Ventilation" },
    { name: "blower_m3_s", label: "Blower", as: "number", quantity: "flow", group: "Ventilation" },
    { name: "bends", label: "Bends in its hose", as: "number", group: "Ventilation" },
    {
      name: "ventilation",
      label: "Tag of the fan, if it is the plant's",
      as: "text",
      hint: "No other job may then switch it off.",
      group: "Ventilation",
    },
    { name: "gases", label: "Gases that may be there", as: "ticks", options: GASES, group: "Gas test" },
    { name: "most", label: "Entrants at a time", as: "number", initial: "2", group: "People" },
    { name: "talk_min", label: "Minutes between calls", as: "number", initial: "10", group: "People" },
    { name: "rescue", label: "Rescue plan", as: "area", group: "People" },
    { name: "rehearsed_ms", label: "Last rehearsed on", as: "date", group: "People" },
  ],
  "line break": [
    { name: "line", label: "The line", as: "text", group: "The line" },
    { name: "flange", label: "First flange", as: "text", group: "The line" },
    {
      name: "release",
      label: "Where what is left comes out, and where it is led",
      as: "area",
      group: "The line",
    },
  ],
  "electrical work": [
    { name: "voltage_V", label: "Voltage", as: "number", quantity: "voltage", group: "The conductors" },
    { name: "gloves", label: "Insulating gloves, number", as: "text", group: "The conductors" },
    { name: "sanction", label: "Sanction for test: earths come off for it", as: "tick", group: "The conductors" },
    { name: "live", label: "It stays live", as: "tick", group: "The conductors" },
    { name: "liveReason", label: "Why it cannot be dead", as: "area", group: "The conductors" },
  ],
  "work at height": [
    { name: "height_m", label: "Height", as: "number", quantity: "length", group: "The height" },
    { name: "protection", label: "What keeps people from falling", as: "area", group: "The height" },
    { name: "harnesses", label: "Harness numbers, one a line", as: "lines", group: "The height" },
  ],
  "pressure test": [
    {
      name: "medium",
      label: "With",
      as: "select",
      options: options(["water", "gas"]),
      hint: "Water holds little energy; gas asks for distance and an approver.",
      group: "The test",
    },
    {
      name: "pressure_Pa",
      label: "Test pressure over the outside",
      as: "number",
      quantity: "gauge",
      group: "The test",
    },
    { name: "volume_m3", label: "Volume", as: "number", quantity: "volume", group: "The test" },
    { name: "gamma", label: "Ratio of heat capacities of the gas", as: "number", initial: "1.4", group: "The test" },
    { name: "gauge", label: "Gauge, number", as: "text", group: "The test" },
    ...SPOT,
  ],
  "minor isolation": [],
  "safeguard bypass": [
    { name: "safeguard", label: "The safeguard", as: "text", group: "The bypass" },
    { name: "owner", label: "Who answers for it", as: "select", group: "The bypass" },
    { name: "why", label: "Why", as: "area", group: "The bypass" },
    { name: "compensation", label: "What is done instead", as: "area", group: "The bypass" },
    { name: "until_ms", label: "Back at the latest", as: "time", group: "The bypass" },
  ],
};

/** The details as the server takes them, from what a form holds. What is no number goes as typed: the server says so. */
export function readDetails(kind: PermitKind, form: FormData, units: UnitSystem, prefix = ""): Record<string, unknown> {
  const details: Record<string, unknown> = { kind };
  for (const { name, as, quantity } of DETAIL_FIELDS[kind]) {
    const asked = `${prefix}${name}`;
    const raw = String(form.get(asked) ?? "");
    if (as === "tick") details[name] = form.get(asked) === "on";
    else if (as === "yes no") {
      if (raw !== "") details[name] = raw === "yes";
    } else if (as === "ticks") details[name] = form.getAll(asked);
    else if (as === "lines")
      details[name] = raw
        .split("\n")
        .map((line) => line.trim())
        .filter(Boolean);
    else if (as === "date" || as === "time") {
      const at = instantOf(as === "date" && raw.trim() !== "" ? `${readWhen(raw)?.date ?? raw} 00:00` : raw);
      if (at !== null) details[name] = at;
    } else if (as === "number" && raw.trim() !== "") {
      const read = readNumber(raw);
      details[name] = read.ok ? toSi(read.value, unitOf(quantity ?? "count", units)) : raw;
    } else if (as !== "number") details[name] = raw;
  }
  return details;
}

/** What a form begins with that asks again what a permit says: figures in SI, times by the site's clock. */
export function detailsAsFields(details: PermitDetails, zone: string): Record<string, string | readonly string[]> {
  const said: Readonly<Record<string, unknown>> = details;
  return Object.fromEntries(
    DETAIL_FIELDS[details.kind].map(({ name, as }) => {
      const value = said[name];
      switch (as) {
        case "tick":
          return [name, value === true ? "on" : ""];
        case "yes no":
          return [name, value === true ? "yes" : "no"];
        case "ticks":
          return [name, Array.isArray(value) ? value.map(String) : []];
        case "lines":
          return [name, Array.isArray(value) ? value.join("\n") : ""];
        case "date":
        case "time": {
          const at = typeof value === "number" ? siteField(value, zone) : "";
          return [name, as === "date" ? at.slice(0, 10) : at];
        }
        case "text":
        case "area":
        case "number":
        case "select":
          return [name, value === undefined || value === null ? "" : String(value)];
      }
    }),
  );
}
