import type { Job } from "../request/jobFile";
import type { Carrier } from "../plant/carriers";
import type { StateGraph } from "../trace/stateGraph";
import { isHighVoltage } from "./highVoltage";
import { familyOf } from "../requirement/grades";
import { profileOf } from "../requirement/profiles";
import { isHarmful } from "../requirement/requiredGrade";
import type { StandIn } from "../plan/deviations";
import type { Plan, Point } from "../plan/plan";
import { LOSS_KINDS } from "../losses/alsoStops";
import { LOSS_CLAUSES } from "../words/en/losses";
import { bleedsAt, entrancesByPower, facesToEarth, facesWhere, openedLines } from "./whichFaces";
import { facesToBarOff, facesToPosition } from "./aroundWork";
import { addProofs } from "./proofSteps";
import { addRestoreSteps } from "./restoreSteps";
import { coolAndDrain, emptyAndClean, vesselWork } from "./emptying";
import { howToTry } from "./tryStart";
import { releaseKind, releaseWords, storedToRelease, type ReleaseKind } from "./storedSteps";
import {
  competenceFor,
  driveFirst,
  itemTagOf,
  stepList,
  type PlannedStep,
  type StepKind,
  type StepList,
} from "./steps";

/**
 * The steps of an isolation and of its return, in an order that may be walked.
 *
 * Tell; stop by the normal controls, and wait until what turns stands; turn to where it is entered; bar off; restrain what can fall before the pressure that
 * holds it is let go; isolate drives before their process lines; cool hot contents, empty vessels, bleed, fit blinds, make stored energy
 * harmless; clean and certify vessels; where people enter, inert what burns before air comes, and purge; prove every face dead by every carrier that could have
 * come; only then discharge capacitors and apply earths; test the air, try to start, close the box. Common practice.
 *
 * Cost: linear in the plan.
 */
