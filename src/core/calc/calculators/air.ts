import { blowerFlow_m3_s, MOST_BENDS } from "../../atmosphere/blowerFlow";
import { MANHOLE_SWEEP, manholePurge } from "../../atmosphere/manholePurge";
import { LEAST_OXYGEN, AIR_OXYGEN, oxygenAfter, oxygenDisplaced } from "../../atmosphere/oxygenDisplaced";
import { sweepTarget } from "../../atmosphere/gasesOf";
import { purgeCycles } from "../../atmosphere/purgeCycles";
import { concentrationAfter, purgeTime, type Sweep } from "../../atmosphere/purgeDilution";
import { SUBSTANCES } from "../../atmosphere/substances";
import { duration, figure } from "../../units/format";
import { NoFigure, sampled, type Calculation, type Picture, type Result } from "../calculation";
import { calculator } from "../calculator";
import { choice, number, size } from "../fields";

/** Fractions of 1 and of 1 only: 21 % is 0.21. */
const fraction = (words: string, rest: { default?: number; example?: number; hint?: string } = {}) =>
  number(words, "percent", { min: 0, max: 1, ...rest });
const CROWL_PURGING = "D. A. Crowl and J. F. Louvar, Chemical Process Safety, chapter on purging, from memory";
const INERT_FIRST = "Where the contents burn, sweep with inert gas first and let air in only then.";

const sweepFields = {
  volume_m3: size("Volume of the space", "volume", { max: 1e6, example: 28.32 }),
  flow_m3_s: size("Flow that really arrives", "flow", { max: 1e4, example: 0.25, hint: "after the bends of its hose" }),
  c0: fraction("In the space now", { example: 0.21 }),
  c: fraction("Must come to", { example: 0.0125 }),
  cs: fraction("In the supply", { default: 0 }),
  mixing: number("Mixing, 1 perfect to 10 poor", "ratio", { min: 1, max: 10, default: 1 }),
  generation_m3_s: number("Made inside all the while", "flow", { min: 0, max: 100, default: 0 }),
} as const;

const percent = (value: number) => figure(value, "percent", "metric");

/** The sweep as a curve over time, with the limit and what it ends at; dashed for perfect and for poor mixing. */
function sweepPicture(sweep: Sweep, time_s: number, limitWords: string): Picture {
  const until = Math.max(time_s * 1.4, 1);
  const curve = (mixing: number, words: string, dashed = false) => ({
    words,
    dashed,
    points: sampled(0, until, (t) => concentrationAfter({ ...sweep, mixing }, t)),
  });
  return {
    kind: "curve",
    x: { words: "time", quantity: "duration" },
    y: { words: "in the space", quantity: "percent" },
    series: [
      curve(sweep.mixing ?? 1, "as asked"),
      ...[1, 10]
        .filter((mixing) => !sweep.generation_m3_s && mixing !== (sweep.mixing ?? 1))
        .map((mixing) => curve(mixing, mixing === 1 ? "perfect mixing" : "poor mixing", true)),
    ],
    lines: [{ y: sweep.c, words: limitWords }],
    marks: [{ x: time_s, y: sweep.c, words: duration(time_s) }],
    bands: [],
  };
}

/** Why a sweep does not get there. A space cannot hold more than all of it, whatever the balance says. */
function notReached(sweep: Sweep, { endsAt, past_s }: Readonly<{ endsAt: number; past_s: number | null }>): NoFigure {
  if (!(endsAt <= 1)) {
    return new NoFigure(
      "generation_m3_s",
      "is impossible to sweep out: more is made inside than this flow carries off",
    );
  }
  if (past_s !== null) {
    const rises = `rises past it after ${duration(past_s)} and ends at ${percent(endsAt)}`;
    return new NoFigure("c", `is never held: the space ${rises}, by its supply and what is made inside`);
  }
  const towards = sweep.c0 === endsAt ? "stays at" : sweep.c0 < endsAt ? "rises to" : "ends at";
  return new NoFigure(
    "c",
    `is never reached: the space ${towards} ${percent(endsAt)}, by its supply and what is made inside`,
  );
}

