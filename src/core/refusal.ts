/** Why the domain says no: a code and its evidence. Sentences are written in one place, below. */
export type Refusal =
  | { code: "not yours to do"; act: string; needs: readonly string[] }
  | { code: "not competent"; step: string; needs: string }
  | { code: "out of order"; step: string; first: readonly string[] }
  | { code: "already done"; what: string; by?: string }
  | { code: "wrong state"; what: string; state: string; needs: string }
  | { code: "wrong plate"; seen: string; expected: string }
  | { code: "lock missing"; step: string }
  | { code: "lock in use"; lock: string; where: string }
  | { code: "reading missing"; step: string; what: string }
  | { code: "reading not safe"; step: string; reading: number; limit: number; unit: string }
  | { code: "tester not proved"; step: string }
  | { code: "second person needed"; step: string }
  | { code: "isolation not proven"; isolation: string; open: number }
  | { code: "no isolation" }
  | { code: "issuing to oneself" }
  | { code: "closing one's own permit" }
  | { code: "not the holder"; holder: string }
  | { code: "run out"; permit: string; at: string }
  | { code: "validity"; reason: string }
  | { code: "already signed on"; permit: string }
  | { code: "not signed on"; permit: string }
  | { code: "people on"; people: readonly string[] }
  | { code: "permits open"; permits: readonly string[] }
  | { code: "isolations open"; isolations: readonly string[] }
  | { code: "plan falls short"; ways: readonly string[] }
  | { code: "accepting one's own deviation" }
  | { code: "no such shortfall"; way: string }
  | { code: "device not usable"; why: string }
  | {
      code: "would light";
      device: string;
      harms: readonly { job: string; face: string; source: string; people: readonly string[] }[];
    }
  | { code: "swap not proved"; why: string }
  | { code: "must stay passing"; device: string; job: string }
  | { code: "plant changed"; planned: number; now: number }
  | { code: "not in the crew"; job: string }
  | { code: "unknown"; what: string; name: string }
  | { code: "review too late"; hours: number; most: number }
  | { code: "own lock"; lock: string }
  | { code: "not read"; lock: string; permit: string }
  | { code: "no figure"; calculator: string; field: string; why: string }
  | { code: "count differs"; counted: number; known: number };

/** The sentence for a refusal: what is wrong, then what to do. Read once, at three in the morning. */
export function refusalSentence(refusal: Refusal): string {
  const sentence = wordsOf(refusal);
  return sentence.charAt(0).toUpperCase() + sentence.slice(1);
}

