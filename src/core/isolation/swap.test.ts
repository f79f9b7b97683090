import { HARMLESS, SmallPlant } from "../../../tests/support/smallPlant";
import type { Competence, PersonId } from "../people/roles";
import { open, type IsolationLife, type WalkStep } from "./isolation";
import { checkIsolation } from "./isolationLife";
import { decideSwap, type SwapFacts } from "./swap";

const IVO = "ivo" as PersonId;
const plant = new SmallPlant()
  .source("H", "fluid", HARMLESS)
  .device("V-1", "fluid")
  .item("TEE", "tee")
  .device("V-2", "fluid")
  .item("A", "vessel", { contents: HARMLESS })
  .line("fluid", "H", "V-1", "TEE", "V-2", "A");

const made = (id: string, kind: WalkStep["kind"], subject: string, more: Partial<WalkStep> = {}): WalkStep => ({
  ...open({
    id,
    kind,
    subject,
    phase: kind === "unlock" ? "restore" : "isolate",
    plate: kind === "prove" ? null : subject,
    words: "",
    competence: "process",
    after: [],
    carrier: null,
    limit: null,
    secondPerson: kind === "verify",
  }),
  ...more,
});
const did = (lock: string | null = null): Pick<WalkStep, "done"> => ({
  done: { by: IVO, at_ms: 1, lock, reading: null, skipped: false, evidence: null },
});

function swap(
  steps: WalkStep[],
  state: IsolationLife["state"],
  holds: readonly string[],
  more: Readonly<{ competences?: readonly Competence[]; others?: SwapFacts["live"] }> = {},
) {
  const facts: SwapFacts = {
    graph: plant.graph,
    live: [
      {
        isolation: "S-1",
        number: "J-1",
        job: plant.job([{ place: "A", how: ["open"] }]),
        holds,
        opened: [],
        accepted: {},
        people: [],
        counts: state === "proven",
      },
      ...(more.others ?? []),
    ],
    peopleOn: [],
    gear: () => undefined,
    lockHangs: () => undefined,
    nameOf: (id) => id,
    ids: ["s1", "s2", "s3"],
  };
  const command = {
    by: IVO,
    at_ms: 9,
    competences: more.competences ?? (["process"] as const),
    from: "V-2",
    to: "V-1",
    plate: "V-1",
  };
  const life: IsolationLife = { number: "S-1", state, steps };
  checkIsolation(life);
  return decideSwap(life, { ...command, lock: "L-9", reason: "the handle is bent" }, facts);
}
const swapped = (...p: Parameters<typeof swap>): IsolationLife => {
  const decided = swap(...p);
  if (!decided.ok) throw new Error(JSON.stringify(decided.refusal));
  checkIsolation(decided.value);
  return decided.value;
};

const locked = made("i1", "lock", "V-2", did("L-1"));
const wayBack = made("r1", "unlock", "V-2");

test("a point that the plan locks anyway is locked by its own step: hung twice it would be lifted twice", () => {
  const steps = [locked, made("i2", "lock", "V-1"), wayBack, made("r2", "unlock", "V-1")];
  expect(swap(steps, "isolating", ["V-2"])).toMatchObject({
    refusal: { code: "own step first", point: "V-1", isolation: "S-1" },
  });
});

test("the new point is lifted on the way back in place of the old one", () => {
  const { state, steps } = swapped([locked, wayBack], "proven", ["V-2"]);
  expect(state).toBe("proven");
  expect(steps.find(({ id }) => id === "r1")).toMatchObject({ subject: "V-1", done: null });
  expect(steps.map(({ kind, subject }) => `${kind} ${subject}`)).toEqual([
    "lock V-2",
    "unlock V-1",
    "lock V-1",
    "unlock V-2",
  ]);
});

test("where somebody else looked at the old point somebody else looks at the new one, and until then nobody counts on it", () => {
  const looked = made("i2", "verify", "V-2", { ...did(), after: ["i1"] });
  const { state, steps } = swapped([locked, looked, wayBack], "proven", ["V-2"]);
  expect(state).toBe("isolating");
  expect(steps.filter(({ kind }) => kind === "verify")).toMatchObject([
    { subject: "V-2", done: { by: IVO } },
    { id: "s3", subject: "V-1", done: null, secondPerson: true, after: ["s1"] },
  ]);
});

test("a look that is still to come is at the point that hangs, and at the other no more", () => {
  const look = made("i2", "verify", "V-2", { after: ["i1"] });
  const { state, steps } = swapped([locked, look, wayBack], "isolating", ["V-2"]);
  expect(state).toBe("isolating");
  expect(steps.filter(({ kind }) => kind === "verify")).toMatchObject([{ id: "i2", subject: "V-1", plate: "V-1" }]);
});

test("a swap is done by somebody of the new point's trade, onto a point that this isolation does not hold yet", () => {
  const steps = [locked, made("i3", "prove", "A"), wayBack];
  for (const competences of [[], ["electrical"], ["mechanical"]] as const) {
    expect(swap(steps, "isolating", ["V-2"], { competences })).toMatchObject({
      refusal: { code: "not competent", step: "lock V-1", needs: "process" },
    });
  }
  const both = [locked, made("i2", "lock", "V-1", did("L-2")), wayBack, made("r2", "unlock", "V-1")];
  expect(swap(both, "proven", ["V-2", "V-1"])).toMatchObject({
    refusal: { code: "already done", what: "Locking V-1 for this isolation" },
  });
  // What another isolation holds there is no lock of this one: it is judged, and not taken for done.
  const others = [
    {
      isolation: "S-2",
      number: "J-2",
      job: plant.job([{ place: "A", how: ["open" as const] }]),
      holds: ["V-1"],
      opened: [],
      accepted: {},
      people: [],
      counts: true,
    },
  ];
  expect(swap(steps, "isolating", ["V-2"], { others })).toMatchObject({ refusal: { code: "swap not proved" } });
});
