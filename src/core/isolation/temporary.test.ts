import fc from "fast-check";
import { propertyRuns } from "../../../tests/support/runs";
import type { PersonId } from "../people/roles";
import { askFault, checkTemporary, decideTemporary, type Temporary, type TemporaryFacts } from "./temporary";

const id = (name: string) => name as PersonId;
const ASKED: Temporary = {
  number: "T-0001",
  state: "asked",
  lift: ["V-1"],
  affected: [{ job: "J-1", agreedBy: null, agreedAt_ms: null }],
  startedAt_ms: null,
  endedAt_ms: null,
};
const FACTS: TemporaryFacts = {
  reaches: ["J-1"],
  peopleOn: () => [],
  holders: (job) => [{ id: id(`lead of ${job}`), name: `Lead of ${job}` }],
};
const code = (one: Temporary, command: Parameters<typeof decideTemporary>[1], facts: Partial<TemporaryFacts> = {}) => {
  const decided = decideTemporary(one, command, { ...FACTS, ...facts });
  return decided.ok ? decided.value.state : decided.refusal.code;
};
const agree = { type: "agree", job: "J-1", by: id("lead of J-1"), at_ms: 1 } as const;
const agreed: Temporary = { ...ASKED, affected: [{ job: "J-1", agreedBy: id("lead of J-1"), agreedAt_ms: 1 }] };
const start = { type: "start", by: id("cora"), at_ms: 2 } as const;

describe("a temporary de-isolation", () => {
  test("is asked for of what is proven, of points that are locked, and one at a time", () => {
    const asked = { isolation: "S-1", state: "proven", lift: ["V-1"] };
    const facts = { locked: new Set(["V-1"]), open: null };
    expect(askFault(asked, facts)).toBeNull();
    expect(askFault({ ...asked, state: "isolating" }, facts)?.refusal.code).toBe("wrong state");
    expect(askFault({ ...asked, lift: ["V-1", "V-9"] }, facts)?.refusal).toMatchObject({
      code: "unknown",
      name: "V-9",
    });
    expect(askFault(asked, { ...facts, open: "T-0002" })?.refusal.code).toBe("already done");
  });
  test("is agreed to by whoever leads a job it reaches, once, with everybody off", () => {
    expect(code(ASKED, agree)).toBe("asked");
    expect(code(ASKED, { ...agree, by: id("somebody") })).toBe("not the holder");
    expect(code(ASKED, { ...agree, job: "J-9" })).toBe("unknown");
    expect(code(agreed, agree)).toBe("already done");
    expect(code(ASKED, agree, { peopleOn: () => ["Nell"] })).toBe("people on");
    // Who came to work there since it was asked for signs too.
    const late = { ...agree, job: "J-2", by: id("lead of J-2") };
    expect(code(ASKED, late, { reaches: ["J-1", "J-2"] })).toBe("asked");
  });
  test("who agrees answers for their own job and leaves the others' answers as they were", () => {
    const two: Temporary = {
      ...ASKED,
      affected: [
        { job: "J-1", agreedBy: id("lead of J-1"), agreedAt_ms: 1 },
        { job: "J-2", agreedBy: null, agreedAt_ms: null },
      ],
    };
    const facts = { ...FACTS, reaches: ["J-1", "J-2"] };
    const late = { type: "agree", job: "J-2", by: id("lead of J-2"), at_ms: 7 } as const;
    const decided = decideTemporary(two, late, facts);
    expect(decided.ok && decided.value.affected).toEqual([
      { job: "J-1", agreedBy: "lead of J-1", agreedAt_ms: 1 },
      { job: "J-2", agreedBy: "lead of J-2", agreedAt_ms: 7 },
    ]);
    // A job that it does not reach is none that it was asked of, however many others are.
    expect(code(two, { ...late, job: "J-3", by: id("lead of J-3") })).toBe("unknown");
    // One that it reached when it was asked for answers still, whatever it reaches now.
    expect(code(two, late, { reaches: [] })).toBe("asked");
    const several = {
      holders: () => [
        { id: id("a"), name: "A" },
        { id: id("b"), name: "B" },
      ],
    };
    expect(decideTemporary(ASKED, { ...agree, by: id("c") }, { ...FACTS, ...several })).toMatchObject({
      refusal: { code: "not the holder", holder: "A or B" },
    });
  });
  test("starts when all whom it reaches now have agreed, and nobody is on", () => {
    expect(code(ASKED, start)).toBe("not agreed");
    expect(code(agreed, start)).toBe("running");
    expect(code(agreed, start, { reaches: ["J-1", "J-2"] })).toBe("not agreed");
    expect(code(agreed, start, { peopleOn: (job) => (job === "J-1" ? ["Nell"] : []) })).toBe("people on");
  });
  test("over any sequence of commands it keeps its promises", () => {
    const job = fc.constantFrom("J-1", "J-2", "J-3");
    const command = fc.record({
      type: fc.constantFrom("agree", "agree", "start", "call off", "end"),
      job,
      right: fc.boolean(),
      reaches: fc.subarray(["J-1", "J-2", "J-3"]),
      on: fc.subarray(["J-1", "J-2", "J-3"]),
    });
    const reached = new Set<string>();
    fc.assert(
      fc.property(fc.array(command, { maxLength: 25 }), (all) => {
        let one = ASKED;
        all.forEach(({ type, job: of, right, reaches, on }, at_ms) => {
          const by = id(right ? `lead of ${of}` : "somebody");
          const asked = type === "agree" ? { type, job: of, by, at_ms } : { type, by, at_ms };
          const facts = { ...FACTS, reaches, peopleOn: (which: string) => (on.includes(which) ? ["Nell"] : []) };
          const decided = decideTemporary(one, asked as Parameters<typeof decideTemporary>[1], facts);
          if (!decided.ok) return;
          if (decided.value.state === "running" && one.state === "asked") {
            for (const which of reaches) {
              expect(one.affected.find((affected) => affected.job === which)?.agreedBy).toBe(`lead of ${which}`);
              expect(on).not.toContain(which);
            }
          }
          one = decided.value;
          reached.add(one.state);
          checkTemporary(one);
        });
      }),
      propertyRuns(200),
    );
    expect([...reached].sort()).toEqual(["asked", "called off", "ended", "running"]);
  });
});
