import type { PermitRequired } from "../hazard/permitsRequired";
import type { Competence, PersonId, Role } from "../people/roles";
import type { Plan } from "../plan/plan";
import type { Carrier } from "../plant/carriers";
import { isVessel } from "../plant/kinds";
import type { Item } from "../plant/plant";
import type { PlannedStep, StepKind } from "../procedure/steps";
import { MINOR_CONDITIONS, type MinorCondition, type MinorFault } from "../refusal/minorFault";
import type { Job } from "../request/jobFile";
import { profileOf } from "../requirement/profiles";
import { isHarmful } from "../requirement/requiredGrade";

/** Above it nobody works by the short route: 1 kV AC, IEC 60038. */
export const MOST_MINOR_V = 1000;

/** What may reach the work of a minor isolation: what one switch stops and what turns by it. Nothing that flows, falls or is hot. */
const MINOR_CARRIERS: ReadonlySet<Carrier> = new Set<Carrier>(["power", "control", "shaft"]);

/** All that is done for it. A plan that wants any other step is more than one lock, one proof and one try. */
const MINOR_STEPS: ReadonlySet<StepKind> = new Set<StepKind>([
  "tell",
  "stop",
  "lock",
  "prove",
  "try start",
  "close box",
  // What it takes from others stands against it by itself; what is left is the machine's own motor.
  "accept losses",
]);

/** Steps that a plan has where energy stays behind its points. */
const STORED: ReadonlySet<StepKind> = new Set<StepKind>([
  "restrain",
  "run down",
  "bleed",
  "release",
  "cool",
  "empty",
  "discharge",
]);

export type MinorFacts = Readonly<{
  plan: Plan;
  faces: Job["faces"];
  longerThanShift: boolean;
  /** The steps of the plan as they would be without the short route. */
  steps: readonly PlannedStep[];
  /** What the register has of a place, a part's item for a part; undefined where it has nothing. */
  itemOf: (place: string) => Item | undefined;
  /** The permits that the job requires by its hazards; null where there is no register to ask. */
  required: readonly PermitRequired[] | null;
  crew: readonly PersonId[];
  /** Who would work alone under it. */
  holder: Readonly<{ id: PersonId; roles: readonly Role[]; competences: readonly Competence[] }>;
  nameOf: (person: PersonId) => string;
  /** Isolations of others whose locks hang on its point. */
  heldByOthers: (point: string) => readonly string[];
  /** Isolations here at which a proof or a try once failed: it moved, or was not dead. */
  failedBefore: readonly string[];
  /** A shift ends inside the job's window. */
  shiftChanges: readonly string[];
}>;

/**
 * Why a plan is no minor isolation; empty where it is one, as far as the program knows. Whether it makes no hazard for others
 * and whether the machine ever had an accident of this kind, somebody who answers for the site says besides. What is not
 * known counts against it.
 *
 * Every path of every source crosses the one point: its depth is 1 with that point alone. Cost: linear in plan and steps.
 */
export function minorFaults(facts: MinorFacts): MinorFault[] {
  return MINOR_CONDITIONS.flatMap((condition) => {
    const evidence = AGAINST[condition](facts);
    return evidence.length === 0 ? [] : [{ condition, evidence: [...new Set(evidence)] }];
  });
}

