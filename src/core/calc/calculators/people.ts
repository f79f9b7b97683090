import { breathes_m3_s, closedSpace_s } from "../../atmosphere/ventilation";
import {
  airUse_m3_s,
  CLOTHING,
  HEAT_SHARES,
  heatLimit_C,
  setLasts_s,
  WHISTLE_Pa,
  type Clothing,
} from "../../atmosphere/breathing";
import { STANDARD_ATMOSPHERE_Pa } from "../../units/units";
import { NoFigure, sampled, type Calculation } from "../calculation";
import { calculator } from "../calculator";
import { choice, number, size } from "../fields";
import { bars, curve } from "../pictures";

export const breathingAir = calculator({
  name: "breathing-air",
  task: "Look after people",
  title: "How long breathing apparatus lasts",
  fields: {
    volume_m3: size("Cylinder, water volume", "capacity", { max: 1, example: 0.006_8 }),
    filled_Pa: number("Filled to, gauge", "gauge", { above: 0, max: 1e8, example: 300e5 }),
    reserve_Pa: number("Whistle at, gauge", "gauge", { min: 0, max: 1e8, default: WHISTLE_Pa }),
    work: choice("Work", ["moderate", "heavy", "light", "at rest"]),
    out_s: number("Way out takes", "duration", { min: 0, max: 1e5, example: 300 }),
    rescue_s: number("Finding and bringing out somebody", "duration", { min: 0, max: 1e5, default: 0 }),
  },
  compute: (inputs): Calculation => {
    if (inputs.reserve_Pa >= inputs.filled_Pa) throw new NoFigure("reserve_Pa", "must be below what it is filled to");
    const use = airUse_m3_s(inputs.work);
    const whole = setLasts_s({ ...inputs, use_m3_s: use, ambient_Pa: STANDARD_ATMOSPHERE_Pa });
    const inside = whole - inputs.out_s - inputs.rescue_s;
    const onReserve = setLasts_s({
      ...inputs,
      filled_Pa: inputs.reserve_Pa,
      reserve_Pa: 0,
      use_m3_s: use,
      ambient_Pa: STANDARD_ATMOSPHERE_Pa,
    });
    return {
      results: [
        { key: "time_s", words: "Turn back after", quantity: "duration", value: Math.max(0, inside) },
        { key: "whistle_s", words: "Whistle after", quantity: "duration", value: whole },
        { key: "reserve_s", words: "After the whistle it lasts", quantity: "duration", value: onReserve },
      ],
      governs: "time_s",
      because:
        inside <= 0
          ? "The way out and what is to be done take all of it: nobody goes in on this set."
          : "The way out is taken off; the reserve is for what goes wrong.",
      formula: "t = V·(P − P_reserve)/P_outside/flow, less the way out",
      source: "what people breathe from memory: 40 L/min at moderate work, 60 at heavy; practice",
      validity: "Frightened or carrying somebody people breathe twice as much. The gauge is read, not the clock.",
      warnings: [
        ...(inputs.out_s > onReserve ? ["The way out is longer than the reserve lasts."] : []),
        ...(inside <= 0 ? ["Not enough."] : []),
      ],
      picture: bars("duration", [
        { words: "to the turn", value: Math.max(0, inside), governs: true },
        { words: "way out and rescue", value: inputs.out_s + inputs.rescue_s },
        { words: "after the whistle", value: onReserve },
      ]),
      also: { enough: inside > 0 },
    };
  },
});

