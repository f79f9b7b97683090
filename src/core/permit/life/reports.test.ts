import {
  Acting,
  DETAILS,
  draftOf,
  HOUR,
  idOf,
  MINUTE,
  WATCH_READY,
  wellFacts,
} from "../../../../tests/support/permits";
import { dueUnder } from "./due";
import { AUDIT_LOOKS, entriesOf, type AuditFinding } from "../record/permitLog";
import type { PermitAct } from "../record/permitTypes";
import { asksOf } from "../requirements/requirements";

const POINTS = ["at the work", "at the edge"];

function issued(more: Parameters<typeof wellFacts>[0] = {}, kind: "hot work" | "line break" = "hot work") {
  const facts = wellFacts({ testPoints: kind === "hot work" ? POINTS : [], ...more });
  const acting = new Acting(draftOf(DETAILS[kind], { validTo_ms: (kind === "hot work" ? 24 : 8) * HOUR }), facts);
  return acting
    .did("cora", { type: "check" })
    .did("isa", { type: "authorise" })
    .ticked(asksOf({ permit: acting.permit, facts, now_ms: HOUR }))
    .did("isa", { type: "issue", copies: ["at the work"] });
}
const live = () =>
  issued().did("fay", { type: "take post", post: "fire watch" }).aired(POINTS).did("hal", { type: "accept" });
const missing = (acting: Acting, begins = false) =>
  asksOf({ permit: acting.permit, facts: acting.facts, now_ms: acting.at_ms, begins })
    .filter(({ unmet }) => unmet !== null)
    .map(({ id, unmet }) => `${id}: ${unmet}`);

describe("whoever watches is ready, and says so themselves", () => {
  const two = () => {
    const details = { ...DETAILS["hot work"], levels: 2 };
    const facts = wellFacts({ testPoints: POINTS });
    const acting = new Acting(draftOf(details, { validTo_ms: 24 * HOUR }), facts);
    acting.did("cora", { type: "check" }).did("isa", { type: "authorise" });
    acting.ticked(asksOf({ permit: acting.permit, facts, now_ms: HOUR }));
    return acting.did("isa", { type: "issue", copies: ["at the work"] });
  };
  test("each of them, and nobody for them", () => {
    const acting = two().did("fay", { type: "take post", post: "fire watch" });
    expect(acting.code("cora", WATCH_READY)).toBe("not on post");
    expect(acting.code("fin", WATCH_READY)).toBe("not on post");
    expect(missing(acting).filter((one) => one.startsWith("watch ready"))).toEqual([]);
    // The second has taken the duty and said nothing yet.
    acting.permit = {
      ...acting.permit,
      log: [
        ...acting.permit.log,
        { type: "post taken", post: "fire watch", person: idOf("fin"), at_ms: acting.at_ms, by: idOf("fin") },
      ],
    };
    expect(missing(acting)).toContain("watch ready: not said yet by fin");
    acting.aired(POINTS);
    expect(acting.code("hal", { type: "accept" })).toBe("asks unmet");
    acting.did("fin", WATCH_READY);
    expect(acting.code("hal", { type: "accept" })).toBe("accepted");
  });
  test("what one said stands for nobody who comes after, nor after everybody was called out", () => {
    const acting = live();
    acting.permit = {
      ...acting.permit,
      log: [
        ...acting.permit.log,
        { type: "post taken", post: "fire watch", person: idOf("fin"), at_ms: acting.at_ms, by: idOf("fin") },
        { type: "post left", post: "fire watch", person: idOf("fay"), to: idOf("fin"), at_ms: acting.at_ms, by: null },
      ],
    };
    // Work that goes on is not stopped for it; it does not begin again without it.
    acting.did("wim", { type: "stop", cause: "stop-work", reason: "smoke" }).later(MINUTE).aired(POINTS);
    expect(acting.code("isa", { type: "resume", words: "looked" })).toBe("asks unmet");
    acting.did("fin", WATCH_READY);
    expect(missing(acting, true)).toEqual([]);
    expect(acting.code("isa", { type: "resume", words: "looked" })).toBe("accepted");
  });
});