export const purgeDilution = calculator({
  name: "purge-dilution",
  task: "Make the air fit to enter",
  title: "How long to sweep a space",
  fields: sweepFields,
  compute: (inputs): Calculation => {
    const swept = purgeTime(inputs);
    if (!swept.reached) throw notReached(inputs, swept);
    const at = (mixing: number): number | null => {
      const other = purgeTime({ ...inputs, mixing });
      return other.reached ? other.time_s : null;
    };
    const { time_s } = swept;
    return {
      results: [
        { key: "time_s", words: "Sweep for", quantity: "duration", value: time_s },
        { key: "perfect_s", words: "with perfect mixing", quantity: "duration", value: at(1), instead: "never" },
        { key: "poor_s", words: "with poor mixing (10)", quantity: "duration", value: at(10), instead: "never" },
        { key: "ends_at", words: "In the end it holds", quantity: "percent", value: swept.endsAt },
        { key: "swept_m3", words: "Air or gas used", quantity: "volume", value: time_s * inputs.flow_m3_s },
      ],
      governs: "time_s",
      ...(swept.already
        ? { because: "It is there already, and stays there: at most this much is what was asked." }
        : {}),
      formula: "t = K·V/Q · ln((C₀ − C∞)/(C − C∞)), C∞ = Cₛ + K·G/Q",
      source: CROWL_PURGING,
      validity: "One well-mixed space; dead corners are what the mixing factor stands for. Test before anyone goes in.",
      warnings: [
        INERT_FIRST,
        ...(swept.already && inputs.c > inputs.c0
          ? ["If at least this much is meant, as of oxygen, this supply never brings it there."]
          : []),
        ...(inputs.mixing === 1 ? ["Perfect mixing is the best there is: most spaces need 3 or more."] : []),
      ],
      picture: sweepPicture(inputs, time_s, "must come to"),
    };
  },
});

export const purgeByCycles = calculator({
  name: "purge-cycles",
  task: "Make the air fit to enter",
  title: "How many pressure or vacuum cycles",
  fields: {
    c0: fraction("In the vessel now", { example: 0.21 }),
    c: fraction("Must come to", { example: 1e-6 }),
    cs: fraction("In the purge gas", { default: 0 }),
    low_Pa: size("Low pressure, absolute", "pressure", { example: 101_325 }),
    high_Pa: size("High pressure, absolute", "pressure", { example: 652_906 }),
  },
  compute: ({ c0, c, cs, low_Pa, high_Pa }): Calculation => {
    if (low_Pa >= high_Pa) throw new NoFigure("low_Pa", "must be below the high pressure");
    if (c0 <= cs) throw new NoFigure("cs", "must be below what is in the vessel: this gas purges nothing");
    if (c <= cs) throw new NoFigure("c", `is never reached: the purge gas itself holds ${percent(cs)}`);
    const found = purgeCycles({ c0, c: Math.min(c, c0), cs, low_Pa, high_Pa });
    if (found === null) throw new NoFigure("c", "is never reached with this gas");
    const after = (n: number) => cs + (c0 - cs) * (low_Pa / high_Pa) ** n;
    const most = Math.min(found.cycles + 1, 60);
    return {
      results: [
        { key: "cycles", words: "Cycles", quantity: "count", value: found.cycles },
        { key: "cycles_exact", words: "before rounding up", quantity: "ratio", value: found.exact },
      ],
      governs: "cycles",
      formula: "n = ln((C − Cₛ)/(C₀ − Cₛ)) / ln(P_low/P_high), rounded up",
      source: CROWL_PURGING,
      validity: "Each cycle mixes fully and comes back to the same temperature; the vessel stands both pressures.",
      warnings: [INERT_FIRST],
      picture: {
        kind: "curve",
        x: { words: "cycles", quantity: "count" },
        y: { words: "in the vessel", quantity: "percent" },
        series: [
          {
            words: "after each cycle",
            points: Array.from({ length: most + 1 }, (_, n) => [n, after(n)] as const),
          },
        ],
        lines: [{ y: c, words: "must come to" }],
        marks: [{ x: found.cycles, y: after(found.cycles), words: `${found.cycles} cycles` }],
        bands: [],
      },
    };
  },
});

