import { profileSchema, type RuleProfile } from "./profile";

const PRACTICE = "practice";
const OSHA_146 = "29 CFR 1910.146(b) and (c), quoted from memory";
const OSHA_147 = "29 CFR 1910.147(c) and (d), quoted from memory";
const OSHA_333 = "29 CFR 1910.333(b)(2), quoted from memory";
const UK_EAWR = "Electricity at Work Regulations 1989, regulations 12 and 13, quoted from memory";
const UK_CONFINED = "Confined Spaces Regulations 1997, approved code of practice, quoted from memory";
const UK_PUWER = "Provision and Use of Work Equipment Regulations 1998, regulation 19, quoted from memory";
const UK_HSG253 = "HSG253, The safe isolation of plant and equipment, quoted from memory";

type Row = RuleProfile["rows"][number];
type Sources = Readonly<{ spaces: string; lines: string; wires: string; highVoltage: string; moving: string }>;

/** Rows that every shipped profile has, with the profile's own sources. */
function commonRows(from: Sources): Row[] {
  return [
    {
      id: "pushed",
      family: "flow",
      when: { suppliedFamily: ["wire", "motion", "heat", "radiation"] },
      asks: "unproved single",
      reason:
        "a drive that could pump or push what stands in the line; the line's own contents are judged by their source",
      source: PRACTICE,
    },
    {
      id: "pressed, entered",
      family: "flow",
      when: { how: ["enter"], arrives: ["hydraulic", "pneumatic"] },
      asks: "positive",
      reason: "a person enters: hydraulic and pneumatic lines are disconnected",
      source: from.spaces,
    },
    {
      id: "pressed",
      family: "flow",
      when: { how: ["open", "touch", "hot"], arrives: ["hydraulic", "pneumatic"] },
      asks: "proved single",
      reason: "opening or touching what oil or air under pressure moves",
      source: from.moving,
    },
    {
      id: "enter",
      family: "flow",
      when: { how: ["enter"], suppliedFamily: ["flow"] },
      asks: "positive",
      reason: "a person enters",
      source: from.spaces,
    },
    {
      id: "hot, harmful",
      family: "flow",
      when: { how: ["hot"], suppliedFamily: ["flow"], contents: "may burn or harm" },
      asks: "positive",
      reason: "hot work in or on what has held, or may have held, flammable, toxic or self-heating contents",
      source: from.lines,
    },
    {
      id: "hot, other",
      family: "flow",
      when: { how: ["hot"], suppliedFamily: ["flow"] },
      asks: "proved single",
      reason: "other hot work",
      source: PRACTICE,
    },
    {
      id: "open, high pressure",
      family: "flow",
      when: { how: ["open"], suppliedFamily: ["flow"], contents: "high pressure and harmful" },
      asks: "positive",
      reason: "opening a line with harmful contents at high pressure, by the site's matrix",
      source: PRACTICE,
    },
    {
      id: "open, harmful",
      family: "flow",
      when: { how: ["open"], suppliedFamily: ["flow"], contents: "harmful" },
      asks: "proved double",
      reason: "opening a line whose contents are harmful, hot, under pressure or not known",
      source: from.lines,
    },
    {
      id: "open, harmless",
      family: "flow",
      when: { how: ["open", "touch"], suppliedFamily: ["flow"] },
      asks: "proved single",
      reason: "opening or touching a line with harmless contents",
      source: from.lines,
    },
    {
      id: "near, flow",
      family: "flow",
      when: { how: ["near"], suppliedFamily: ["flow"] },
      asks: "unproved single",
      reason: "working near what could come out",
      source: PRACTICE,
    },
    {
      id: "long, hazardous",
      family: "flow",
      when: { suppliedFamily: ["flow"], contents: "harmful", longerThanShift: true },
      asks: "one better",
      reason: "the job outlasts one shift, and the contents are hazardous",
      source: PRACTICE,
    },
    {
      id: "conductors, high voltage",
      family: "wire",
      when: { how: ["touch", "open", "enter", "hot"], above_V: 1000 },
      asks: "separated",
      reason: "touching conductors at high voltage, or at a voltage that the register does not say",
      source: from.highVoltage,
    },
    {
      id: "conductors, low voltage",
      family: "wire",
      when: {},
      asks: "locked isolating device",
      reason: "conductors that may be touched, or that start a machine",
      source: from.wires,
    },
    {
      id: "moving, entered",
      family: "motion",
      when: { how: ["enter"] },
      asks: "restrained",
      reason: "a person enters where parts may move or fall",
      source: from.moving,
    },
    {
      id: "moving by itself",
      family: "motion",
      when: { how: ["touch", "open", "hot"], suppliedFamily: ["motion"] },
      asks: "restrained",
      reason: "parts that move or fall by themselves",
      source: from.moving,
    },
    {
      id: "moving, driven",
      family: "motion",
      when: {},
      asks: "drive isolated only",
      reason: "parts that a drive may move: the drive locked, stored energy released, the start tried",
      source: from.moving,
    },
    {
      id: "hot parts",
      family: "heat",
      when: {},
      asks: "isolated and cooled",
      reason: "hot parts, to be below the contact limit",
      source: PRACTICE,
    },
    {
      id: "radiation",
      family: "radiation",
      when: {},
      asks: "shutter locked and surveyed",
      reason: "a radiation source in the path of people",
      source: PRACTICE,
    },
  ];
}

