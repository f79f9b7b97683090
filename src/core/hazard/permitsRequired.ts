import type { PermitKind } from "../permit/kinds/kinds";
import type { HazardFacts } from "./proposals";

/** A permit that this job needs, and the rule that asks for it. */
export type PermitRequired = Readonly<{ kind: PermitKind; because: string; rule: string }>;

/**
 * The permits required by how people meet the faces, what is in them and what tools come along. Where nothing asks for a
 * kind of its own, a general permit. Contents or a voltage that nobody wrote down ask as the worse.
 */
export function permitsRequired(facts: HazardFacts): PermitRequired[] {
  const { faces, arriving, conditions, profile } = facts;
  const required: PermitRequired[] = [];
  const add = (kind: PermitKind, found: readonly string[], rule: string) => {
    if (found.length > 0) required.push({ kind, because: [...new Set(found)].join(", "), rule });
  };
  const how = (one: (typeof faces)[number]["how"][number]) => faces.filter((face) => face.how.includes(one));
  const tools = (pattern: RegExp) => (conditions?.tools ?? []).filter((tool) => pattern.test(tool));

  add(
    "confined space entry",
    how("enter").map(({ place }) => place),
    "29 CFR 1910.146(c): a space that people enter with the body, from memory",
  );
  add(
    "hot work",
    [...how("hot").map(({ place }) => place), ...tools(/weld|grind|cut|torch|flame|solder|hot air/i)],
    "29 CFR 1910.252(a): flame, sparks or heat, from memory",
  );
  const carried = new Set(
    arriving.filter(({ carrier }) => ["fluid", "hydraulic", "pneumatic"].includes(carrier)).map(({ face }) => face),
  );
  add(
    "line break",
    how("open")
      .filter(({ place, item }) => item?.contents !== undefined || carried.has(place))
      .map(({ place }) => place),
    "practice: what has held liquid or gas is opened as if it still did",
  );
  const live = new Set(
    arriving.filter(({ carrier }) => carrier === "power" || carrier === "control").map(({ face }) => face),
  );
  add(
    "electrical work",
    faces
      .filter(
        ({ how, place, item }) =>
          (how.includes("touch") || how.includes("open")) && isElectrical(item?.kind) && live.has(place),
      )
      .map(({ place }) => place),
    "29 CFR 1910.333: work on or near conductors, from memory",
  );
  add(
    "work at height",
    [
      ...faces
        .filter(
          ({ item, area }) =>
            item?.level_m !== undefined && area !== null && item.level_m - area.level_m >= profile.fallAbove_m,
        )
        .map(({ place }) => place),
      ...tools(/ladder|scaffold|rope|platform/i),
    ],
    `profile: from ${profile.fallAbove_m} m on people are held against falling`,
  );
  add("pressure test", tools(/pressure test|hydrotest|test pump/i), "practice: people keep away from what is tested");
  add("safeguard bypass", tools(/bypass|override|jumper|defeat/i), "practice: who defeats a safeguard answers for it");
  if (required.length === 0) {
    required.push({ kind: "general", because: "nothing asks for a kind of its own", rule: "practice" });
  }
  return required;
}

function isElectrical(kind: string | undefined): boolean {
  return /starter|cubicle|motor|panel|switch|isolator|breaker|transformer|busbar|cable|heater|terminal|intake/i.test(
    kind ?? "starter",
  );
}