export const blowerByBends = calculator({
  name: "blower-flow",
  task: "Make the air fit to enter",
  title: "What the bends leave of a blower",
  fields: {
    rated_m3_s: size("Rated flow of the blower", "flow", { max: 1e4, example: 0.4719 }),
    bends: number("90° bends in the hose", "count", { min: 0, max: 20, whole: true, example: 1 }),
  },
  compute: ({ rated_m3_s, bends }): Calculation => ({
    results: [{ key: "flow_m3_s", words: "Arrives", quantity: "flow", value: blowerFlow_m3_s({ rated_m3_s, bends }) }],
    governs: "flow_m3_s",
    formula: "every 90° bend leaves 70 % of the flow before it",
    source: "practice",
    validity: "The blower's own short hose, round and not crushed. Measure where it matters.",
    warnings: [
      ...(bends > MOST_BENDS.purge ? [`To purge, at most ${MOST_BENDS.purge} bend.`] : []),
      ...(bends > MOST_BENDS.ventilate ? [`To ventilate, at most ${MOST_BENDS.ventilate} bends.`] : []),
    ],
    picture: {
      kind: "bars",
      quantity: "flow",
      log: false,
      rows: Array.from({ length: Math.max(4, bends + 1) }, (_, n) => ({
        words: n === 1 ? "1 bend" : `${n} bends`,
        value: blowerFlow_m3_s({ rated_m3_s, bends: n }),
        governs: n === bends,
      })),
    },
  }),
});

/** Gases the sweep can be aimed at: those with a limit of their own. */
const PURGED = [
  "not known",
  ...SUBSTANCES.map(({ name }) => name).filter((name) => sweepTarget([name]) !== null),
] as const;
const NO_GAS =
  "No gas is named, so this time calls nothing fit to enter: one per cent is a fifth of methane's lower limit and almost all of hexane's, and far above what poisons.";

export const purgeOfManhole = calculator({
  name: "manhole-purge",
  task: "Make the air fit to enter",
  title: "How long to purge a manhole",
  fields: {
    chimneys: number("Chimneys", "count", { min: 1, max: 50, whole: true, example: 1 }),
    volume_m3: size("Volume", "volume", { max: 1e6, example: 30 }),
    rated_m3_s: size("Rated flow of the blower", "flow", { max: 1e4, example: 0.4719 }),
    bends: number("90° bends in the hose", "count", { min: 0, max: 20, whole: true, example: 1 }),
    c0: fraction("In it now, as the worst case", { default: MANHOLE_SWEEP.c0 }),
    gas: choice("What has to go", PURGED),
    c: number("Must come to", "percent", {
      min: 0,
      max: 1,
      optional: true,
      hint: "empty: by what has to go; the lower of both counts",
    }),
    cs: fraction("In the supply", { default: 0 }),
    mixing: number("Mixing, 1 perfect to 10 poor", "ratio", { min: 1, max: 10, default: MANHOLE_SWEEP.mixing }),
    chart_s: size("The site chart's time", "duration", { optional: true, hint: "wins over the rule" }),
  },
  compute: ({ gas, c: asked, chart_s, ...rest }): Calculation => {
    const target = sweepTarget([gas]);
    const c = Math.min(asked ?? 1, target?.fraction ?? 1);
    const c_end = asked === undefined && target === null ? MANHOLE_SWEEP.c : c;
    const inputs = { ...rest, c: c_end, ...(chart_s === undefined ? {} : { chart_s }) };
    const { rule_s, computed_s, time_s, flow_m3_s } = manholePurge(inputs);
    if (computed_s === null || time_s === null) {
      throw new NoFigure("c", "is never reached: it must lie between what is in it now and what the supply holds");
    }
    const byRule = rule_s >= computed_s;
    return {
      results: [
        { key: "time_s", words: "Purge for", quantity: "duration", value: time_s },
        { key: "rule_s", words: "by the rule of thumb", quantity: "duration", value: rule_s },
        { key: "computed_s", words: "by the dilution sum", quantity: "duration", value: computed_s },
        { key: "flow_m3_s", words: "Flow after the bends", quantity: "flow", value: flow_m3_s },
        { key: "c", words: "It comes to", quantity: "percent", value: c_end },
      ],
      governs: "time_s",
      because: `${byRule ? "The rule" : "The dilution sum"} is the longer of the two, and the longer governs.`,
      formula: "20 min, 10 more for each further chimney; against t = K·V/Q·ln((C₀ − Cₛ)/(C − Cₛ)) with this blower",
      source: `practice; the sum: ${CROWL_PURGING}`,
      validity: "The rule assumes a common manhole and blower. Test after it, whatever the time.",
      warnings: [
        ...(target === null ? [NO_GAS] : []),
        ...(inputs.bends > MOST_BENDS.purge
          ? [`A purge set-up has at most ${MOST_BENDS.purge} bend: straighten the hose.`]
          : []),
      ],
      picture: {
        kind: "bars",
        quantity: "duration",
        log: false,
        rows: [
          { words: "rule of thumb", value: rule_s, governs: byRule },
          { words: "dilution sum", value: computed_s, governs: !byRule },
        ],
      },
    };
  },
});