export function stepsOf(
  plan: Plan,
  graph: StateGraph,
  faces: Job["faces"] = [],
  standIns: readonly StandIn[] = [],
): PlannedStep[] {
  const list = stepList(plan, graph);
  const { named, plateOf, add } = list;
  const all = list.faces.join(", ");
  const tell = add({
    phase: "isolate",
    kind: "tell",
    subject: all,
    words: `Tell the operator and everyone who depends on ${all} that it goes out of service.`,
    competence: null,
    after: [],
  });
  const stop = add({
    phase: "isolate",
    kind: "stop",
    subject: all,
    words: `Run out and stop ${all} by the normal controls. Leave the controls off.`,
    competence: null,
    after: [tell],
  });
  const positioned = facesToPosition(list, faces).map((face) =>
    add({
      phase: "isolate",
      kind: "position",
      subject: face,
      words: `Turn ${named(face)} slowly until its hatch can be reached: one person at the controls, one who sees it, nobody else near. Hold it there.`,
      competence: "mechanical",
      after: [stop],
    }),
  );
  const losses = lossesInWords(plan);
  // Whoever runs the plant takes it without these before anything is shut.
  const begun =
    losses.length === 0
      ? [stop, ...positioned]
      : [
          stop,
          ...positioned,
          add({
            phase: "isolate",
            kind: "accept losses",
            subject: all,
            words: `With these points also: ${losses.join("; ")}. See to each, tell whom it concerns, and sign that the plant can do without.`,
            competence: null,
            role: "operator",
            after: [tell],
          }),
        ];

  const earthed = facesToEarth(list, faces);
  const barred = facesToBarOff(list, faces, earthed);
  const barriers =
    barred.length === 0
      ? []
      : [
          add({
            phase: "isolate",
            kind: "bar off",
            subject: barred.join(", "),
            words: `Bar off round ${barred.join(", ")}, with a sign on every side that people come from: what is done here, and whom to ask.`,
            competence: null,
            after: [tell],
          }),
        ];
  const stored = storedToRelease(plan, graph);
  const releases = (kind: ReleaseKind, after: readonly string[], of: (source: string) => boolean = () => true) =>
    stored
      .filter((row) => releaseKind(row.form) === kind && of(row.row.source))
      .map(({ row }) =>
        add({
          phase: "isolate",
          kind,
          subject: row.source,
          words: releaseWords(kind, named(row.source), row.harmless),
          competence: kind === "run down" ? null : kind === "cool" ? "process" : competenceFor([row.carrier]),
          after,
        }),
      );
  const restrained = releases("restrain", [stop]);
  const runDowns = releases("run down", [stop]);

  const points = [...plan.points].sort(
    (a, b) =>
      a.stage - b.stage ||
      driveFirst(a.stops) - driveFirst(b.stops) ||
      a.layer - b.layer ||
      (a.device < b.device ? -1 : 1),
  );
  const valves = points.filter((point) => point.stage === 1);
  const fitted = points.filter((point) => point.stage === 2);
  const drives: string[] = [];
  const locks: string[] = [];
  for (const point of valves) {
    const isDrive = driveFirst(point.stops) === 0;
    const id = add({
      phase: "isolate",
      kind: "lock",
      subject: point.device,
      plate: plateOf(point.device),
      words: `${isDrive ? "Open" : "Shut"} ${named(point.device)}, and at once ${point.lockable ? "lock and tag it" : "tag it: it takes no lock, so do something more"}.`,
      competence: competenceFor(point.stops),
      after: isDrive ? begun : [...begun, ...drives],
    });
    (isDrive ? drives : locks).push(verified(list, point, id));
  }
  const beforeBlinds = [...drives, ...locks];

  const beforeBleeds = [...(beforeBlinds.length > 0 ? beforeBlinds : begun), ...restrained, ...barriers];
  const vessels = vesselWork(plan, graph, faces);
  const ofVessel = (source: string) => vessels.some(({ face }) => face === source);
  const bodies = releases("cool", beforeBleeds, ofVessel);
  // A drain behind a valve drains only while that valve stands open, and nobody can shut it.
  const drainValves = plan.opens.map((tag) =>
    add({
      phase: "isolate",
      kind: "bleed",
      subject: tag,
      plate: plateOf(tag),
      words: `Open ${named(tag)}, the valve before the bleed, and lock it open.`,
      competence: "process",
      after: beforeBleeds,
    }),
  );
  const letOut = coolAndDrain(list, vessels, beforeBleeds, drainValves);
  const shown = bleedsAt(graph, list.faceTags).filter((tag) => !plan.unusable.includes(tag));
  const bleeds = [...new Set([...plan.bleeds, ...shown])].sort().map((tag) => ({
    tag,
    id: add({
      phase: "isolate",
      kind: "bleed",
      subject: tag,
      plate: plateOf(tag),
      words: `Open ${named(tag)} to a safe place, rod it clear, lock it open and watch until nothing comes.`,
      competence: "process",
      after: [...beforeBleeds, ...drainValves, ...letOut.before(tag)],
    }),
  }));
  const bled = [...drainValves, ...bleeds.map(({ id }) => id)];
  // A blind is fitted only where the line behind the valves was bled.
  const blinds = fitted.map((point) => {
    const id = add({
      phase: "isolate",
      kind: "lock",
      subject: point.device,
      plate: plateOf(point.device),
      words: `Fit ${named(point.device)}: first flange opened as if full, standing aside. Lock and tag it.`,
      competence: "mechanical",
      after: [...begun, ...beforeBlinds, ...bled, ...barriers],
    });
    return verified(list, point, id);
  });
  const allLocks = [...beforeBlinds, ...blinds];
  const calm = [...allLocks, ...bled, ...restrained, ...barriers];
  // What was accepted instead of barriers is work like any other, done before anybody proves or relies on them.
  const stoodIn = standIns.map((one) =>
    add({
      phase: "isolate",
      kind: "stand in",
      subject: standInName(one),
      words: `${standsFor(one)}: ${one.words.charAt(0).toLowerCase()}${one.words.slice(1)}.`,
      competence: null,
      after: calm,
    }),
  );
  const released = [...releases("release", calm), ...runDowns];
  const elsewhere = releases("cool", [...allLocks, ...bled], (source) => !ofVessel(source));
  const cooled = [...bodies, ...letOut.cooled, ...elsewhere];
  const clear = [
    ...letOut.emptied,
    ...emptyAndClean(list, vessels, [...calm, ...stoodIn, ...cooled, ...released, ...letOut.emptied]),
  ];
  const air = airSteps(list, faces, [...allLocks, ...bled, ...cooled, ...clear]);

  const opened = new Set(facesWhere(faces, ["open", "enter"]));
  const proofs = addProofs(list, opened, (carrier) => [
    ...calm,
    ...stoodIn,
    ...released,
    ...(carrier === "heat" ? cooled : []),
    ...(familyOf(carrier) === "flow" ? clear : []),
  ]);
  const proofsOf = (carriers: readonly Carrier[]) =>
    proofs.filter((id) => carriers.includes(list.steps.find((step) => step.id === id)!.carrier!));
  const provedDead = proofsOf(["power", "control"]);
  const discharged = releases("discharge", provedDead.length > 0 ? provedDead : calm);
  const earths = earthed.map((face) =>
    add({
      phase: "isolate",
      kind: "earth",
      subject: face,
      words: `Apply earths at ${face}, earth end first, on every conductor, one set at every way in: work between earths.`,
      competence: "electrical",
      after: [...provedDead, ...discharged],
      entrances: entrancesByPower(plan, face),
    }),
  );
  const ready = [...proofs, ...released, ...cooled, ...clear, ...discharged, ...earths, ...air];
  const tested = facesWhere(faces, ["enter", "hot"]).map((face) =>
    add({
      phase: "isolate",
      kind: "test air",
      subject: face,
      words: `Test the air of ${face} from outside at every test point: oxygen, then flammable, then toxic. Wait for the hose each time.`,
      competence: null,
      after: ready,
    }),
  );
  const trying = howToTry(list, proofsOf(["control"]).length > 0);
  const tried = add({
    phase: "isolate",
    kind: "try start",
    subject: all,
    words: trying.words,
    competence: null,
    // With nothing to lock or prove it still waits for whoever was told.
    after: [...begun, ...calm, ...stoodIn, ...ready, ...tested],
    ways: trying.ways,
  });
  add({
    phase: "isolate",
    kind: "close box",
    subject: "lock box",
    words: "Put every key of the isolation locks into the box, close and lock it.",
    competence: null,
    after: [tried],
  });
  addRestoreSteps(list, {
    valves,
    blinds: fitted,
    bleeds: bleeds.map(({ tag }) => tag),
    drainValves: plan.opens,
    earthed,
    restrained: stored.filter(({ form }) => RESTRAINED.has(releaseKind(form))).map(({ row }) => row.source),
    shorted: stored.filter(({ form }) => releaseKind(form) === "discharge").map(({ row }) => row.source),
    opened: openedLines(plan, faces),
    standIns: standIns.map(standInName),
    barred,
  });
  return [...list.steps];
}

