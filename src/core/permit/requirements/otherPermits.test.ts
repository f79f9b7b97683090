import { Acting, DETAILS, draftOf, HOUR, wellFacts } from "../../../../tests/support/permits";
import type { PermitRequired } from "../../hazard/permitsRequired";
import { profileOf } from "../../requirement/profiles";
import { WRITTEN_KINDS, type PermitKind } from "../kinds/kinds";
import { PERMIT_STATES, type PermitState } from "../record/permitTypes";
import { neededBefore } from "./otherPermits";
import { asksOf, missingWhileLive } from "./requirements";

const required = (kind: PermitKind, places: readonly string[] | null = ["P-7"]): PermitRequired => ({
  kind,
  places,
  because: places?.join(", ") ?? "a tool",
  rule: "r",
});
const needed = (kind: PermitKind, ...all: PermitRequired[]) => neededBefore(kind, all).map((one) => one.kind);

describe("other permits that a job requires", () => {
  test("a general permit waits for every kind that the job requires, whichever they are", () => {
    for (let bits = 0; bits < 1 << WRITTEN_KINDS.length; bits++) {
      const kinds = WRITTEN_KINDS.filter((_, at) => bits & (1 << at));
      expect(needed("general", ...kinds.map((kind) => required(kind)))).toEqual(kinds.filter((k) => k !== "general"));
    }
  });
  test("any other waits for those by which people come to its places", () => {
    const entered = required("confined space entry", ["V-1"]);
    expect(needed("hot work", required("hot work", ["V-1"]), entered)).toEqual(["confined space entry"]);
    expect(needed("hot work", required("hot work", ["M-2"]), entered)).toEqual([]);
    expect(needed("electrical work", entered)).toEqual(["confined space entry"]);
    expect(needed("confined space entry", entered, required("hot work", ["V-1"]))).toEqual([]);
    const high = required("work at height", null);
    expect(needed("confined space entry", entered, high)).toEqual(["work at height"]);
    expect(needed("line break", required("line break", ["V-1"]), entered, high)).toEqual(["work at height"]);
    expect(needed("safeguard bypass", entered, high)).toEqual([]);
  });
  test("tools may be used anywhere, so what they ask for is asked at every place", () => {
    const entered = required("confined space entry", ["V-1"]);
    expect(needed("hot work", required("hot work", null), entered)).toEqual(["confined space entry"]);
  });

  const general = (state: PermitState | null, more = {}) =>
    wellFacts({
      required: [required("work at height")],
      ofJob: state === null ? [] : [{ number: "P-2", kind: "work at height", state }],
      ...more,
    });
  const code = (facts: ReturnType<typeof wellFacts>) => {
    const acting = new Acting(draftOf({ kind: "general" }), facts);
    acting.did("cora", { type: "check" }).did("isa", { type: "authorise" });
    acting.did("isa", { type: "issue", copies: ["at the work"] });
    return acting.code("hal", { type: "accept" });
  };
  test("it may be issued, and not started before they are", () => {
    expect(code(general(null))).toBe("asks unmet");
    expect(code(general(null, { required: null }))).toBe("asks unmet");
    expect(code(general("issued"))).toBe("accepted");
  });
  test.each(PERMIT_STATES)("a permit that is %s counts when it was issued and nobody took that back", (state) => {
    const counts = !["draft", "checked", "authorised", "cancelled"].includes(state);
    expect(code(general(state))).toBe(counts ? "accepted" : "asks unmet");
  });
  test("a kind that is required later stops the work until it is issued", () => {
    const permit = { ...draftOf({ kind: "general" }), state: "live" as const };
    const missing = missingWhileLive({ permit, facts: general(null), now_ms: HOUR });
    expect(missing.map(({ unmet }) => unmet)).toEqual(["none was issued for work at height (P-7)"]);
  });
});

describe("a permit is displayed where the work is", () => {
  const issued = (copies: string[], facts = wellFacts()) =>
    new Acting(draftOf({ kind: "general" }), facts)
      .did("cora", { type: "check" })
      .did("isa", { type: "authorise" })
      .did("isa", { type: "issue", copies });
  test("work does not begin before a copy hangs, and the last one stays while it lasts", () => {
    const acting = issued([]);
    expect(acting.code("hal", { type: "accept" })).toBe("asks unmet");
    acting.did("hal", { type: "hang copy", where: "at the pump", second: false }).did("hal", { type: "accept" });
    expect(acting.code("hal", { type: "return copy", copy: 1 })).toBe("last copy");
    acting.did("hal", { type: "hang copy", where: "at the box", second: false });
    expect(acting.code("hal", { type: "return copy", copy: 1 })).toBe("accepted");
    acting.did("wim", { type: "stop", cause: "stop-work", reason: "it smells" });
    acting.did("hal", { type: "return copy", copy: 1 }).did("hal", { type: "return copy", copy: 2 });
    expect(acting.code("isa", { type: "resume", words: "looked" })).toBe("asks unmet");
  });
  test("under rules that count a screen somebody says that one shows it", () => {
    const acting = issued([], wellFacts({ profile: profileOf("us-style") }));
    expect(acting.code("hal", { type: "accept" })).toBe("asks unmet");
    acting.did("hal", { type: "tick", ask: "copies", words: "tablet at the box" });
    expect(acting.code("hal", { type: "accept" })).toBe("accepted");
    const strict = issued([]);
    expect(strict.code("hal", { type: "tick", ask: "copies", words: "" })).toBe("not by hand");
  });
  test("each kind asks for both", () => {
    for (const kind of WRITTEN_KINDS) {
      const asks = asksOf({ permit: draftOf(DETAILS[kind]), facts: wellFacts(), now_ms: HOUR });
      expect(asks.map(({ id }) => id)).toEqual(expect.arrayContaining(["hazards", "other permits", "copies"]));
    }
  });
});
