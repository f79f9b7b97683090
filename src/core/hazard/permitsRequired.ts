import { cited } from "../requirement/cited";
import type { PermitKind } from "../permit/kinds/kinds";
import { isWorkAtHeight } from "./fallHeight";
import type { HazardFacts } from "./proposals";

/** A permit that this job needs, and the rule that asks for it. */
export type PermitRequired = Readonly<{
  kind: PermitKind;
  because: string;
  rule: string;
  /** The work locations that ask for it; null where something else does, as a tool, and it may be any of them. */
  places: readonly string[] | null;
}>;

/**
 * The permits required by how people meet the faces, what is in them and what tools come along. Where nothing asks for a
 * kind of its own, a general permit. Contents or a voltage that nobody wrote down ask as the worse.
 */
export function permitsRequired(facts: HazardFacts): PermitRequired[] {
  const { faces, arriving, conditions, profile } = facts;
  const required: PermitRequired[] = [];
  const add = (kind: PermitKind, places: readonly string[], rule: string, brought: readonly string[] = []) => {
    const found = [...new Set([...places, ...brought])];
    if (found.length === 0) return;
    required.push({ kind, because: found.join(", "), rule, places: brought.length > 0 ? null : [...new Set(places)] });
  };
  const how = (one: (typeof faces)[number]["how"][number]) => faces.filter((face) => face.how.includes(one));
  const tools = (pattern: RegExp) => (conditions?.tools ?? []).filter((tool) => pattern.test(tool));

  add(
    "confined space entry",
    how("enter").map(({ place }) => place),
    `${cited(profile, "confined spaces", "(c)")}: a space that people enter with the body`,
  );
  add(
    "hot work",
    how("hot").map(({ place }) => place),
    `${cited(profile, "hot work")}: flame, sparks or heat`,
    tools(/weld|grind|cut|torch|flame|solder|hot air/i),
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
    `${cited(profile, "electrical work")}: work on or near conductors`,
  );
  add(
    "work at height",
    faces
      .filter(
        ({ item, area }) =>
          item?.level_m !== undefined &&
          area !== null &&
          isWorkAtHeight(item.level_m - area.level_m, profile.fallAbove_m),
      )
      .map(({ place }) => place),
    `profile: from ${profile.fallAbove_m} m on people are held against falling`,
    tools(/ladder|scaffold|rope|platform/i),
  );
  add(
    "pressure test",
    [],
    "practice: people keep away from what is tested",
    tools(/pressure test|hydrotest|test pump/i),
  );
  add(
    "safeguard bypass",
    [],
    "practice: who defeats a safeguard answers for it",
    tools(/bypass|override|jumper|defeat/i),
  );
  if (required.length === 0) {
    const because = "nothing asks for a kind of its own";
    required.push({ kind: "general", because, rule: "practice", places: null });
  }
  return required;
}

function isElectrical(kind: string | undefined): boolean {
  return /starter|cubicle|motor|panel|switch|isolator|breaker|transformer|busbar|cable|heater|terminal|intake/i.test(
    kind ?? "starter",
  );
}
