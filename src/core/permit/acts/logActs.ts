import { entryLogActs } from "./entryActs";
import { gasActs } from "./gasActs";
import { paperActs } from "./paperReading";
import { postActs } from "./postActs";
import { reportActs } from "./reportActs";
import { thingActs } from "./thingActs";
import type { Result } from "../../refusal/result";
import type { CommandOf, PermitCommand, PermitFacts, PermitLife } from "../record/permitTypes";

const DECIDERS = { ...gasActs, ...postActs, ...entryLogActs, ...thingActs, ...reportActs, ...paperActs };

export type LogAct = CommandOf<keyof typeof DECIDERS>;

/** How one act of the log is decided: new entries on the permit, or why not. */
type Decider = (permit: PermitLife, command: LogAct, facts: PermitFacts) => Result<PermitLife>;

/** Acts that only add to the log; the state moves by what the log then says. */
export function isLogAct(command: PermitCommand): command is LogAct {
  return command.type in DECIDERS;
}

export function decideLogAct(permit: PermitLife, command: LogAct, facts: PermitFacts): Result<PermitLife> {
  return (DECIDERS[command.type] as Decider)(permit, command, facts);
}