export const peopleInSpace = calculator({
  name: "people-in-space",
  task: "Look after people",
  title: "How long a closed space keeps people",
  fields: {
    volume_m3: size("Volume", "volume", { max: 1e6, example: 10 }),
    people: number("People", "count", { min: 1, max: 500, whole: true, example: 2 }),
    work: choice("Their work", ["moderate", "heavy", "light", "at rest"]),
    oxygen: number("Oxygen at the start", "percent", { above: 0.195, max: 0.235, default: 0.209 }),
    co2: number("Carbon dioxide at the start", "percent", { min: 0, max: 0.01, default: 0.0005 }),
    co2_limit: number("Carbon dioxide, limit", "percent", { above: 0, max: 0.05, default: 0.005 }),
  },
  compute: (inputs): Calculation => {
    if (inputs.co2_limit <= inputs.co2) throw new NoFigure("co2_limit", "must be above what is there at the start");
    const flow = inputs.people * breathes_m3_s(inputs.work);
    const byOxygen = closedSpace_s({ volume_m3: inputs.volume_m3, flow_m3_s: flow, from: inputs.oxygen, to: 0.195 });
    const byCo2 = closedSpace_s({
      volume_m3: inputs.volume_m3,
      flow_m3_s: flow,
      from: inputs.co2,
      to: inputs.co2_limit,
    });
    const time = Math.min(byOxygen, byCo2);
    return {
      results: [
        { key: "time_s", words: "Until it is not fit", quantity: "duration", value: time },
        { key: "co2_s", words: "by carbon dioxide", quantity: "duration", value: byCo2 },
        { key: "oxygen_s", words: "by oxygen", quantity: "duration", value: byOxygen },
      ],
      governs: "time_s",
      because: byCo2 <= byOxygen ? "Carbon dioxide is there first, as it always nearly is." : "Oxygen is gone first.",
      formula: "t = ΔC·V/(people·uptake); as much carbon dioxide as oxygen",
      source: "uptake from memory of physiology tables: 0.3, 0.8, 1.5, 2.5 L/min",
      validity: "No air comes in, mixed, nothing else takes oxygen. Near a mouth it is worse.",
      warnings: ["No reason to do without ventilation: this says how soon its failing matters."],
      picture: curve({
        x: { words: "time", quantity: "duration" },
        y: { words: "carbon dioxide", quantity: "percent" },
        words: "builds up",
        points: sampled(0, time * 1.5, (t) => inputs.co2 + (flow * t) / inputs.volume_m3),
        lines: [{ y: inputs.co2_limit, words: "limit" }],
      }),
    };
  },
});

export const heatStress = calculator({
  name: "heat-stress",
  task: "Look after people",
  title: "How much work the heat allows",
  fields: {
    wbgt_C: number("Wet-bulb globe temperature", "temperature", { min: -20, max: 80, example: 27 }),
    work: choice("Work", ["moderate", "heavy", "very heavy", "light"]),
    clothing: choice("Clothing", Object.keys(CLOTHING) as [Clothing, ...Clothing[]]),
    used: choice("People used to the heat", ["no", "yes"]),
  },
  compute: ({ wbgt_C, work, clothing, used }): Calculation => {
    const felt = wbgt_C + CLOTHING[clothing];
    const fits = HEAT_SHARES.filter((share) => {
      const limit = heatLimit_C(work, share, used === "yes");
      return limit !== null && felt <= limit;
    });
    const share = fits[0];
    const quarter = HEAT_SHARES.length - (share === undefined ? HEAT_SHARES.length : HEAT_SHARES.indexOf(share));
    return {
      results: [
        { key: "work_share", words: "Work, of each hour, at most", quantity: "percent", value: quarter / 4 },
        { key: "felt_C", words: "With what the clothing adds", quantity: "temperature", value: felt },
      ],
      governs: "work_share",
      because:
        share === undefined
          ? "Too hot for this work without watching each person: cool it, or send others."
          : `Work ${share}, rest in the cool for what is left.`,
      formula: "the reading and what the clothing adds, against a table by work and share of the hour",
      source: "ACGIH screening values, from memory",
      validity: "Healthy people who drink. In a vessel the reading is taken inside, where they are.",
      warnings: [
        "Somebody outside counts the minutes. Who is confused, or stops sweating, is an emergency.",
        ...(work === "heavy" || work === "very heavy"
          ? ["Heavy work all the time is never allowed by this table."]
          : []),
      ],
      picture: bars(
        "temperature",
        HEAT_SHARES.flatMap((one) => {
          const limit = heatLimit_C(work, one, used === "yes");
          return limit === null ? [] : [{ words: one, value: limit, governs: one === share }];
        }),
        { value: felt, words: "here" },
      ),
      also: { share: share ?? "none" },
    };
  },
});
