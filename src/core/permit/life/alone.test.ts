import { command, DETAILS, draftOf, HOUR, idOf, isolationNow, wellFacts } from "../../../../tests/support/permits";
import type { PermitAct, PermitFacts, PermitLife } from "../record/permitTypes";
import { checkPermit } from "./checkPermit";
import { decidePermit } from "./permitLife";

/** The short route: one person begins and ends it alone, behind their own lock. */
const minor: PermitFacts["minor"] = { lock: { number: "H-1", by: idOf("hal") }, failed: [], crew: [] };
const checked = (more: Partial<PermitLife> = {}) =>
  draftOf(DETAILS["minor isolation"], { state: "checked", holder: idOf("hal"), validTo_ms: 4 * HOUR, ...more });
function did(permit: PermitLife, who: string, act: PermitAct, more: Partial<PermitFacts> = {}, at = HOUR) {
  const facts = wellFacts({ minor, ...more });
  const decided = decidePermit(permit, command(who, at, act), facts);
  if (decided.ok) checkPermit(decided.value, facts, at);
  return decided.ok ? decided.value : decided.refusal.code;
}
const begin = { type: "begin alone" } as const;
const end = { type: "end alone" } as const;

test("begun by its holder it is live, with them on behind their own lock, and ended it is closed with nobody on", () => {
  const live = did(checked(), "hal", begin) as PermitLife;
  expect(live).toMatchObject({ state: "live", issuer: null });
  expect(live.signOns).toEqual([{ person: "hal", lock: "H-1", points: {}, on_ms: HOUR, off_ms: null }]);
  const over = did(live, "hal", end, {}, 2 * HOUR) as PermitLife;
  expect(over).toMatchObject({ state: "closed", closedBy: "hal" });
  expect(over.signOns[0]!.off_ms).toBe(2 * HOUR);
});

test.each<[string, Partial<PermitFacts>, string]>([
  ["no lock hangs", { minor: { ...minor, lock: null } }, "asks unmet"],
  ["another hung it", { minor: { ...minor, lock: { number: "H-1", by: idOf("wim") } } }, "lock of another"],
  ["a proof failed", { minor: { ...minor, failed: ["prove DR (power)"] } }, "asks unmet"],
  ["others are in the crew", { minor: { ...minor, crew: [idOf("hal"), idOf("wim")] } }, "asks unmet"],
  ["nobody knows what hangs", { minor: null }, "asks unmet"],
  ["another permit is open", { ofJob: [{ number: "P-2", kind: "general", state: "draft" }] }, "asks unmet"],
  [
    "its hazards ask for more",
    { required: [{ kind: "hot work", because: "a torch", rule: "", places: null }] },
    "asks unmet",
  ],
  [
    "it is not proven",
    { isolations: [isolationNow({ code: "not proven", isolation: "S-1", state: "isolating", openSteps: 1 })] },
    "isolation not proven",
  ],
  ["a proof is stale", { stale: ["prove DR"] }, "prove again"],
  ["a muster is open", { muster: "M-1" }, "asks unmet"],
  [
    "the shift changes before it ends",
    { shiftChanges_ms: (from, to) => [from + 1].filter((at) => at <= to) },
    "validity",
  ],
  ["they are at other work", { atOtherWork: () => "P-9" }, "at other work"],
])("it is not begun where %s", (_, more, code) => {
  expect(did(checked(), "hal", begin, more)).toBe(code);
});

test("only its holder begins it, within its time, and other permits are not begun so", () => {
  expect(did(checked(), "wim", begin)).toBe("not the holder");
  expect(did(checked({ validFrom_ms: 2 * HOUR }), "hal", begin)).toBe("validity");
  expect(did(checked(), "hal", begin, {}, 5 * HOUR)).toBe("run out");
  expect(did(draftOf(DETAILS.general, { state: "checked" }), "hal", begin)).toBe("short route");
  expect(did(draftOf(DETAILS.general, { state: "live", issuer: idOf("isa") }), "hal", end)).toBe("short route");
});

test("nobody comes in between, and another ends it only once nobody is on", () => {
  const live = did(checked(), "hal", begin) as PermitLife;
  for (const act of [
    { type: "sign off" },
    { type: "hand back" },
    { type: "sign on", lock: "W-1", answer: "P-7" },
    { type: "hand over", pairs: [] },
    { type: "put in", what: "cap", where: "vent" },
  ] as const) {
    expect({ act, code: did(live, act.type === "hand over" ? "isa" : "hal", act) }).toEqual({
      act,
      code: "short route",
    });
  }
  expect(did(live, "isa", { type: "revalidate", words: "Seen." })).toBe("short route");
  expect(did(live, "isa", end)).toBe("people on");
  const cut = did(live, "isa", { type: "lock cut", of: idOf("hal") }) as PermitLife;
  expect(did(cut, "isa", end)).toMatchObject({ state: "closed", closedBy: "isa" });
});

test("it stops by itself when it is no minor isolation any more, and its holder still ends it", () => {
  const live = did(checked(), "hal", begin) as PermitLife;
  const more = { minor: { ...minor, crew: [idOf("hal"), idOf("wim")] } };
  const stopped = did(live, "hal", { type: "note refusal", who: "wim", what: "wait", words: "No." }, more);
  expect(stopped).toMatchObject({ state: "suspended" });
  expect(did(stopped as PermitLife, "hal", end, more)).toMatchObject({ state: "closed" });
});