function standsFor({ sources, face }: StandIn): string {
  const others = sources.filter((source) => source !== face);
  return others.length === 0
    ? `No way is known by which ${face} surely drains`
    : `Instead of what is not there between ${others.join(", ")} and ${face}`;
}

const standInName = ({ measure, face }: StandIn) => `${measure}, ${face}`;

/** What else stops, a clause for each kind of loss; what is itself the work is meant to. */
function lossesInWords({ goesDark, alsoStops }: Plan): string[] {
  const dark = goesDark.filter(({ isWork }) => !isWork).map(({ tag }) => tag);
  const byKind = LOSS_KINDS.map((kind) => [kind, alsoStops.filter((row) => row.kind === kind)] as const);
  return [
    ...(dark.length > 0 ? [`fed no more: ${dark.join(", ")}`] : []),
    ...byKind.flatMap(([kind, rows]) =>
      rows.length > 0 ? [`${LOSS_CLAUSES[kind]}: ${rows.map(({ tag }) => tag).join(", ")}`] : [],
    ),
  ];
}

/** What stays in place until the return: pins, blocks, chocks. */
const RESTRAINED: ReadonlySet<StepKind> = new Set<StepKind>(["restrain", "run down"]);

/** The step that makes a point count: its lock, or where the rules ask for two people, the second one's look at it. */
function verified(list: StepList, point: Point, lock: string): string {
  if (!needsVerifying(list, point)) return lock;
  const { named, plateOf, add } = list;
  return add({
    phase: "isolate",
    kind: "verify",
    subject: point.device,
    plate: plateOf(point.device),
    words: `Somebody else looks at ${named(point.device)}: right device, right position, lock and tag on it and it does not move.`,
    competence: competenceFor(point.stops),
    after: [lock],
    secondPerson: true,
  });
}

/** Harmful contents or high voltage stand behind it, or nobody wrote down what does. */
function needsVerifying({ plan, graph, item }: StepList, point: Point): boolean {
  const profile = profileOf(plan.profile);
  if (profile.verified !== "harmful and high voltage") return profile.verified === "every point";
  const { voltage_V } = item(point.device);
  if (point.stops.includes("power") && isHighVoltage(voltage_V, ["power"])) return true;
  if (!point.stops.some((carrier) => familyOf(carrier) === "flow")) return false;
  const behind = [...point.holds, ...plan.routes.filter((route) => route.via.includes(point.device))].filter(
    (way) => familyOf(way.carrier) === "flow",
  );
  return behind.length === 0 || behind.some((way) => isHarmful(profile, item(itemTagOf(graph, way.source)).contents));
}

/** Making the air fit where people enter: what burns is swept out with inert gas before air is let in. */
function airSteps({ add, graph, item }: StepList, faces: Job["faces"], after: readonly string[]): string[] {
  return facesWhere(faces, ["enter"]).flatMap((face) => {
    const { contents } = item(itemTagOf(graph, face));
    const burns =
      contents === undefined || contents.hazards.some((one) => one === "flammable" || one === "self-heating");
    const step = (kind: "inert" | "purge", words: string, before: readonly string[]) =>
      add({ phase: "isolate", kind, subject: face, words, competence: "process", after: before });
    const inert = burns
      ? [step("inert", `Sweep ${face} with inert gas until it can no longer burn. Nobody near its openings.`, after)]
      : [];
    return [
      ...inert,
      step("purge", `Purge ${face} with air by the blower, exhaust to a safe place, and keep it running.`, [
        ...after,
        ...inert,
      ]),
    ];
  });
}
