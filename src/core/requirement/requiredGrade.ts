import type { How } from "../request/jobFile";
import type { Carrier } from "../plant/carriers";
import type { Contents } from "../plant/plant";
import { BARRIERS_FOR, familyOf, LADDERS, oneBetter, stricter, type Family, type Grade } from "./grades";
import type { RuleProfile, RuleRow } from "./profile";

/** How one energy meets people: what the rows of a profile are held against. */
export type Situation = Readonly<{
  how: readonly How[];
  supplied: Carrier;
  /** As what it arrives. */
  carrier: Carrier;
  /** It may come without changing its form: the contents themselves, the weight itself; not only a push. */
  direct: boolean;
  /** At the source, at the face and on the ways between; undefined where nobody wrote them down. The worst decides. */
  contents: readonly (Contents | undefined)[];
  /** At the face and on the ways to it; undefined when nobody wrote the face's down. */
  voltage_V: number | undefined;
  longerThanShift: boolean;
}>;

/** What a job asks of a way, and the row that decided it. */
export type Requirement = Readonly<{
  family: Family;
  /** Null under a job's own plain number of barriers. */
  grade: Grade | null;
  barriers: number;
  /** Counted over positive devices only. */
  positive: boolean;
  row: string;
  reason: string;
  source: string;
}>;

/** Where no row fits: the strictest of the family. */
const NO_ROW = { id: "no row fits", reason: "no row of the table fits, so the strictest applies", source: "practice" };

/**
 * The grade that a profile asks in a situation: every row that fits applies, the strictest wins, and rows that ask for
 * one better come last. Cost: linear in rows.
 */
export function requiredGrade(profile: RuleProfile, situation: Situation): Requirement {
  const family = familyOf(situation.carrier);
  const fitting = profile.rows.filter((row) => row.family === family && fits(profile, row, situation));
  let grade: Grade | null = null;
  let decided: Pick<RuleRow, "id" | "reason" | "source"> = NO_ROW;
  for (const row of fitting) {
    if (row.asks === "one better") continue;
    const strictest: Grade = grade === null ? row.asks : stricter(family, grade, row.asks);
    if (strictest !== grade) decided = row;
    grade = strictest;
  }
  grade ??= LADDERS[family][0];
  for (const row of fitting) {
    if (row.asks !== "one better") continue;
    const better = oneBetter(family, grade);
    if (better !== grade) decided = { ...row, reason: `${decided.reason}; ${row.reason}` };
    grade = better;
  }
  return {
    family,
    grade,
    ...BARRIERS_FOR[grade],
    row: decided.id,
    reason: decided.reason,
    source: decided.source,
  };
}

function fits(profile: RuleProfile, { when }: RuleRow, situation: Situation): boolean {
  const { how, supplied, carrier, contents, voltage_V, longerThanShift } = situation;
  // A fluid that only turns a pump elsewhere is a push like any other, and a weight that only drives a motor a voltage.
  const own = familyOf(supplied);
  const cameBack = own === familyOf(carrier) && !situation.direct;
  const suppliedFamily = !cameBack ? own : own === "flow" ? "motion" : own === "motion" ? "wire" : own;
  if (when.how && !when.how.some((one) => how.includes(one))) return false;
  if (when.supplied && !when.supplied.includes(supplied)) return false;
  if (when.suppliedFamily && !when.suppliedFamily.includes(suppliedFamily)) return false;
  if (when.arrives && !when.arrives.includes(carrier)) return false;
  // A voltage that nobody wrote down may be any.
  if (when.above_V !== undefined && voltage_V !== undefined && voltage_V <= when.above_V) return false;
  if (when.longerThanShift && !longerThanShift) return false;
  switch (when.contents) {
    case undefined:
      return true;
    case "harmless":
      return contents.every((one) => !isHarmful(profile, one));
    case "harmful":
      return contents.some((one) => isHarmful(profile, one));
    case "may burn or harm":
      return contents.some((one) => one === undefined || one.hazards.some((hazard) => hazard !== "corrosive"));
    case "high pressure and harmful":
      // A pressure that nobody wrote down makes the contents harmful, which asks for two barriers; not for blinds.
      return contents.some(
        (one) =>
          one?.pressure_Pa !== undefined && one.pressure_Pa > profile.positiveAbove_Pa && isHarmful(profile, one),
      );
  }
}

/** Contents that nobody has written down are taken as harmful; so are those without a temperature or a pressure. */
export function isHarmful(
  profile: Pick<RuleProfile, "hotAbove_C" | "highPressureAbove_Pa">,
  contents: Contents | undefined,
): boolean {
  if (contents === undefined) return true;
  return (
    contents.hazards.length > 0 ||
    contents.temperature_C === undefined ||
    contents.temperature_C > profile.hotAbove_C ||
    contents.pressure_Pa === undefined ||
    contents.pressure_Pa > profile.highPressureAbove_Pa ||
    contents.pressure_Pa < 0
  );
}
