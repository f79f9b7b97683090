import type { Point } from "../plan/plan";
import { competenceFor, driveFirst, type StepList } from "./steps";

/** What the isolation left in place, and the return takes away again. */
type InPlace = Readonly<{
  valves: readonly Point[];
  blinds: readonly Point[];
  bleeds: readonly string[];
  /** Valves before them that were locked open. */
  drainValves: readonly string[];
  earthed: readonly string[];
  restrained: readonly string[];
  shorted: readonly string[];
  /** Faces whose lines were opened. */
  opened: readonly string[];
  /** What stood in for barriers that are not there. */
  standIns: readonly string[];
  /** Faces round which barriers and signs stand. */
  barred: readonly string[];
}>;

/**
 * The return, which runs the other way: work over, people counted, guards back; earths and shorts off, line end first;
 * blinds out one by one; bleeds closed, open ends capped, leak test, line walked; everyone told; locks off, process lines
 * before drives; pins out; normal start, watched; handed over. Common practice.
 */
export function addRestoreSteps(list: StepList, inPlace: InPlace): void {
  const { faces, named, plateOf } = list;
  const all = faces.join(", ");
  const add = (step: Omit<Parameters<StepList["add"]>[0], "phase">) => list.add({ ...step, phase: "restore" });

  const clear = add({
    kind: "clear",
    subject: all,
    words: `Tools, rags and spare parts out of ${all}; the place is clean. Count the tools.`,
    competence: null,
    after: [],
  });
  const counted = add({
    kind: "count people",
    subject: all,
    words: "Count the people who worked, by name and by sight. Everybody is out and clear.",
    competence: null,
    after: [clear],
  });
  const guards = add({
    kind: "guards",
    subject: all,
    words: `Guards and covers of ${all} are back and fixed.`,
    competence: null,
    after: [clear],
  });
  const over = [clear, counted, guards];
  const earthsOff = inPlace.earthed.map((face) =>
    add({
      kind: "remove earth",
      subject: face,
      words: `Take the earths off ${face}, line end first and earth end last. Every number that went on comes off.`,
      competence: "electrical",
      after: over,
    }),
  );
  const shortsOff = inPlace.shorted.map((place) =>
    add({
      kind: "take short off",
      subject: place,
      words: `Take the short off ${named(place)}.`,
      competence: "electrical",
      after: over,
    }),
  );
  const blindsOut = inPlace.blinds.map((point) =>
    add({
      kind: "unlock",
      subject: point.device,
      plate: plateOf(point.device),
      words: `Take ${named(point.device)} out with its lock and tag, and close the flange with a new gasket.`,
      competence: "mechanical",
      after: over,
    }),
  );
  const shut = inPlace.bleeds.map((tag) =>
    add({
      kind: "close bleed",
      subject: tag,
      plate: plateOf(tag),
      words: `Close and plug ${named(tag)}.`,
      competence: "process",
      after: [...over, ...blindsOut],
    }),
  );
  const backAsTheyStood = inPlace.drainValves.map((tag) =>
    add({
      kind: "close bleed",
      subject: tag,
      plate: plateOf(tag),
      words: `Take the lock off ${named(tag)} and put it back as it stood.`,
      competence: "process",
      after: [...over, ...blindsOut, ...shut],
    }),
  );
  const capped = inPlace.opened.map((face) =>
    add({
      kind: "cap",
      subject: face,
      words: `Every end that was opened at ${face} is closed again: plug, cap or blind flange, with its gasket.`,
      competence: "mechanical",
      after: [...over, ...blindsOut],
    }),
  );
  const leakTests = inPlace.opened.map((face) =>
    add({
      kind: "leak test",
      subject: face,
      words: `Test ${face} for leaks at its pressure before it is filled, and hold. Stand clear while it rises.`,
      competence: "mechanical",
      after: [...blindsOut, ...shut, ...backAsTheyStood, ...capped],
    }),
  );
  const walked = add({
    kind: "walk line",
    subject: all,
    words: `Walk the lines of ${all} against the diagram: every valve as the line-up says, no hose, no jumper, no open end.`,
    competence: null,
    after: [...over, ...blindsOut, ...shut, ...backAsTheyStood, ...capped, ...leakTests],
  });
  const told = add({
    kind: "tell all",
    subject: all,
    words: `Tell everyone who was told before that ${all} comes back, and that nobody works on it any more.`,
    competence: null,
    after: [walked],
  });
  const ended = inPlace.standIns.map((subject) =>
    add({
      kind: "end stand-in",
      subject,
      words: `What stood in is taken back: ${subject}. Nothing is left drawn, blocked, blinded or watched by nobody.`,
      competence: null,
      after: [walked],
    }),
  );
  const ready = [walked, told, ...ended, ...earthsOff, ...shortsOff];
  const lifted: string[] = [];
  // Process lines first, the work side before the supply side; drives come back last.
  for (const point of [...inPlace.valves].reverse()) {
    lifted.push(
      add({
        kind: "unlock",
        subject: point.device,
        plate: plateOf(point.device),
        words: `Take lock and tag off ${named(point.device)} and put it back to its normal position.`,
        competence: competenceFor(point.stops),
        after: driveFirst(point.stops) === 0 ? [...ready, ...lifted] : ready,
      }),
    );
  }
  // What a pin holds is let go only when the pressure or the drive that carries it is back.
  const pinsOut = inPlace.restrained.map((place) =>
    add({
      kind: "take pin out",
      subject: place,
      words: `Take the pin, block or chock off ${named(place)}, once what carries it is back.`,
      competence: "mechanical",
      after: [...ready, ...lifted],
    }),
  );
  const started = add({
    kind: "start",
    subject: all,
    words: `Start ${all} by the normal controls; drain and warm what must be warmed through its bypass first.`,
    competence: null,
    after: [...ready, ...lifted, ...pinsOut],
  });
  const watched = add({
    kind: "watch",
    subject: all,
    words: `Watch ${all} run: no leak, no noise, no heat that should not be.`,
    competence: null,
    after: [started],
  });
  const unbarred =
    inPlace.barred.length === 0
      ? []
      : [
          add({
            kind: "take barriers away",
            subject: inPlace.barred.join(", "),
            words: `Take away every barrier and sign round ${inPlace.barred.join(", ")}.`,
            competence: null,
            after: [watched],
          }),
        ];
  add({
    kind: "hand over",
    subject: all,
    words: `Hand ${all} to operations, by name.`,
    competence: null,
    after: [watched, ...unbarred],
  });
}
