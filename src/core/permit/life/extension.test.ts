import { Acting, DETAILS, draftOf, HOUR, idOf, MINUTE, wellFacts } from "../../../../tests/support/permits";
import { profileOf } from "../../requirement/profiles";
import type { PermitDetails } from "../kinds/details";
import type { PermitAct, PermitFacts } from "../record/permitTypes";
import { extensionLimit } from "./extension";

const once = { profile: profileOf("uk-style") };

/** Issued at one o'clock until eight, hal on, a copy at the gate. */
function running(details: PermitDetails = { kind: "general" }, facts: Partial<PermitFacts> = once) {
  const acting = new Acting(draftOf(details), wellFacts(facts));
  acting.did("cora", { type: "check" }).did("isa", { type: "authorise" });
  acting.did("isa", { type: "issue", copies: ["at the gate"] }).did("hal", { type: "accept" });
  return acting.did("hal", { type: "sign on", lock: "L-1", answer: "P-7" });
}
const extend = (more: Partial<Extract<PermitAct, { type: "extend" }>> = {}): PermitAct => ({
  type: "extend",
  until_ms: 11 * HOUR,
  words: "looked at the place",
  stillOn: [idOf("hal")],
  marked: [1],
  ...more,
});

test("by an issuer who is not its holder, for a later end, and it runs to that end and not beyond", () => {
  const acting = running();
  expect(acting.code("hal", extend())).toBe("not yours to do");
  expect(acting.code("isa", extend({ until_ms: 8 * HOUR }))).toBe("validity");
  acting.did("isa", extend());
  expect(acting.permit).toMatchObject({ state: "live", validTo_ms: 11 * HOUR });
  expect(acting.permit.log.at(-1)).toMatchObject({ type: "extended", from_ms: 8 * HOUR, to_ms: 11 * HOUR });
  acting.later(10 * HOUR);
  expect(acting.code("hal", { type: "begin break" })).toBe("run out");
});

test("once, and before its end", () => {
  const acting = running().did("isa", extend());
  expect(acting.code("isa", extend({ until_ms: 12 * HOUR }))).toBe("not extended");
  const late = running();
  late.later(7 * HOUR);
  expect(late.code("isa", extend())).toBe("run out");
});

test("everybody who is on is asked, and nobody who is not", () => {
  const acting = running();
  expect(acting.code("isa", extend({ stillOn: [] }))).toBe("not all asked");
  expect(acting.code("isa", extend({ stillOn: [idOf("hal"), idOf("wim")] }))).toBe("not all asked");
  acting.did("wim", { type: "sign on", lock: "L-2", answer: "P-7" });
  expect(acting.code("isa", extend())).toBe("not all asked");
  acting.did("isa", extend({ stillOn: [idOf("wim"), idOf("hal")] }));
});

test("every copy that hangs shows the new end; one that came back need not", () => {
  const acting = running();
  expect(acting.code("isa", extend({ marked: [] }))).toBe("copy says otherwise");
  acting.did("hal", { type: "hang copy", where: "in the cabin", second: false });
  expect(acting.code("isa", extend())).toBe("copy says otherwise");
  acting.did("hal", { type: "return copy", copy: 1 });
  acting.did("isa", extend({ marked: [2] }));
});

test("not where the rules extend none, nor past what one permit of its kind, or a day, may last", () => {
  expect(running({ kind: "general" }, { profile: profileOf("strict") }).code("isa", extend())).toBe("not extended");
  const limit = (details: PermitDetails, validTo_ms: number) => {
    const { permit } = running();
    return extensionLimit({ ...permit, details, validTo_ms }, once);
  };
  const issued = running().permit.log.find((entry) => entry.type === "signed" && entry.act === "issue")!.at_ms;
  // Twelve hours more at the most, and a day from the first issue.
  expect(limit({ kind: "general" }, 8 * HOUR)).toEqual({ until_ms: 20 * HOUR });
  expect(limit(DETAILS["line break"], 14 * HOUR)).toEqual({ until_ms: issued + 24 * HOUR });
  expect(limit(DETAILS["hot work"], 20 * HOUR)).toEqual({ until_ms: issued + 24 * HOUR });
  expect(limit(DETAILS["hot work"], issued + 24 * HOUR)).toHaveProperty("why");
  expect(running().code("isa", extend({ until_ms: 20 * HOUR + MINUTE }))).toBe("validity");
});

test("a suspended permit is extended and stays suspended; one that was never accepted is not", () => {
  const acting = running().did("wim", { type: "stop", cause: "stop-work", reason: "it smells" });
  acting.did("isa", extend());
  expect(acting.permit.state).toBe("suspended");
  const early = new Acting(draftOf({ kind: "general" }), wellFacts(once));
  expect(early.code("isa", extend({ stillOn: [], marked: [] }))).toBe("wrong state");
});

test("where air is read it was read just now", () => {
  const { permit, facts } = running({ kind: "general" });
  const hot = new Acting({ ...permit, details: DETAILS["hot work"], state: "suspended" }, facts);
  expect(hot.code("isa", extend())).toBe("air not fresh");
});
