import type { PlantInput } from "../../../src/core/plant/plantSchema";
import type { JobInput } from "../../../src/core/request/jobFile";
import type { seededRandom } from "../../support/seededRandom";

type Random = ReturnType<typeof seededRandom>;
export type TrickyCase = Readonly<{
  plant: PlantInput;
  job: JobInput;
  isolated: readonly string[];
  traps: ReadonlySet<string>;
}>;
type Item = PlantInput["items"][number];
type Link = PlantInput["links"][number];

/** Everything that has made a grade too good, each of them in a fair share of the plants. */
export const TRAPS = [
  "check valve",
  "filter",
  "pump driven from elsewhere",
  "parts",
  "one-way",
  "several sources",
  "several faces",
  "common cause",
  "blind",
  "no lock",
  "dead leg",
  "drain behind a valve",
  "body bleed",
  "temporary line",
  "height of a bleed",
  "undescribed valve",
  "bleed at a device",
  "second way",
  "regenerating",
  "switch",
  "no credit",
  "flange too weak",
  "limited pressure",
] as const;

/** A plant of up to 12 devices around one or two places of work, with traps; and a set of devices that somebody isolated. */
export function trickyPlant(random: Random): TrickyCase {
  const items: Item[] = [];
  const links: Link[] = [];
  const traps = new Set<string>();
  let made = 0;
  const trap = (name: (typeof TRAPS)[number], chance: number) => {
    if (!random.chance(chance)) return false;
    traps.add(name);
    return true;
  };
  const add = (prefix: string, item: Partial<Item> & { kind: string }) => {
    const tag = `${prefix}${++made}`;
    items.push({ tag, ...item });
    return tag;
  };
  const link = (from: string, to: string, carries: Link["carries"] = "fluid", rest: Partial<Link> = {}) =>
    links.push({ from, to, carries, ...rest });
  const places: string[] = [];
  const valves: string[] = [];
  let devices = 0;
  /** Some source brings more than a weak flange bears. */
  let isStrong = false;

  const valve = (): string => {
    devices++;
    const positive = trap("blind", 0.12);
    const noLock = !positive && trap("no lock", 0.08);
    const noCredit = trap("no credit", 0.05);
    const cause = trap("common cause", 0.08) ? "one actuator supply" : undefined;
    const kind = positive ? "blind" : "valve";
    const isWeak = isStrong && trap("flange too weak", 0.1);
    const tag = add("V", {
      kind,
      device: {
        stops: ["fluid"],
        credit: !noCredit,
        positive,
        lockable: !noLock,
        effort: 1 + random.below(8),
        stands: "passing",
        ...(cause === undefined ? {} : { commonCause: cause }),
        ...(isWeak ? { flangeClass: "PN 10" } : {}),
      },
    });
    if (!positive && trap("body bleed", 0.06)) {
      const bleed = add("BB", { kind: "bleed", bleed: { safe: true } });
      link(tag, bleed, "fluid", { normal: "none" });
      items.find((item) => item.tag === tag)!.device!.bodyBleed = bleed;
    }
    valves.push(tag);
    return tag;
  };
  const bleedAt = (place: string) => {
    const level = trap("height of a bleed", 0.12) ? { level_m: random.below(5) } : {};
    const bleed = add("BL", { kind: "bleed", bleed: { safe: !random.chance(0.06) }, ...level });
    if (devices < 12 && trap("drain behind a valve", 0.15)) {
      const before = valve();
      link(place, before, "fluid", { normal: "none" });
      link(before, bleed, "fluid", { normal: "none" });
    } else if (trap("temporary line", 0.06)) {
      link(place, bleed, "fluid", { temporary: { from: "2026-11-01", until: "2026-12-01" } });
    } else link(place, bleed, "fluid", { normal: "none", oneWay: trap("one-way", 0.05) });
    if (valves.length > 0 && trap("bleed at a device", 0.06)) link(random.pick(valves), bleed);
  };
  /** Something in the line. */
  const middle = (): string => {
    const level = random.chance(0.15) ? { level_m: random.below(5) } : {};
    const phase = random.chance(0.2)
      ? { contents: { fluid: "oil", phase: random.pick(["liquid", "gas"] as const) } }
      : {};
    if (trap("check valve", 0.1)) {
      return add("NR", {
        kind: "check valve",
        device: { stops: ["fluid"], credit: false, lockable: random.chance(0.5), effort: 1 },
      });
    }
    if (trap("filter", 0.08)) return add("FL", { kind: "filter" });
    if (trap("undescribed valve", 0.05)) return add("X", { kind: "valve" });
    if (random.chance(0.16)) {
      const pump = add("P", { kind: "pump" });
      if (trap("pump driven from elsewhere", 0.7)) drive(pump);
      return pump;
    }
    const limit = isStrong && trap("limited pressure", 0.2) ? { limit_Pa: random.pick([8e5, 12e5]) } : {};
    return add("SP", { kind: "pipe", ...level, ...phase, ...limit });
  };
  const drive = (pump: string) => {
    const net = add("NET", { kind: "incomer", source: [{ carrier: "power" }] });
    const motor = add("M", { kind: "motor" });
    link(motor, pump, "shaft");
    if (devices >= 12) return void link(net, motor, "power");
    devices++;
    const isSwitch = trap("switch", 0.5);
    const breaker = add("Q", {
      kind: isSwitch ? "load switch" : "breaker",
      device: {
        stops: ["power"],
        credit: true,
        positive: random.chance(0.2),
        lockable: random.chance(0.85),
        effort: 2,
      },
    });
    valves.push(breaker);
    link(net, breaker, "power");
    link(breaker, motor, "power");
  };

  const source = (): string => {
    const regenerating = trap("regenerating", 0.08);
    const pressure_Pa = random.pick([0, 6e5, 30e5, 30e5]);
    if (pressure_Pa === 30e5) isStrong = true;
    return add("S", {
      kind: "header",
      ...(pressure_Pa === 0 ? {} : { contents: { fluid: "oil", pressure_Pa } }),
      source: [{ carrier: "fluid", ...(regenerating ? { feeding: false, regenerating: true } : {}) }],
    });
  };
  const face = (): string => {
    if (trap("parts", 0.12)) {
      const tag = add("E", { kind: "exchanger", parts: ["shell", "tube"] });
      return tag;
    }
    return add("F", { kind: random.chance(0.15) ? "pump" : "vessel" });
  };
  const at = (place: string) => {
    const item = items.find(({ tag }) => tag === place);
    return (item?.parts?.length ?? 0) > 0 ? `${place}.${random.pick(item!.parts!)}` : place;
  };

  const faces = [face()];
  if (trap("several faces", 0.25)) faces.push(face());
  const sources = [source()];
  if (trap("several sources", 0.4)) sources.push(source());
  // Lines from sources to faces: devices and places as they come.
  const lines = sources.length + (trap("second way", 0.4) ? 1 : 0) + (faces.length > 1 ? 1 : 0);
  for (let n = 0; n < lines; n++) {
    const from = n < sources.length ? sources[n]! : random.pick([...sources, ...places, ...sources]);
    const to = at(
      n < faces.length && n > 0
        ? faces[n]!
        : random.pick([...faces, ...faces, ...(places.length > 0 ? places : faces)]),
    );
    if (from === to) continue;
    let last = from;
    const length = 2 + random.below(4);
    for (let i = 0; i < length; i++) {
      const isValve = devices < 12 && random.chance(0.6);
      const next = isValve ? valve() : middle();
      if (!isValve) places.push(next);
      link(last, next, "fluid", { oneWay: trap("one-way", 0.04) });
      last = next;
    }
    link(last, to, "fluid", { oneWay: trap("one-way", 0.04) });
  }
  if (places.length > 1 && random.chance(0.25)) {
    const [a, b] = [random.pick(places), random.pick([...places, ...faces.map(at)])];
    if (a !== b) {
      const valveOn = devices < 12 && random.chance(0.6) ? valve() : null;
      if (valveOn === null) link(a, b, "fluid", { oneWay: trap("one-way", 0.2) });
      else {
        link(a, valveOn);
        link(valveOn, b);
      }
    }
  }
  for (const place of [...places, ...places, ...faces.map(at), ...faces.map(at)]) {
    if (random.chance(0.33) && !place.startsWith("NR")) bleedAt(place);
  }
  for (const place of [...places, ...faces.map(at)]) {
    if (!trap("dead leg", 0.1)) continue;
    let last = place;
    for (let i = 0; i <= random.below(3); i++) {
      const next = middle();
      link(last, next, "fluid", { oneWay: trap("one-way", 0.04) });
      last = next;
    }
  }
  const shuffledItems = shuffled(items, random);
  const all = valves.filter(() => random.chance(0.65));
  return {
    plant: {
      format: "heavy-lantern/plant",
      version: 1,
      items: shuffledItems,
      links: shuffled(links, random),
    },
    job: {
      format: "heavy-lantern/job",
      version: 1,
      faces: [...new Set(faces)].map((place) => ({
        place,
        how: [random.pick(["open", "enter", "hot", "touch"] as const)],
      })),
    },
    isolated: all,
    traps,
  };
}

export function shuffled<T>(all: readonly T[], random: Random): T[] {
  const out = [...all];
  for (let i = out.length - 1; i > 0; i--) {
    const j = random.below(i + 1);
    [out[i], out[j]] = [out[j]!, out[i]!];
  }
  return out;
}