describe("a fire, however small", () => {
  const fire: PermitAct = { type: "report fire", where: "the floor", what: "a rag", out: "stamped on" };
  test("stops work at once, by anybody; the issuer looks before it goes on", () => {
    const acting = live().did("wim", fire);
    expect(acting.permit.state).toBe("suspended");
    expect(entriesOf(acting.permit.log, "stopped").at(-1)).toMatchObject({ cause: "fire" });
    expect(acting.code("hal", { type: "go on" })).toBe("issuer resumes");
  });
  test("begins the watch after the work anew", () => {
    const acting = live()
      .did("hal", { type: "hand back" })
      .later(2 * HOUR)
      .did("fay", fire);
    expect(acting.permit.state).toBe("watching");
    acting.later(2 * HOUR);
    expect(acting.code("fay", { type: "leave post", post: "fire watch" })).toBe("post needed");
    const next = dueUnder({ permit: acting.permit, facts: acting.facts, now_ms: acting.at_ms });
    expect(next.filter(({ what }) => what === "look").map(({ at_ms }) => at_ms - acting.at_ms)).toContain(90 * MINUTE);
  });
  test("after the watch had ended it is kept anew, and an inspection of before counts no more", () => {
    const acting = live()
      .did("hal", { type: "hand back" })
      .later(3 * HOUR);
    const looks = () => {
      for (let look = 0; look < 6; look++) acting.later(30 * MINUTE).did("fay", { type: "watch check", words: "cold" });
      acting.did("ana", { type: "final check", words: "cold" });
      return acting.did("fay", { type: "tell control room", who: "Ines" }).did("fay", { type: "end watch" });
    };
    looks().did("isa", { type: "inspect", words: "cold" }).did("hal", { type: "return copy", copy: 1 });
    expect(acting.code("isa", { type: "close" })).toBe("accepted");
    acting.later(MINUTE).did("will", fire);
    expect(acting.permit.state).toBe("watching");
    expect(acting.code("fay", { type: "end watch" })).toBe("watch not over");
    acting.later(3 * HOUR);
    looks();
    expect(acting.code("isa", { type: "close" })).toBe("not inspected");
    acting.did("isa", { type: "inspect", words: "cold" });
    expect(acting.code("isa", { type: "close" })).toBe("accepted");
  });
  test("without hot work an inspection of before a fire counts no more either", () => {
    const acting = issued({}, "line break").did("hal", { type: "accept" }).did("hal", { type: "hand back" });
    acting.did("hal", { type: "return copy", copy: 1 }).did("isa", { type: "inspect", words: "tight" });
    acting.did("wim", fire);
    expect(acting.permit.state).toBe("work done");
    expect(acting.code("isa", { type: "close" })).toBe("not inspected");
  });
});

describe("an audit on the spot", () => {
  const found = (finding: AuditFinding = "as written") =>
    Object.fromEntries(AUDIT_LOOKS.map((look, i) => [look, i === 1 ? finding : "as written"])) as Record<
      (typeof AUDIT_LOOKS)[number],
      AuditFinding
    >;
  test("is by somebody who is no part of the work, and changes nothing where all is as written", () => {
    const acting = live().did("wim", { type: "sign on", lock: "L-1", answer: "P-7" });
    for (const who of ["hal", "wim", "fay"]) {
      expect(acting.code(who, { type: "audit", found: found(), words: "" })).not.toBe("accepted");
    }
    acting.did("ana", { type: "audit", found: found(), words: "" });
    expect(acting.permit.state).toBe("live");
  });
  test("what is not as written stops the work, and is said in words", () => {
    const acting = live();
    expect(acting.code("ana", { type: "audit", found: found("not as written"), words: "" })).toBe("say what was found");
    acting.did("ana", { type: "audit", found: found("not as written"), words: "A tag is gone." });
    expect(acting.permit.state).toBe("suspended");
    expect(entriesOf(acting.permit.log, "stopped").at(-1)).toMatchObject({
      cause: "audit",
      reason: "not as written: locks and tags. A tag is gone.",
    });
  });
});

test("somebody who would not sign is written down as it was said; nothing else changes", () => {
  const acting = live();
  const before = acting.permit;
  acting.did("wim", { type: "note refusal", who: "a rigger", what: "sign on", words: "In a hurry." });
  expect(acting.permit).toEqual({ ...before, log: acting.permit.log });
  expect(acting.permit.log.at(-1)).toMatchObject({ type: "would not sign", who: "a rigger", by: "wim" });
});

