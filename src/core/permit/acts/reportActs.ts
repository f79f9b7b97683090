import { accept, refuse } from "../../refusal/result";
import { inside } from "../people/entries";
import { onPost } from "../people/posts";
import { rollOf } from "../people/roll";
import { notAsWritten, withEntries } from "../record/permitLog";
import { peopleOn, type CommandOf, type PermitFacts, type PermitLife } from "../record/permitTypes";
import { stopped } from "./stopped";

/** What is reported of a permit by people who see it: a fire, a refusal, who answers, an audit on the spot. */
export const reportActs = {
  /** However small: work stops, and a watch after the work begins anew. Nobody is asked whether it was worth it. */
  "report fire": (permit: PermitLife, command: CommandOf<"report fire">) => {
    const { where, what, out } = command;
    const told = withEntries(permit, command, { type: "fire reported", where, what, out });
    return accept(
      permit.state === "live" ? stopped(told, command.at_ms, command.by, "fire", `fire at ${where}: ${what}`) : told,
    );
  },

  /** Kept as it was said. It stops nothing: who has not signed is not on, and what was not written down is asked still. */
  "note refusal": (permit: PermitLife, command: CommandOf<"note refusal">) => {
    const { who, what, words } = command;
    return accept(withEntries(permit, command, { type: "would not sign", who, what, words }));
  },

  /** It stops nothing: who did not answer is looked for, and stands as missing until they answer or are off. */
  "call roll": (permit: PermitLife, command: CommandOf<"call roll">, facts: PermitFacts) => {
    const there = rollOf(permit);
    if (there.length === 0) return refuse({ code: "nobody there", permit: permit.number });
    const stranger = command.seen.find((person) => !there.includes(person));
    if (stranger !== undefined) {
      return refuse({ code: "not of the roll", who: facts.nameOf(stranger), permit: permit.number });
    }
    const seen = there.filter((person) => command.seen.includes(person));
    const missing = there.filter((person) => !command.seen.includes(person));
    return accept(withEntries(permit, command, { type: "roll called", seen, missing }));
  },

  /** By somebody who is no part of the work. What is found other than written stops it until an issuer has looked. */
  audit: (permit: PermitLife, command: CommandOf<"audit">, facts: PermitFacts) => {
    const isOfIt = [...peopleOn(permit), ...onPost(permit.log), ...inside(permit.log)].some(
      ({ person }) => person === command.by,
    );
    if (command.by === permit.holder) return refuse({ code: "one's own permit" });
    if (isOfIt) return refuse({ code: "other duty", who: facts.nameOf(command.by!), where: permit.number });
    const { found, words } = command;
    const wrong = notAsWritten(found);
    if (wrong.length > 0 && words === "") return refuse({ code: "say what was found", looks: wrong });
    const audited = withEntries(permit, command, { type: "audited", found, words });
    if (wrong.length === 0 || permit.state !== "live") return accept(audited);
    return accept(
      stopped(audited, command.at_ms, command.by, "audit", `not as written: ${wrong.join(", ")}. ${words}`),
    );
  },
};