const AGAINST: Readonly<Record<MinorCondition, (facts: MinorFacts) => readonly string[]>> = {
  // What the point cuts off too is no concern; what is let out, held or waited for behind it is.
  "no stored energy": ({ plan, steps }) => [
    ...steps.filter(({ kind }) => STORED.has(kind)).map(({ kind, subject }) => `${kind} ${subject}`),
    ...plan.darkZone.trapped.map(({ place }) => place),
  ],
  "one source": ({ plan: { points, routes } }) =>
    points.length === 1 && routes.length > 0
      ? []
      : points.length > 1
        ? points.map(({ device }) => device)
        : ["no point is locked"],
  "cut off by it": ({ plan }) => [
    ...plan.unlinked,
    ...plan.shortfalls.map(({ source, face }) => `${source} to ${face}`),
    ...plan.routes.filter(({ depth }) => depth < 1).map(({ source, face }) => `${source} to ${face}`),
    ...(plan.held ? [] : ["the plan does not hold"]),
  ],
  "locked out": ({ plan }) => plan.points.filter(({ lockable }) => !lockable).map(({ device }) => device),
  "one lock": ({ plan, steps }) => [
    ...plan.blinds.map(({ device }) => device),
    ...(steps.filter(({ kind }) => kind === "lock").length > 1 ? ["more than one lock"] : []),
  ],
  "own control": ({ crew, holder, steps, nameOf }) => [
    ...crew.filter((one) => one !== holder.id).map(nameOf),
    ...(holder.roles.includes("isolator") ? [] : [`${nameOf(holder.id)} is no isolator`]),
    ...steps
      .flatMap(({ competence }) => competence ?? [])
      .filter((needs) => !holder.competences.includes(needs))
      .map((needs) => `${nameOf(holder.id)} is not found competent: ${needs}`),
  ],
  "no hazard to others": ({ plan }) => {
    const machine = new Set(behindThePoint(plan));
    const others = plan.goesDark.filter(({ tag, isWork }) => !isWork && !machine.has(tag));
    return [...others, ...plan.alsoStops].map(({ tag }) => tag);
  },
  "no accident": ({ failedBefore }) => failedBefore,
  "kind of energy": ({ plan, faces, itemOf }) => {
    const profile = profileOf(plan.profile);
    const holds = faces.flatMap(({ place }) => {
      const item = itemOf(place);
      const isEmpty = item !== undefined && item.contents === undefined && !isVessel(item.kind);
      return isEmpty || (item?.contents !== undefined && !isHarmful(profile, item.contents)) ? [] : [place];
    });
    const arrives = plan.routes
      .filter(({ arrives }) => !MINOR_CARRIERS.has(arrives))
      .map(({ source, arrives }) => `${source} as ${arrives}`);
    return [...holds, ...arrives];
  },
  "low voltage": ({ plan, faces, itemOf }) => {
    const places = [
      ...plan.points.map(({ device }) => device),
      ...faces.map(({ place }) => place),
      ...behindThePoint(plan),
    ];
    const isHigh = (place: string) => (itemOf(place)?.voltage_V ?? 0) > MOST_MINOR_V;
    const unknown = plan.points
      .filter(({ device }) => itemOf(device)?.voltage_V === undefined)
      .map(({ device }) => `${device}, voltage not known`);
    return [...places.filter(isHigh), ...unknown];
  },
  "kind of work": ({ faces }) =>
    faces.flatMap(({ place, how }) =>
      how.filter((one) => one === "enter" || one === "hot").map((one) => `${place}, ${one}`),
    ),
  "no permit of a kind": ({ required }) =>
    required === null
      ? ["no register says which are required"]
      : required.filter(({ kind }) => kind !== "general").map(({ kind, because }) => `${kind} (${because})`),
  "no other step": ({ steps }) =>
    steps
      .filter(({ phase, kind, secondPerson }) => phase === "isolate" && (secondPerson || !MINOR_STEPS.has(kind)))
      .map(({ kind, subject, secondPerson }) => `${kind} ${subject}${secondPerson ? ", by a second person" : ""}`),
  "one shift": ({ longerThanShift, shiftChanges }) =>
    longerThanShift ? ["longer than a shift"] : shiftChanges.map((at) => `shift change at ${at}`),
  "not shared": ({ plan, heldByOthers }) =>
    plan.points.flatMap(({ device }) => heldByOthers(device).map((by) => `${device}, held by ${by}`)),
};

/** What stands between the point and the work: the machine that is switched off. */
function behindThePoint({ points, routes }: Plan): string[] {
  const isPoint = (place: string) => points.some(({ device }) => device === place);
  return routes.flatMap(({ via }) => via.slice(Math.max(0, via.findIndex(isPoint))));
}