function wordsOf(refusal: Refusal): string {
  switch (refusal.code) {
    case "not yours to do":
      return `You may not ${refusal.act}. Ask a person who is ${refusal.needs.join(" or ")}.`;
    case "not competent":
      return `${refusal.step} needs ${refusal.needs} competence, which you do not have on record. Ask someone who has.`;
    case "out of order":
      return `${refusal.step} cannot be done yet. First: ${refusal.first.join("; ")}.`;
    case "already done":
      return `${refusal.what} is already done${refusal.by ? `, by ${refusal.by}` : ""}. Nothing was changed.`;
    case "wrong state":
      return `${refusal.what} is ${refusal.state}. This can be done only while it is ${refusal.needs}.`;
    case "wrong plate":
      return `The plate you read says ${refusal.seen || "nothing"}, but this point is ${refusal.expected}. Stop and find the right device.`;
    case "lock missing":
      return `${refusal.step}: write the number of the lock you hung.`;
    case "lock in use":
      return `Lock ${refusal.lock} is in use ${refusal.where}. Take another lock and write its number.`;
    case "reading missing":
      return `${refusal.step}: ${refusal.what} is missing. Measure, then write it down.`;
    case "reading not safe":
      return `${refusal.step}: ${refusal.reading} ${refusal.unit} is above ${refusal.limit} ${refusal.unit}. It is not dead. Stop, and find what still feeds it.`;
    case "tester not proved":
      return `${refusal.step}: the tester must be proved on a live source before and after. Prove it and test again.`;
    case "second person needed":
      return `${refusal.step}: you hung a lock on this isolation, so somebody else must prove it.`;
    case "isolation not proven":
      return `Isolation ${refusal.isolation} is not proven: ${refusal.open} steps are open. Finish the walk first.`;
    case "no isolation":
      return "This permit has no isolation. Approve a plan for the job first.";
    case "issuing to oneself":
      return "You are the holder of this permit, so somebody else must issue it.";
    case "closing one's own permit":
      return "You are the holder of this permit, so somebody else must inspect and close it.";
    case "not the holder":
      return `Only its holder, ${refusal.holder}, can do this.`;
    case "run out":
      return `Permit ${refusal.permit} ran out at ${refusal.at}. Work stops. Ask the issuer for a new permit.`;
    case "validity":
      return `The validity cannot stand: ${refusal.reason}.`;
    case "already signed on":
      return `You are already signed on to permit ${refusal.permit}.`;
    case "not signed on":
      return `You are not signed on to permit ${refusal.permit}.`;
    case "people on":
      return `Still signed on: ${refusal.people.join(", ")}. Each must sign off and take their own lock off first.`;
    case "permits open":
      return `Still open: ${refusal.permits.join(", ")}. Hand back and close first.`;
    case "isolations open":
      return `Not restored yet: ${refusal.isolations.join(", ")}. Finish the return first.`;
    case "plan falls short":
      return `The plan falls short at ${refusal.ways.slice(0, 4).join("; ")}${refusal.ways.length > 4 ? ` and ${refusal.ways.length - 4} more` : ""}. An approver must accept each with what is done instead, or change the job or the plant.`;
    case "accepting one's own deviation":
      return "You asked for this job, so somebody else must accept what it falls short of.";
    case "no such shortfall":
      return `The plan as it stands does not fall short at ${refusal.way}. Look at the points again.`;
    case "device not usable":
      return `${refusal.why}. Nothing was changed.`;
    case "would light":
      return `Lifting ${refusal.device} would reach people: ${refusal.harms.map(harmSentence).join("; ")}. Leave it locked until their work is over.`;
    case "swap not proved":
      return `${refusal.why} Leave the lock where it is.`;
    case "must stay passing":
      return `${refusal.device} must stay passing for job ${refusal.job}. Choose another point, or agree it with that job first.`;
    case "plant changed":
      return `The plant register changed from revision ${refusal.planned} to ${refusal.now} since this plan was shown. Look at the plan again.`;
    case "not in the crew":
      return `You are not in the crew of job ${refusal.job}. Ask the coordinator to put you on it before you sign on.`;
    case "unknown":
      return `There is no ${refusal.what} ${refusal.name}.`;
    case "review too late":
      return `The next review in ${refusal.hours} hours is too late: the rule profile allows ${refusal.most} at most.`;
    case "own lock":
      return `Lock ${refusal.lock} is your own. Take it off yourself and sign off; nobody cuts it while you are here.`;
    case "not read":
      return `Your lock ${refusal.lock} on permit ${refusal.permit} was cut. Read how that came about and sign it before anything else.`;
    case "no figure":
      return `${refusal.calculator}: ${refusal.field} ${refusal.why}. Mend it on the bench and attach it again.`;
    case "count differs":
      return `You count ${refusal.counted} locks on the box, but ${refusal.known} are on record. Nobody lifts anything until this is cleared up.`;
  }
}

function harmSentence({
  job,
  face,
  source,
  people,
}: {
  job: string;
  face: string;
  source: string;
  people: readonly string[];
}): string {
  const who = people.length > 0 ? `, where ${people.join(", ")} ${people.length === 1 ? "is" : "are"} on` : "";
  return `${source} to ${face} of job ${job}${who}`;
}
