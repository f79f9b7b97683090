import type { LiftHarm } from "../../refusal/refusal";
import type { SwapFault } from "../../refusal/swapFault";

/** Why a point is not swapped for another. */
export function swapWords(fault: SwapFault): string {
  switch (fault.code) {
    case "unknown device":
      return `${fault.device} is no device of the register.`;
    case "not a barrier":
      return `${fault.device} may not be counted as a barrier.`;
    case "not as good":
      return `${fault.to} does not isolate as well as ${fault.from}.`;
    case "needed passing":
      return `Job ${fault.job} needs ${fault.device} passing.`;
    case "harm": {
      const [harm] = fault.harms;
      if (harm === undefined) return "It would leave somebody with too few barriers.";
      const { source, depth, face, job, people, needs, grade, asked } = harm;
      const who = people.length > 0 ? `, where ${people.join(", ")} ${people.length === 1 ? "is" : "are"} on` : "";
      if (depth < needs || grade === null || grade === undefined) {
        return `Without it ${source} has ${depth} ${depth === 1 ? "barrier" : "barriers"} to ${face} of job ${job}${who}, and ${needs} ${needs === 1 ? "is" : "are"} needed.`;
      }
      return `Without it ${source} to ${face} of job ${job}${who} is no better than ${grade}, and ${asked} is needed.`;
    }
  }
}

/** What lifting a lock would do to the work of others. */
export function harmSentence({ job, face, source, depth, grade, people }: LiftHarm): string {
  const who = people.length > 0 ? `, where ${people.join(", ")} ${people.length === 1 ? "is" : "are"} on` : "";
  const left = grade === undefined || grade === null || depth === 0 ? "" : `, left ${grade}`;
  return `${source} to ${face} of job ${job}${who}${left}`;
}
