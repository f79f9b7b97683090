import type { Point } from "./plan";
import { competenceFor, driveFirst, type StepList } from "./steps";

/**
 * The return, which runs the other way: clear; earths off, line end first; blinds out; bleeds closed; locks off, process
 * lines before drives; hand over. Common practice.
 */
export function addRestoreSteps(
  list: StepList,
  isolated: Readonly<{
    valves: readonly Point[];
    blinds: readonly Point[];
    bleeds: readonly string[];
    earthed: readonly string[];
  }>,
): void {
  const { faces, named, plateOf, add } = list;
  const clear = add({
    phase: "restore",
    kind: "clear",
    subject: faces.join(", "),
    words: "Tools out, open ends closed, guards back, people counted and clear. Tell everyone it comes back.",
    competence: null,
    after: [],
  });
  const earthsOff = isolated.earthed.map((face) =>
    add({
      phase: "restore",
      kind: "remove earth",
      subject: face,
      words: `Take the earths off ${face}, line end first and earth end last, and count them.`,
      competence: "electrical",
      after: [clear],
    }),
  );
  const blindsOut = isolated.blinds.map((point) =>
    add({
      phase: "restore",
      kind: "unlock",
      subject: point.device,
      plate: plateOf(point.device),
      words: `Take ${named(point.device)} out with its lock and tag, and close the flange with a new gasket.`,
      competence: "mechanical",
      after: [clear],
    }),
  );
  const shut = isolated.bleeds.map((tag) =>
    add({
      phase: "restore",
      kind: "close bleed",
      subject: tag,
      plate: plateOf(tag),
      words: `Close and plug ${named(tag)}.`,
      competence: "process",
      after: [clear, ...blindsOut],
    }),
  );
  const lifted: string[] = [...blindsOut];
  // Process lines first, the work side before the supply side; drives come back last.
  for (const point of [...isolated.valves].reverse()) {
    lifted.push(
      add({
        phase: "restore",
        kind: "unlock",
        subject: point.device,
        plate: plateOf(point.device),
        words: `Take lock and tag off ${named(point.device)} and put it back to its normal position.`,
        competence: competenceFor(point.stops),
        after:
          driveFirst(point.stops) === 0 ? [clear, ...earthsOff, ...shut, ...lifted] : [clear, ...blindsOut, ...shut],
      }),
    );
  }
  add({
    phase: "restore",
    kind: "hand over",
    subject: faces.join(", "),
    words: `Walk the line, start by the normal controls, watch it run and hand ${faces.join(", ")} to operations.`,
    competence: null,
    after: [clear, ...earthsOff, ...shut, ...lifted],
  });
}
