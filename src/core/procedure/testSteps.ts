import type { PlannedStep, StepKind } from "./steps";

/**
 * The steps of a temporary de-isolation: box opened, tools and people clear, what stands in the way taken off, the points
 * lifted, the test; then stopped and isolated again by the same steps as before, verified, and every face they held
 * proved afresh. Written from the steps of the isolation itself, so that neither is easier than the first time.
 *
 * Earths and shorts come off when a drive is lifted, bleeds are shut when a flow is let in, pins come out when anything
 * is; all go back. Common practice. Cost: linear in steps.
 */
export function testSteps(
  steps: readonly PlannedStep[],
  lift: readonly string[],
  proveAgain: readonly string[],
): PlannedStep[] {
  const round = 1 + new Set(steps.filter((step) => step.phase === "test").map((step) => step.id.split("-")[0])).size;
  const made: PlannedStep[] = [];
  const isolate = steps.filter((step) => step.phase === "isolate");
  const restore = steps.filter((step) => step.phase === "restore");
  const add = (from: Omit<PlannedStep, "id" | "phase">): string => {
    const id = `t${round}-${made.length + 1}`;
    made.push({ ...from, id, phase: "test" });
    return id;
  };
  const plain = { plate: null, competence: null, carrier: null, limit: null, secondPerson: false } as const;
  const again = (of: readonly PlannedStep[], after: readonly string[]) => of.map((step) => add({ ...step, after }));
  const kinds = (list: readonly PlannedStep[], ...wanted: StepKind[]) =>
    list.filter((step) => wanted.includes(step.kind));
  const lifted = new Set(lift);
  const ofLifted = (list: readonly PlannedStep[]) => list.filter((step) => lifted.has(step.subject));
  const locks = latestFirstOnce(ofLifted(kinds(isolate, "lock")));
  // A drive is what an electrician locks; flows are what the process crew does.
  const hasWires = locks.some((step) => step.competence === "electrical");
  const hasFlow = locks.some((step) => step.competence !== "electrical");
  const all = lift.join(", ");

  const opened = add({
    ...plain,
    kind: "open box",
    subject: "lock box",
    words: "Open the lock box and take out the keys of the points to be lifted.",
    after: [],
  });
  const cleared = again(kinds(restore, "clear", "count people", "guards"), [opened]);
  const away = again(
    [
      ...(hasWires ? kinds(restore, "remove earth", "take short off") : []),
      ...(hasFlow ? kinds(restore, "close bleed", "cap") : []),
      ...kinds(restore, "take pin out"),
    ],
    cleared,
  );
  const unlocked: string[] = [];
  for (const step of ofLifted(kinds(restore, "unlock"))) {
    unlocked.push(add({ ...step, after: [...cleared, ...away, ...unlocked] }));
  }
  const run = add({
    ...plain,
    kind: "test run",
    subject: all,
    words: `Test, jog or position with ${all} lifted, everybody clear. Nothing else is done.`,
    after: unlocked,
  });
  const stopped = again(kinds(isolate, "stop"), [run]);
  const restrained = again(kinds(isolate, "restrain", "run down"), stopped);
  const held: string[] = [];
  for (const step of locks) {
    const lock = add({ ...step, after: [...stopped, ...held] });
    held.push(
      ...again(
        ofLifted(kinds(isolate, "verify")).filter((one) => one.subject === step.subject),
        [lock],
      ),
      lock,
    );
  }
  const cooled = again(kinds(isolate, "cool"), [...held, ...restrained]);
  // What a flow brought back into a vessel goes out of it again.
  const emptied = again(hasFlow ? kinds(isolate, "empty") : [], [...held, ...restrained, ...cooled]);
  const bled = again(
    [...(hasFlow ? kinds(isolate, "bleed") : []), ...kinds(isolate, "release")],
    [...held, ...restrained, ...cooled, ...emptied],
  );
  const settled = [...held, ...restrained, ...cooled, ...emptied, ...bled];
  const clean = again(hasFlow ? kinds(isolate, "clean") : [], settled);
  const certified = again(hasFlow ? kinds(isolate, "certify") : [], [...settled, ...clean]);
  const proofs = again(
    kinds(isolate, "prove").filter((step) => proveAgain.includes(step.subject)),
    [...settled, ...clean, ...certified],
  );
  const calm = [...settled, ...clean, ...certified, ...proofs];
  const shorted = hasWires ? again(kinds(isolate, "discharge"), calm) : [];
  const earthed = hasWires ? again(kinds(isolate, "earth"), [...calm, ...shorted]) : [];
  const air = again(kinds(isolate, "purge", "test air"), [...calm, ...shorted, ...earthed]);
  const tried = again(kinds(isolate, "try start"), [...calm, ...shorted, ...earthed, ...air]);
  again(kinds(isolate, "close box"), tried);
  return made;
}

/** A point locked twice, by a swap back and forth, is lifted and locked once. */
function latestFirstOnce(locks: readonly PlannedStep[]): PlannedStep[] {
  return [...new Map(locks.map((step) => [step.subject, step])).values()];
}

/** Faces with a way that one of these devices stands in: what is proved again once they are locked again. */
export function facesBehind(
  routes: readonly Readonly<{ face: string; via: readonly string[] }>[],
  holds: readonly Readonly<{ device: string; holds: readonly Readonly<{ face: string }>[] }>[],
  lift: readonly string[],
): string[] {
  const lifted = new Set(lift);
  return [
    ...new Set([
      ...routes.filter((route) => route.via.some((place) => lifted.has(place))).map(({ face }) => face),
      ...holds.filter(({ device }) => lifted.has(device)).flatMap((point) => point.holds.map(({ face }) => face)),
    ]),
  ].sort();
}
