import { DETAILS, draftOf, HOUR, idOf, MINUTE, wellFacts } from "../../../tests/support/permits";
import type { LogEntry } from "../permit/record/permitLog";
import type { PermitLife } from "../permit/record/permitTypes";
import { dueOfPermit, inOrder, type DueItem } from "./dueList";

const NOW = 4 * HOUR;
const by = idOf("ada");
const entered: readonly LogEntry[] = [
  { type: "post taken", post: "attendant", person: by, by, at_ms: 3 * HOUR },
  { type: "went in", person: idOf("wim"), by, at_ms: NOW - 30 * MINUTE },
];
const entry = (more: Partial<PermitLife>) => draftOf(DETAILS["confined space entry"], { log: entered, ...more });
const due = (permit: PermitLife, within_ms = HOUR) =>
  dueOfPermit({ permit, facts: wellFacts(), now_ms: NOW }, within_ms);

test("whoever is inside a stopped space comes first, and is spoken to whatever became of the permit", () => {
  for (const state of ["suspended", "run out"] as const) {
    const [first] = inOrder(due(entry({ state })));
    expect(first).toMatchObject({ what: "inside, stopped", inside: 1, isOverdue: true, people: [by, idOf("hal")] });
    const call = due(entry({ state })).find(({ what }) => what === "call");
    expect(call).toMatchObject({ due_ms: NOW - 20 * MINUTE, isOverdue: true, people: [by] });
  }
});

test("a communication check that is late stays until it is made", () => {
  const late = due(entry({ state: "live" })).find(({ what }) => what === "call");
  expect(late).toMatchObject({ due_ms: NOW - 20 * MINUTE, isOverdue: true });
  const spoken: LogEntry = { type: "talked", by, at_ms: NOW - 5 * MINUTE };
  const made = due(entry({ state: "live", log: [...entered, spoken] })).find(({ what }) => what === "call");
  expect(made).toMatchObject({ due_ms: NOW + 5 * MINUTE, isOverdue: false });
});

test("an expired permit names its holder and everybody still on", () => {
  const on = { person: idOf("wim"), lock: "L-1", points: {}, on_ms: HOUR, off_ms: null };
  const items = due(draftOf({ kind: "general" }, { state: "run out", validTo_ms: 3 * HOUR, signOns: [on] }));
  expect(items).toMatchObject([{ what: "expired", due_ms: 3 * HOUR, people: [idOf("hal"), idOf("wim")] }]);
});

test("what a detector does not send, and why work stopped, are due; what ends far ahead is not", () => {
  const log: readonly LogEntry[] = [
    { type: "stopped", cause: "gas", reason: "gas at the edge", evacuate: false, by: null, at_ms: HOUR },
  ];
  const permit = draftOf(DETAILS["hot work"], { state: "suspended", log });
  const silent = {
    id: "GD-1",
    place: "",
    kind: "gas" as const,
    reads: [],
    against: [],
    silent: true,
    silentFrom_ms: 0,
  };
  const items = dueOfPermit({ permit, facts: wellFacts({ detectors: [silent] }), now_ms: NOW }, HOUR);
  expect(items.map(({ what, at }) => [what, at])).toEqual([
    ["silent detector", "GD-1"],
    ["stopped", "gas at the edge"],
  ]);
  expect(due(draftOf({ kind: "general" }, { state: "live" }), 5 * HOUR).map(({ what }) => what)).toEqual(["ends"]);
});

test("a draft asks nobody for anything by itself", () => {
  expect(due(draftOf(DETAILS["hot work"]))).toEqual([]);
});

test("people inside, then gas, then what is late; then by kind and by time", () => {
  const item = (what: DueItem["what"], mark: DueItem["mark"], more: Partial<DueItem> = {}): DueItem => ({
    what,
    mark,
    about: "P-1",
    at: "",
    due_ms: 5,
    isOverdue: false,
    inside: 0,
    roles: [],
    people: [],
    ...more,
  });
  const wanted = [
    item("inside, stopped", "inside", { inside: 2, isOverdue: true, due_ms: null }),
    item("bad air", "gas", { isOverdue: true, due_ms: null }),
    item("stopped", "stopped", { isOverdue: true, due_ms: null }),
    item("expired", "permit", { isOverdue: true, due_ms: 1 }),
    item("call", "inside", { due_ms: 9 }),
    item("retest", "gas", { due_ms: 3 }),
    item("retest", "gas", { due_ms: 8 }),
    item("ends", "permit", { due_ms: 2 }),
    item("next act", "plan", { due_ms: 1 }),
  ];
  expect(inOrder([...wanted].reverse())).toEqual(wanted);
});