export const airChanges = calculator({
  name: "air-changes",
  task: "Make the air fit to enter",
  title: "Flow for so many air changes",
  fields: {
    volume_m3: size("Volume", "volume", { max: 1e6, example: 60 }),
    changes: size("Air changes", "count", { max: 1e4, example: 20 }),
    time_s: size("Within", "duration", { example: 3600 }),
  },
  compute: ({ volume_m3, changes, time_s }): Calculation => {
    const flow_m3_s = (changes * volume_m3) / time_s;
    const left = (n: number) => Math.exp(-n);
    return {
      results: [
        { key: "flow_m3_s", words: "Flow needed", quantity: "flow", value: flow_m3_s },
        { key: "left", words: "Perfectly mixed, still there", quantity: "percent", value: left(changes) },
      ],
      governs: "flow_m3_s",
      formula: "Q = n·V/t",
      source: "arithmetic",
      validity: "Says what is blown, not where it goes: corners may stand still.",
      warnings: [],
      picture: {
        kind: "curve",
        x: { words: "air changes", quantity: "count" },
        y: { words: "still there, perfectly mixed", quantity: "percent" },
        series: [{ words: "perfect mixing", points: sampled(0, Math.max(changes, 5), left) }],
        lines: [],
        marks: [{ x: changes, y: left(changes), words: `${Number(changes.toPrecision(4))} changes` }],
        bands: [],
      },
    };
  },
});

export const inertLeak = calculator({
  name: "oxygen-displaced",
  task: "Make the air fit to enter",
  title: "When an inert leak makes a room deadly",
  fields: {
    volume_m3: size("Volume of the room", "volume", { max: 1e6, example: 60 }),
    leak_m3_s: size("Inert gas leaking in", "flow", { max: 1e3, example: 0.01 }),
    ventilation_m3_s: number("Fresh air", "flow", { min: 0, max: 1e4, example: 0.02 }),
    limit: number("Oxygen must not fall below", "percent", { above: 0, max: 0.2, default: LEAST_OXYGEN }),
  },
  compute: (inputs): Calculation => {
    const { endsAt, time_s } = oxygenDisplaced(inputs);
    const until = time_s === null ? (5 * inputs.volume_m3) / (inputs.ventilation_m3_s + inputs.leak_m3_s) : time_s * 2;
    const reached: Result = {
      key: "time_s",
      words: "Oxygen reaches the limit after",
      quantity: "duration",
      value: time_s,
      instead: "never: the fresh air keeps it above",
    };
    return {
      results: [reached, { key: "ends_at", words: "Oxygen in the end", quantity: "percent", value: endsAt }],
      governs: "time_s",
      formula: "V·dC/dt = Q·20.9 % − (Q + G)·C, well mixed",
      source: "well-mixed balance",
      validity: "The whole room mixed. Close to the leak, and low or high by the gas's weight, it is deadly at once.",
      warnings: [
        "Oxygen alone is looked at. A gas that poisons does so first: carbon dioxide from 0.5 % over a shift and 4 % at once, from memory.",
        ...(endsAt < 0.1 ? ["It ends below 10 % oxygen: a person falls without a warning."] : []),
      ],
      picture: {
        kind: "curve",
        x: { words: "time", quantity: "duration" },
        y: { words: "oxygen", quantity: "percent" },
        series: [
          { words: "oxygen in the room", points: sampled(0, Math.max(until, 1), (t) => oxygenAfter(inputs, t)) },
        ],
        lines: [{ y: inputs.limit, words: "limit" }],
        marks: time_s === null ? [] : [{ x: time_s, y: inputs.limit, words: duration(time_s) }],
        bands: [],
      },
      also: { starts_at: AIR_OXYGEN },
    };
  },
});
