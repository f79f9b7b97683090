import fc from "fast-check";
import { Acting, DETAILS, draftOf, HOUR, idOf, wellFacts } from "../../../../tests/support/permits";
import { signedBy, tickOf } from "../record/permitLog";
import type { PermitAct } from "../record/permitTypes";
import { asksOf } from "../requirements/requirements";

const general = () => new Acting(draftOf({ kind: "general" }), wellFacts());
const change = (more: Partial<Extract<PermitAct, { type: "change" }>> = {}): PermitAct => ({
  type: "change",
  what: ["its end"],
  holder: idOf("hal"),
  validFrom_ms: 0,
  validTo_ms: 6 * HOUR,
  details: { kind: "general" },
  ...more,
});
const back: PermitAct = { type: "send back", words: "the end is too late" };

describe("a permit is sent back, put right and signed anew", () => {
  test("by who is to sign it or did, with remarks, from checked to issued, and never once it was accepted", () => {
    const acting = general();
    expect(acting.code("isa", back)).toBe("wrong state");
    acting.did("cora", { type: "check" });
    expect(acting.code("hal", back)).toBe("not yours to do");
    expect(acting.code("ana", back)).toBe("accepted");
    acting.did("isa", { type: "authorise" }).did("isa", { type: "issue", copies: ["at the work"] });
    expect(acting.code("isa", back)).toBe("not back");
    acting.did("hal", { type: "return copy", copy: 1 });
    acting.did("isa", back);
    expect(acting.permit).toMatchObject({ state: "draft", issuer: null });
    acting.did("cora", { type: "check" }).did("isa", { type: "authorise" });
    acting.did("isa", { type: "issue", copies: ["at the work"] }).did("hal", { type: "accept" });
    expect(acting.code("isa", back)).toBe("wrong state");
  });
  test("what was signed and looked at before counts no more", () => {
    const bypass = new Acting(draftOf(DETAILS["safeguard bypass"]), wellFacts());
    bypass.did("cora", { type: "check" }).did("ana", { type: "approve", words: "for a day" });
    bypass.ticked(asksOf({ permit: bypass.permit, facts: bypass.facts, now_ms: HOUR }));
    expect(tickOf(bypass.permit.log, "compensation")).toBeDefined();
    bypass.did("isa", { ...back, words: "say who watches" } as PermitAct);
    expect(signedBy(bypass.permit.log, "check")).toBeUndefined();
    expect(signedBy(bypass.permit.log, "approve")).toBeUndefined();
    expect(tickOf(bypass.permit.log, "compensation")).toBeUndefined();
    bypass.did("cora", { type: "check" }).did("isa", { type: "authorise" });
    expect(bypass.code("isa", { type: "issue", copies: ["at the panel"] })).toBe("asks unmet");
  });
  test("a draft is changed by its holder or who checks, of the same kind, and only while it is one", () => {
    const acting = general();
    expect(acting.code("wim", change())).toBe("not yours to do");
    expect(acting.code("hal", change({ details: DETAILS["line break"] }))).toBe("not of this kind");
    acting.did("hal", change({ holder: idOf("hob") }));
    expect(acting.permit).toMatchObject({ holder: "hob", validTo_ms: 6 * HOUR });
    acting.did("cora", { type: "check" });
    expect(acting.code("hob", change())).toBe("wrong state");
  });
  test("its holder and the coordinator cancel a draft; nobody one that was accepted", () => {
    expect(general().code("hal", { type: "cancel" })).toBe("accepted");
    expect(general().code("cora", { type: "cancel" })).toBe("accepted");
    expect(general().code("wim", { type: "cancel" })).toBe("not yours to do");
  });
  test("whatever is signed, sent back and changed in whatever order, it is issued only on signatures of its last words", () => {
    const acts: readonly (readonly [string, PermitAct])[] = [
      ["cora", { type: "check" }],
      ["isa", { type: "authorise" }],
      ["isa", { type: "issue", copies: [] }],
      ["isa", back],
      ["hal", change()],
      ["hal", change({ validTo_ms: 7 * HOUR })],
    ];
    fc.assert(
      fc.property(fc.array(fc.nat(acts.length - 1), { maxLength: 40 }), (order) => {
        const acting = general();
        let [checked, authorised] = [false, false];
        for (const at of order) {
          const [who, act] = acts[at]!;
          if (acting.code(who, act) !== "accepted") continue;
          acting.did(who, act);
          if (act.type === "send back" || act.type === "change") [checked, authorised] = [false, false];
          if (act.type === "check") checked = true;
          if (act.type === "authorise") authorised = true;
          if (act.type === "issue") expect([checked, authorised]).toEqual([true, true]);
        }
      }),
    );
  });
});