describe("readings from paper, of a time without the server", () => {
  const CLEAN = { oxygen: 0.209, flammable: 0, toxics: [] };
  const paper = (acting: Acting, drawn: number, read: number, more: object = {}): PermitAct => ({
    type: "enter paper reading",
    point: POINTS[0]!,
    instrument: "GI-1",
    reading: CLEAN,
    reader: idOf("gil"),
    drawn_ms: acting.at_ms + drawn,
    read_ms: acting.at_ms + read,
    ...more,
  });
  const after = (ms = 20 * MINUTE) => live().later(ms);

  test("count from when they were read, by whom they were read, with who typed them in", () => {
    const acting = issued().later(HOUR);
    const at_ms = acting.at_ms;
    acting.did("cora", paper(acting, -20 * MINUTE, -15 * MINUTE));
    expect(acting.permit.log.at(-1)).toMatchObject({
      type: "air",
      by: "gil",
      at_ms: at_ms - 15 * MINUTE,
      drawn_ms: at_ms - 20 * MINUTE,
      typedBy: "cora",
      typed_ms: at_ms,
    });
    acting.did("cora", paper(acting, -14 * MINUTE, -10 * MINUTE, { point: POINTS[1] }));
    expect(missing(acting).filter((one) => one.startsWith("air"))).toEqual([]);
    acting.did("fay", { type: "take post", post: "fire watch" });
    expect(acting.code("hal", { type: "accept" })).toBe("accepted");
    // Not younger than they are: when work begins every reading is at most half an hour old.
    acting.later(16 * MINUTE);
    expect(missing(acting, true).filter((one) => one.startsWith("air"))).not.toEqual([]);
  });
  test("cannot be read before they were drawn, sooner than the hose takes, in the future, or of yesterday", () => {
    const acting = issued().later(HOUR);
    expect(acting.code("cora", paper(acting, -10 * MINUTE, -10 * MINUTE))).toBe("paper order");
    expect(acting.code("cora", paper(acting, -10 * MINUTE, -9.9 * MINUTE))).toBe("read too early");
    expect(acting.code("cora", paper(acting, -MINUTE, MINUTE))).toBe("paper order");
    expect(acting.code("cora", paper(acting, -25 * HOUR, -24.9 * HOUR))).toBe("paper order");
    expect(acting.code("cora", paper(acting, -10 * MINUTE, -5 * MINUTE, { reader: idOf("wim") }))).toBe(
      "not yours to do",
    );
    expect(acting.code("wim", paper(acting, -10 * MINUTE, -5 * MINUTE))).toBe("not yours to do");
    expect(acting.code("cora", paper(acting, -10 * MINUTE, -5 * MINUTE, { point: "elsewhere" }))).toBe("unknown");
    const zeroed = { oxygen: null, flammable: 0, toxics: [] };
    expect(acting.code("cora", paper(acting, -10 * MINUTE, -5 * MINUTE, { reading: zeroed }))).toBe("gas order");
  });
  test("of work that was under way without the server it stands stopped; they are kept, and the air is read anew", () => {
    const acting = live().later(3 * HOUR);
    acting.did("cora", paper(acting, -20 * MINUTE, -15 * MINUTE));
    expect(acting.permit.state).toBe("suspended");
    expect(acting.permit.log.at(-1)).toMatchObject({ type: "air noted" });
    expect(acting.code("isa", { type: "resume", words: "looked" })).toBe("asks unmet");
  });
  test("from before the last thing on record they count for nothing, and are kept", () => {
    const acting = after().did("wim", { type: "stop", cause: "stop-work", reason: "smoke" });
    acting.later(MINUTE);
    const before = missing(acting);
    acting.did("cora", paper(acting, -10 * MINUTE, -5 * MINUTE));
    expect(acting.permit.log.at(-1)).toMatchObject({ type: "air noted", reader: "gil", by: "cora" });
    expect(missing(acting)).toEqual(before);
  });
  test("a bad one counts whenever it was, and stops work that goes on", () => {
    const acting = after().did("hal", { type: "note refusal", who: "x", what: "y", words: "z" });
    acting.later(MINUTE);
    const bad = { oxygen: 0.209, flammable: 0.5, toxics: [] };
    acting.did("cora", paper(acting, -10 * MINUTE, -5 * MINUTE, { reading: bad }));
    expect(acting.permit.state).toBe("suspended");
    expect(entriesOf(acting.permit.log, "stopped").at(-1)).toMatchObject({ cause: "gas" });
    expect(missing(acting)).toEqual(expect.arrayContaining([expect.stringMatching(/^air/)]));
    const times = acting.permit.log.map(({ at_ms }) => at_ms);
    expect(times).toEqual([...times].sort((a, b) => a - b));
  });
});