const MEASURES: RuleProfile["measures"] = [
  { id: "gauge in view", families: ["flow"], words: "A gauge and an open bleed in view of the work, watched" },
  {
    id: "seat test",
    families: ["flow"],
    words: "The valve's seat tested, and the result written down, before it is relied on",
  },
  {
    id: "watcher",
    families: ["flow", "motion"],
    words: "Someone at the barrier who watches until the end and does nothing else",
  },
  {
    id: "blind downstream",
    families: ["flow"],
    words: "The line disconnected and blinded downstream as the first act",
  },
  {
    id: "tag and guard",
    families: ["flow", "wire", "motion"],
    words: "The device tagged and its handle removed, chained or guarded",
  },
  { id: "another bleed", families: [], words: "Another bleed fitted, and the vessel drained through it" },
  { id: "hot tap", families: [], words: "Tapped under pressure by those who do that, and drained through the tapping" },
  { id: "suction lorry", families: [], words: "Sucked out from above by a lorry for what it is, bonded to the vessel" },
  {
    id: "first flange as full",
    families: [],
    words: "The lowest flange opened as if full, with a tray, a way for what comes, and nobody below",
  },
  { id: "second point", families: ["wire"], words: "A fuse drawn or a wire disconnected besides the tagged device" },
  { id: "short and earth", families: ["wire"], words: "Conductors shorted and earthed at the place of work" },
  { id: "block", families: ["motion"], words: "The part blocked, chocked or lowered to rest" },
  { id: "cool and measure", families: ["heat"], words: "Cooled, measured before touching, gloves for the rest" },
  {
    id: "survey",
    families: ["radiation"],
    words: "Surveyed by the radiation safety officer before and during the work",
  },
];

const longer = {
  governs: "longer",
  reason: "neither the rule of thumb nor the sum knows this space or this apparatus; the longer errs to the safe side",
  source: PRACTICE,
} as const;

const limits = {
  waits: { purge: longer, capacitor: longer },
  airRetest_min: 120,
  firstOn: ["coordinator", "lead"],
  verified: "harmful and high voltage",
  // One long shift.
  proofGoodFor_h: 12,
  absence_min: 60,
  leakTest_min: 10,
  reviewEvery_h: 168,
  lockCheckEvery_h: 24,
  revalidateWithin_min: 30,
  extension: "once",
  openHotBelow: 0,
  // 4 ft, 29 CFR 1910.28(b)(1), from memory.
  fallAbove_m: 1.2,
  // A year: 29 CFR 1910.146(k)(2)(iv), from memory.
  rehearsedWithin_days: 365,
  displayed: "paper or screen",
  afterWatch: "class 3",
  hotAbove_C: 50,
  highPressureAbove_Pa: 10e5,
  positiveAbove_Pa: 40e5,
  walkedWithin_days: 730,
};

/** Strict: our own, the default. Everything that any of the others asks, and harmful contents judged early. */
const strict = profileSchema.parse({
  id: "strict",
  name: "Strict site rules",
  ...limits,
  displayed: "paper",
  extension: "never",
  rows: commonRows({ spaces: OSHA_146, lines: UK_HSG253, wires: OSHA_147, highVoltage: UK_EAWR, moving: OSHA_147 }),
  measures: MEASURES,
});

/** US style: double block with the bleed locked open is accepted for entry. */
const usStyle = profileSchema.parse({
  id: "us-style",
  name: "US style",
  ...limits,
  afterWatch: "30 min",
  openHotBelow: 0.1,
  rows: commonRows({ spaces: OSHA_146, lines: OSHA_147, wires: OSHA_147, highVoltage: OSHA_333, moving: OSHA_147 }).map(
    (row) =>
      row.id === "enter"
        ? {
            ...row,
            asks: "proved double",
            reason: "a person enters; double block with the bleed locked open is accepted",
          }
        : row,
  ),
  measures: MEASURES,
});

/** UK style: grades by contents, positive for entry. */
const ukStyle = profileSchema.parse({
  id: "uk-style",
  name: "UK style",
  ...limits,
  afterWatch: "60 min",
  // The Work at Height Regulations 2005 name no least height, from memory.
  fallAbove_m: 0,
  positiveAbove_Pa: 20e5,
  walkedWithin_days: 365,
  rows: commonRows({ spaces: UK_CONFINED, lines: UK_HSG253, wires: UK_EAWR, highVoltage: UK_EAWR, moving: UK_PUWER }),
  measures: MEASURES,
});

/** The shipped profiles; the first is the default. A site's own profile is a copy of one, edited. */
export const PROFILES: readonly RuleProfile[] = [strict, usStyle, ukStyle];

export function profileOf(id: string): RuleProfile {
  const found = PROFILES.find((profile) => profile.id === id);
  if (found === undefined) throw new RangeError(`there is no rule profile ${id}`);
  return found;
}
