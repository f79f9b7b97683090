import { accept, refuse } from "../../refusal/result";
import { inside } from "../people/entries";
import { withEntries } from "../record/permitLog";
import { peopleOn, type CommandOf, type PermitFacts, type PermitLife } from "../record/permitTypes";
import { onPost } from "../people/posts";
import { keeps } from "../air/airRules";
import { airInside } from "../requirements/air";
import { asksOf } from "../requirements/requirements";

/** Who goes in and comes out, and the calls to those inside; written by the attendant. */
export const entryLogActs = {
  "go in": (permit: PermitLife, command: CommandOf<"go in">, facts: PermitFacts) => {
    const { details } = permit;
    if (details.kind !== "confined space entry") return notAnEntry(permit);
    const no = attends(permit, command);
    if (no) return no;
    if (!peopleOn(permit).some(({ person }) => person === command.person)) {
      return refuse({ code: "not on", who: facts.nameOf(command.person), permit: permit.number });
    }
    const within = inside(permit.log);
    if (within.some(({ person }) => person === command.person)) {
      return refuse({ code: "still inside", people: [facts.nameOf(command.person)] });
    }
    if (within.length >= details.most) {
      return refuse({
        code: "space full",
        most: details.most,
        people: within.map(({ person }) => facts.nameOf(person)),
      });
    }
    const context = { permit, facts, now_ms: command.at_ms, begins: within.length === 0 };
    const corners = keeps("first entrant") && facts.insidePoints.length > 0 ? airInside(context) : null;
    if (within.length > 0 && corners !== null && !corners.fit) {
      return refuse({ code: "corners first", wants: corners.wants.slice(0, 3) });
    }
    const missing = asksOf(context).filter(({ unmet }) => unmet !== null);
    if (missing.length > 0) {
      const asks = missing.map(({ words, unmet }) => `${words}: ${unmet}`);
      return refuse({ code: "asks unmet", permit: permit.number, asks });
    }
    return accept(withEntries(permit, command, { type: "went in", person: command.person }));
  },

  "come out": (permit: PermitLife, command: CommandOf<"come out">, facts: PermitFacts) => {
    if (permit.details.kind !== "confined space entry") return notAnEntry(permit);
    // In an alarm nobody waits for the attendant's hand to write: whoever is out says so.
    const mayWrite = command.by === command.person || command.by === permit.holder || attends(permit, command) === null;
    if (!mayWrite) return attends(permit, command)!;
    if (!inside(permit.log).some(({ person }) => person === command.person)) {
      return refuse({ code: "not inside", who: facts.nameOf(command.person) });
    }
    return accept(withEntries(permit, command, { type: "came out", person: command.person }));
  },

  talk: (permit: PermitLife, command: CommandOf<"talk">) => {
    if (permit.details.kind !== "confined space entry") return notAnEntry(permit);
    return attends(permit, command) ?? accept(withEntries(permit, command, { type: "talked" }));
  },
};

function attends(permit: PermitLife, command: Readonly<{ by: string | null }>) {
  return onPost(permit.log).some(({ post, person }) => post === "attendant" && person === command.by)
    ? null
    : refuse({ code: "not on post", permit: permit.number, post: "attendant" });
}

function notAnEntry(permit: PermitLife) {
  return refuse({ code: "not of this kind", permit: permit.number, kind: permit.details.kind });
}
