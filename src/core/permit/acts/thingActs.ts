import { accept, refuse } from "../../refusal/result";
import { onPost } from "../people/posts";
import { copiesOf, putInOf, withEntries } from "../record/permitLog";
import type { CommandOf, PermitFacts, PermitLife } from "../record/permitTypes";
import { asksOf } from "../requirements/requirements";

/** What is ticked, decided, hung and put in. */
export const thingActs = {
  tick: (permit: PermitLife, command: CommandOf<"tick">, facts: PermitFacts) => {
    const ask = asksOf({ permit, facts, now_ms: command.at_ms }).find(({ id }) => id === command.ask);
    if (ask === undefined) return refuse({ code: "unknown", what: "requirement", name: command.ask });
    if (!ask.byHand) return refuse({ code: "not by hand", words: ask.words, unmet: ask.unmet });
    const { only } = ask;
    const isTheirs = onPost(permit.log).some(({ post, person }) => post === only && person === command.by);
    if (only !== undefined && !isTheirs) return refuse({ code: "not on post", permit: permit.number, post: only });
    return accept(withEntries(permit, command, { type: "ticked", ask: command.ask, words: command.words }));
  },

  "decide clash": (permit: PermitLife, command: CommandOf<"decide clash">, facts: PermitFacts) => {
    const clash = facts.clashes.find(({ id }) => id === command.clash);
    if (clash === undefined) return refuse({ code: "unknown", what: "clash", name: command.clash });
    const { decision, reason } = command;
    return accept(
      withEntries(permit, command, { type: "clash decided", clash: clash.id, words: clash.words, decision, reason }),
    );
  },

  "hang copy": (permit: PermitLife, command: CommandOf<"hang copy">) => {
    const copy = copiesOf(permit.log).length + 1;
    const { where, second } = command;
    return accept(withEntries(permit, command, { type: "copy hung", copy, where, second }));
  },

  "return copy": (permit: PermitLife, command: CommandOf<"return copy">) => {
    const hanging = copiesOf(permit.log).filter(({ returned_ms }) => returned_ms === null);
    if (!hanging.some(({ copy }) => copy === command.copy)) {
      return refuse({ code: "unknown", what: "copy that still hangs, with number", name: String(command.copy) });
    }
    return permit.state === "live" && hanging.length === 1
      ? refuse({ code: "last copy", permit: permit.number })
      : accept(withEntries(permit, command, { type: "copy returned", copy: command.copy }));
  },

  "put in": (permit: PermitLife, command: CommandOf<"put in">) => {
    const thing = putInOf(permit.log).length + 1;
    const { what, where } = command;
    return accept(withEntries(permit, command, { type: "put in", thing, what, where }));
  },

  "take out": (permit: PermitLife, command: CommandOf<"take out">) => {
    const thing = putInOf(permit.log).find((one) => one.thing === command.thing && one.out_ms === null);
    return thing === undefined
      ? refuse({ code: "unknown", what: "thing still in place, with number", name: String(command.thing) })
      : accept(withEntries(permit, command, { type: "taken out", thing: command.thing }));
  },

  "safeguard back": (permit: PermitLife, command: CommandOf<"safeguard back">) =>
    permit.details.kind === "safeguard bypass"
      ? accept(withEntries(permit, command, { type: "safeguard back", words: command.words }))
      : refuse({ code: "not of this kind", permit: permit.number, kind: permit.details.kind }),
};
