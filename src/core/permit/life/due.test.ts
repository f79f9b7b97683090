import { Acting, DETAILS, draftOf, HOUR, idOf, MINUTE, wellFacts } from "../../../../tests/support/permits";
import { dueUnder } from "./due";
import { logWords, readingWords } from "../record/logWords";
import type { LogEntry, NewEntry } from "../record/permitLog";
import { asksOf } from "../requirements/requirements";

const dueOf = ({ permit, facts, at_ms }: Acting) =>
  dueUnder({ permit, facts, now_ms: at_ms }).map(({ what, at_ms: at }) => [what, at]);

describe("what falls due", () => {
  test("a draft nothing, an issued permit its end", () => {
    const acting = new Acting(draftOf({ kind: "general" }), wellFacts());
    expect(dueOf(acting)).toEqual([]);
    acting
      .did("cora", { type: "check" })
      .did("isa", { type: "authorise" })
      .did("isa", { type: "issue", copies: ["at the work"] });
    expect(dueOf(acting)).toEqual([["ends", 8 * HOUR]]);
  });
  test("a live permit its revalidation half an hour after a shift changed, soonest first", () => {
    const facts = wellFacts({ shiftChanges_ms: (from, to) => (from < 2 * HOUR && to >= 2 * HOUR ? [2 * HOUR] : []) });
    const acting = new Acting(draftOf({ kind: "general" }), facts);
    acting
      .did("cora", { type: "check" })
      .did("isa", { type: "authorise" })
      .did("isa", { type: "issue", copies: ["at the work"] });
    acting.did("hal", { type: "accept" }).later(HOUR);
    expect(dueOf(acting)).toEqual([
      ["revalidate", 2 * HOUR + 30 * MINUTE],
      ["ends", 8 * HOUR],
    ]);
    acting.did("isa", { type: "revalidate", words: "as it was" });
    expect(dueOf(acting)).toEqual([["ends", 8 * HOUR]]);
  });
  test("hot work the age of its oldest reading, and none while an instrument reads all the time", () => {
    const facts = wellFacts({ testPoints: ["at the work"] });
    const acting = new Acting(draftOf(DETAILS["hot work"]), facts);
    acting.did("cora", { type: "check" }).did("isa", { type: "authorise" });
    acting
      .ticked(asksOf({ permit: acting.permit, facts, now_ms: HOUR }))
      .did("isa", { type: "issue", copies: ["at the work"] });
    acting.did("fay", { type: "take post", post: "fire watch" }).aired(["at the work"]).did("hal", { type: "accept" });
    expect(dueOf(acting)[0]).toEqual(["retest", acting.at_ms + 120 * MINUTE]);
    acting.facts = {
      ...facts,
      detectors: [
        {
          id: "GD-1",
          place: "at the work",
          kind: "gas" as const,
          reads: ["oxygen", "flammable"],
          against: [],
          silent: false,
          silentFrom_ms: Infinity,
        },
      ],
    };
    expect(dueOf(acting)).toEqual([["ends", 8 * HOUR]]);
  });
});

describe("a line of the log", () => {
  const words = (entry: NewEntry) =>
    logWords({ ...entry, at_ms: 0, by: idOf("hal") } as LogEntry, (id) => id.toUpperCase(), String);
  test("says who, where and what, and nothing that is no word", () => {
    const lines = [
      words({ type: "stopped", cause: "gas", reason: "18 % in the corner", evacuate: true }),
      words({ type: "post left", post: "fire watch", person: idOf("fay"), to: idOf("fin") }),
      words({ type: "copy hung", copy: 2, where: "at gate 2", second: true }),
      words({ type: "purge begun", need_s: 1201 }),
      words({ type: "signed", act: "resume", words: "vent shut" }),
    ];
    expect(lines).toEqual([
      "Stopped, everybody out (gas): 18 % in the corner",
      "FAY off post, FIN stays on it",
      "Second copy 2 hangs at gate 2",
      "Purge begun, for 21 min",
      "Work goes on: vent shut",
    ]);
  });
  test("a reading stands as on a display, and what was not read is said", () => {
    const toxics = [{ gas: "carbon monoxide", fraction: 12e-6 }];
    expect(readingWords({ oxygen: 0.209, flammable: null, toxics })).toBe(
      "O₂ 20.9 %, flammable not read, carbon monoxide 12 ppm",
    );
  });
});
