import { crewSentence } from "./crew";
import { procedureSentence } from "./procedures";
import { shortRouteSentence } from "./minor";
import { notAppointedWords, notInductedWords } from "./appointed";
import { endsOnce } from "./endsOnce";
import { passingWords } from "./passingWords";
import { permitState } from "./permitState";
import { duration } from "../../units/format";
import { notHeldSentence, procedureUnsafeWords } from "./planRefusals";
import type { Refusal } from "../../refusal/refusal";
import { harmSentence, swapWords } from "./harms";

/** The sentence for a refusal: what is wrong, then what to do. Read once, at three in the morning. */
export function refusalSentence(refusal: Refusal): string {
  const sentence = endsOnce(wordsOf(refusal));
  return sentence.charAt(0).toUpperCase() + sentence.slice(1);
}

function wordsOf(refusal: Refusal): string {
  switch (refusal.code) {
    case "not yours to do":
      return `You may not ${refusal.act}. Ask a person who is ${refusal.needs.join(" or ")}.`;
    case "not competent":
      return `${refusal.step} needs ${refusal.needs} competence, which you do not have on record, or not any more. Ask someone who has.`;
    case "out of order":
      return `${refusal.step} cannot be done yet. First: ${refusal.first.join("; ")}.`;
    case "already done":
      return `${refusal.what} is already done${refusal.by ? `, by ${refusal.by}` : ""}. Nothing was changed.`;
    case "wrong state":
      return `${refusal.what} is ${permitState(refusal.state)}. This can be done only while it is ${refusal.needs === "not live" ? "not active" : permitState(refusal.needs)}.`;
    case "wrong plate":
      return `The plate you read says ${refusal.seen || "nothing"}, and that is not what the plate of this point says. Stop and find the right device.`;
    case "lock missing":
      return `${refusal.step}: write the number of the lock you hung.`;
    case "lock in use":
      return `Lock ${refusal.lock} is in use ${refusal.where}. Take another lock and write its number.`;
    case "reading missing":
      return `${refusal.step}: ${refusal.what} is missing. Find out, then write it down.`;
    case "reading not safe":
      return `${refusal.step}: ${refusal.reading} ${refusal.unit}${refusal.error > 0 ? ` read with an instrument that may be off by ${refusal.error} ${refusal.unit}` : ""} is not surely below ${refusal.limit} ${refusal.unit}. It is not dead. Stop, and find what still feeds it, or take a better instrument.`;
    case "tester not proved":
      return `${refusal.step}: the tester must be proved on a live source before and after. Prove it and test again.`;
    case "not zero":
      return `${refusal.step}: ${refusal.reading} ${refusal.unit} is more than this instrument may be off, ${refusal.error} ${refusal.unit}. Something is there. Stop, and find what still feeds it.`;
    case "it started":
      return `${refusal.step}: it started. Everybody away from it, and find what still drives it.`;
    case "cause first":
      return `${refusal.step} failed before. Find out why and write it down, then prove it again.`;
    case "same hands":
      return `${refusal.step} failed in your hands. Somebody else proves it again, or you with another instrument.`;
    case "nothing failed":
      return `${refusal.step} has not failed, so there is nothing to answer.`;
    case "another takes it back":
      return `${refusal.step} was entered by ${refusal.by}. Another person who looked at the instrument says what it showed.`;
    case "needs another plan":
      return `${refusal.step} cannot be freed: ${refusal.why}. Only another plan answers that.`;
    case "another frees it":
      return `${refusal.step} was held up by ${refusal.by}. Somebody else who looked says that it can be done now.`;
    case "second person needed":
      return `${refusal.step}: you hung a lock on this isolation, so somebody else must prove it.`;
    case "isolation not proven":
      return `Isolation ${refusal.isolation} is not proven: ${refusal.open} steps are open. Finish its steps first.`;
    case "not held":
      return notHeldSentence(refusal);
    case "no isolation":
      return "This permit has no isolation. Approve a plan for the job first.";
    case "own procedure":
    case "two people":
    case "nobody watched":
    case "inspecting oneself":
    case "procedure not usable":
    case "procedure differs":
    case "by no procedure":
      return procedureSentence(refusal);
    case "procedure unsafe":
      return procedureUnsafeWords(refusal);
    case "outlasts a shift":
      return `The window is ${refusal.window_h} h, longer than a shift of ${refusal.shift_h} h: then the isolation outlasts one shift. Say so, or make the window shorter.`;
    case "nobody there":
    case "not of the roll":
    case "not present at crew":
    case "crew round of another":
    case "crew round over":
    case "crew screen":
      return crewSentence(refusal);
    case "authorised apart":
      return `${refusal.permit} is authorised at the desk, apart from being issued: ${refusal.why}. Authorise it by itself, then issue it on the spot.`;
    case "short route":
    case "not minor":
    case "works alone":
      return shortRouteSentence(refusal);
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
    case "at other work":
      return `${refusal.who} is on permit ${refusal.permit}, at other work. Nobody is in two places: off there first, or say that they go from one to the other.`;
    case "not signed on":
      return `You are not signed on to permit ${refusal.permit}.`;
    case "people on":
      return `Still signed on: ${refusal.people.join(", ")}. Each must sign off and take their own lock off first.`;
    case "not all seen":
      return `Not seen yet: ${refusal.people.join(", ")}. Look for them; tick off only whom somebody sees.`;
    case "permits open":
      return `Still open: ${refusal.permits.join(", ")}. Hand back and close first.`;
    case "isolations open":
      return `Not restored yet: ${refusal.isolations.join(", ")}. Finish the return first.`;
    case "nothing known of":
      return `The register joins ${refusal.places.join(", ")} to nothing, so nothing can be said of what reaches it. Have its lines and cables entered, then plan again.`;
    case "plan falls short":
      return `The plan falls short at ${refusal.ways.slice(0, 4).join("; ")}${refusal.ways.length > 4 ? ` and ${refusal.ways.length - 4} more` : ""}. An approver must accept each with what is done instead, or change the job or the plant.`;
    case "accepting one's own deviation":
      return "You asked for this job, so somebody else must accept what it falls short of.";
    case "no such shortfall":
      return `The plan as it stands does not fall short at ${refusal.way}. Look at the points again.`;
    case "measure does not fit":
      return `None of what you ticked stands in at ${refusal.way}. There it is: ${refusal.fit.join(", ")}. Nothing was accepted.`;
    case "device not usable":
      return `${refusal.why}. Nothing was changed.`;
    case "would light":
      return `Lifting ${refusal.device} would reach people: ${refusal.harms.map(harmSentence).join("; ")}. Leave it locked until their work is over.`;
    case "swap not proved":
      return `${swapWords(refusal.fault)} Leave the lock where it is.`;
    case "own step first":
      return `${refusal.point} is a point of ${refusal.isolation} anyway: lock it by its own step, and nothing has to be swapped. Nothing was changed.`;
    case "say what was found":
      return `Say what was found: ${refusal.looks.join(", ")}. Nothing was written down.`;
    case "paper order":
      return `${refusal.why}. Look at the paper again: nothing was written down.`;
    case "must stay passing":
    case "stopped elsewhere":
      return passingWords(refusal);
    case "bad register":
    case "bad list":
      return `${refusal.first}${refusal.more > 0 ? `, and ${refusal.more} more` : ""}. Nothing was stored.`;
    case "plant changed":
      return `The plant register changed from revision ${refusal.planned} to ${refusal.now} since this plan was shown. Look at the plan again.`;
    case "changed meanwhile":
      return "What this stands on was changed while it was worked out. Look at it again, then do it again.";
    case "not in the crew":
      return `You are not in the crew of job ${refusal.job}. Ask the coordinator to put you on it before you sign on.`;
    case "unknown":
      return `There is no ${refusal.what} ${refusal.name}.`;
    case "opens nothing":
      return "A token that opens nothing is of no use: choose what is read by it, or which acts come by it.";
    case "token too long":
      return `A token counts from now for at most ${refusal.days} days: choose a day within them.`;
    case "too many tokens":
      return `You have ${refusal.most} tokens that still count. Revoke one that nobody needs first.`;
    case "not for a program":
      return `No program is given ${refusal.what}. Leave it out, or do it yourself.`;
    case "review too late":
      return `The next review in ${refusal.hours} hours is too late: the rule profile allows ${refusal.most} at most.`;
    case "own lock":
      return `Lock ${refusal.lock} is your own. Take it off yourself and sign off; nobody cuts it while you are here.`;
    case "own account":
      return "Nobody changes their own account here. Ask another coordinator, or whoever runs the server.";
    case "sign-in taken":
      return `The sign-in name ${refusal.signIn} is somebody else's. Choose another.`;
    case "last coordinator":
      return `${refusal.who} is the last who may coordinate. Make somebody else a coordinator first.`;
    case "still on site":
      return `${refusal.who} is still tied to ${refusal.where.join("; ")}. That comes off first, by them or as a lock is removed for somebody who is not there.`;
    case "not read":
      if (refusal.who !== undefined) {
        return `${refusal.who}: their lock ${refusal.lock} on permit ${refusal.permit} was cut while they were not there. They read how that came about and sign it, on their own device, before they sign anything else.`;
      }
      return `Your lock ${refusal.lock} on permit ${refusal.permit} was cut. Read how that came about and sign it before anything else.`;
    case "no figure":
      return `${refusal.calculator}: ${refusal.field} ${refusal.why}. Correct it in the calculator and attach it again.`;
    case "count differs":
      return `You count ${refusal.counted} locks on the box, and that is not what is on record. Count again; nobody lifts anything until this is cleared up.`;
    case "people differ":
      return `You count ${refusal.counted} ${refusal.counted === 1 ? "person" : "people"}, and that is not how many have worked here. Find out who is missing before anything goes on.`;
    case "gear unknown":
      return `There is no ${refusal.kind} ${refusal.number} in the register. Take one that is, or have it entered.`;
    case "gear withdrawn":
      return `The ${refusal.kind} ${refusal.number} was withdrawn from use. Take another, or have it given back into use by somebody who saw what was done to it.`;
    case "another returns it":
      return `The ${refusal.kind} ${refusal.number} was withdrawn by ${refusal.by}. Somebody else looks at it and gives it back into use.`;
    case "date over":
      return `The day until which ${refusal.what} count is over already. Give one that is still to come, or none.`;
    case "date too far":
      return `${refusal.what ?? "In date until"} is more than ${refusal.years} years from now. Nothing is tested for so long: look at the year.`;
    case "gear out of date":
      return `The ${refusal.kind} ${refusal.number} is out of date, or nobody wrote down until when it is good. Take another.`;
    case "gear not bumped":
      return `Nobody saw gas instrument ${refusal.number} alarm in the last ${refusal.hours} hours. Blow test gas on it, record the bump test, then begin.`;
    case "gear elsewhere":
      return `The ${refusal.kind} ${refusal.number} was handed out for job ${refusal.job}. Take another, or have it given back first.`;
    case "gear error unknown":
      return `Nobody wrote down how far ${refusal.kind} ${refusal.number} may be off, so what it shows proves nothing. Have it entered, or take another.`;
    case "gear rating":
      return `The ${refusal.kind} ${refusal.number} is ${refusal.rating === null ? "of unknown rating" : `rated ${refusal.rating} V`}, and ${refusal.needs} V may stand here. Take one that is rated for it.`;
    case "lock of another":
      return `Lock ${refusal.lock} belongs to ${refusal.owner}. Take one of your own.`;
    case "lock of the site":
      return `Lock ${refusal.lock} is the site's, and others have its key. Hang your own.`;
    case "same key":
      return `Key ${refusal.key} also opens lock ${refusal.lock} of ${refusal.owner}. No two people have the same key: choose another lock.`;
    case "ways not tried":
      return `${refusal.step}: not tried ${refusal.left.join(", nor ")}. Try every way of starting, then tick it.`;
    case "earths differ":
      return `${refusal.step}: ${[
        refusal.left.length > 0 ? `${refusal.left.join(", ")} went on and did not come off` : "",
        refusal.strange.length > 0 ? `${refusal.strange.join(", ")} never went on here` : "",
      ]
        .filter(Boolean)
        .join("; ")}. Find every earth before anything is energised.`;
    case "earth in use":
      return `Earth ${refusal.number} stands ${refusal.where}. Take another.`;
    case "not between earths":
      return `${refusal.step}: nothing earths the way in by ${refusal.bare.join(", ")}. Put an earth there, or at the work itself.`;
    case "held too short":
      return `${refusal.step}: held for ${refusal.held} minutes, and ${refusal.least} are asked. Hold on.`;
    case "gauge too coarse":
      return `${refusal.step}: a gauge that may be off by ${refusal.error} bar shows no leak at ${refusal.pressure} bar. Take a finer one.`;
    case "register came in":
      return `Revision ${refusal.revision} of the plant register came in since you looked at these files. Look again at what they change; nothing was imported.`;
    case "door may fly":
      return `${refusal.step}: ${Number(refusal.hidden.toFixed(3))} bar may stand behind it unseen, and on a door ${refusal.opening_m} m wide that pushes with ${refusal.force_N} N, more than a person holds. Write down what holds the door while it is let go, or read a finer gauge.`;
    case "leaks":
      return `${refusal.step}: ${refusal.lost} bar were lost, more than the gauge's ${refusal.error} bar. It leaks. Take the pressure off, mend it, test again.`;
    case "stuck":
      return `${refusal.step} cannot be done as planned: ${refusal.why}, says ${refusal.by}. Plan again first; nothing is skipped.`;
    case "nothing stuck":
      return `No step of isolation ${refusal.isolation} is stuck and its plan holds, so there is nothing to plan again.`;
    case "box locked":
      return `The box is still locked by ${refusal.people.join(", ")}. They take their locks off first.`;
    case "last off":
      return `Your lock is the last to come off, and ${refusal.people.join(", ")} ${refusal.people.length === 1 ? "is" : "are"} still on. They sign off first, or you hand over to somebody.`;
    case "lead first":
      return `${refusal.lead} leads this work and signs on first.`;
    case "coordinator first":
      return "The coordinator's lock is not on the box yet. It goes on before any other.";
    case "nobody to hand over":
      return `Name who comes on for whom on permit ${refusal.permit}.`;
    case "not on":
      return `${refusal.who} is not signed on to permit ${refusal.permit}, so nobody can take their place.`;
    case "handed over twice":
      return `The place of ${refusal.who} is handed over twice. Each place goes to one person.`;
    case "not a lead":
      return `${refusal.who} may not be a permit holder. Hand the permit to somebody who may hold one.`;
    case "lead issued it":
      return "Whoever issued this permit may not be its holder. Hand the permit to somebody else.";
    case "no exchange":
      return `Procedures were not exchanged with ${refusal.firm} yet. The coordinator and their lead do that before their first lock goes on.`;
    case "not appointed":
      return notAppointedWords(refusal);
    case "not inducted":
      return notInductedWords(refusal);
    case "prove again":
      return `Prove again before anybody goes on: ${refusal.proofs.slice(0, 4).join("; ")}${refusal.proofs.length > 4 ? ` and ${refusal.proofs.length - 4} more` : ""}.`;
    case "under test":
      return `Isolation ${refusal.isolation} is lifted for a test, and this work may be live. Stay off until it stands again and is proved.`;
    case "held by others":
      return `${refusal.step} waits: ${refusal.held.map(({ point, by }) => `${point} is still held by ${by.join(" and ")}`).join("; ")}. The last who lets go puts it back.`;
    case "not agreed":
      return `The test would reach ${refusal.jobs.join(", ")}. Their holders sign that everybody is off and clear first.`;
    case "still in place":
      return `Still in place: ${refusal.things.join(", ")}. Take it out and record it before this is closed.`;
    case "asks unmet":
      return `Permit ${refusal.permit} lacks ${refusal.asks.length === 1 ? "one thing" : `${refusal.asks.length} things`}: ${refusal.asks.slice(0, 5).join("; ")}${refusal.asks.length > 5 ? ` and ${refusal.asks.length - 5} more` : ""}. See to it, then sign again.`;
    case "work stopped":
      return `Work on permit ${refusal.permit} is stopped: ${refusal.why}. Wait until its issuer lets it go on.`;
    case "one's own permit":
      return "You are the holder of this permit, so somebody else must sign this.";
    case "checked by oneself":
      return `You checked permit ${refusal.permit}, so somebody else must authorise it.`;
    case "no approval needed":
      return `Permit ${refusal.permit} needs no approval by safety as it stands.`;
    case "issuer resumes":
      return `Work on permit ${refusal.permit} was stopped, not only paused. Its issuer looks and lets it go on.`;
    case "air not fresh":
      return `The air under permit ${refusal.permit} was not read in the last 30 minutes. Read it at every point, then revalidate.`;
    case "not extended":
      return `Permit ${refusal.permit} is not extended: ${refusal.why}. Write the next one, linked to it.`;
    case "not all asked":
      return [
        ...(refusal.notAsked.length > 0
          ? [
              `${refusal.notAsked.join(", ")} ${refusal.notAsked.length === 1 ? "is" : "are"} on permit ${refusal.permit} and not ticked.`,
            ]
          : []),
        ...(refusal.notOn.length > 0
          ? [`${refusal.notOn.join(", ")} ${refusal.notOn.length === 1 ? "is" : "are"} not on it.`]
          : []),
        "Go to everybody who is on, tick each, then extend it.",
      ].join(" ");
    case "copy says otherwise":
      return `${refusal.copies.join(" and ")} ${refusal.copies.length === 1 ? "shows" : "show"} the old end. Write the new end on every copy that hangs, tick each, then extend permit ${refusal.permit}.`;
    case "points not read":
      return `Not read yet: ${refusal.points.join(", ")}. Go to every point, read the lock there, and say where none hangs.`;
    case "work left":
      return `${refusal.left.map(({ permit, words }) => `Permit ${permit} was handed back part done: ${words}`).join("; ")}. Write a permit for what is left, or say how it was made safe to be put back as it is.`;
    case "watch not over":
      return `The watch of permit ${refusal.permit} is not over: ${refusal.left.join("; ")}.`;
    case "before its cause":
      return `This device says that it was done ${refusal.said}, but ${refusal.what} was only at ${refusal.at}. Set the device's clock right; then do it again.`;
    case "not begun":
      return `${refusal.step} runs for a time, and nobody has begun it. Begin it, and come back when its time is over.`;
    case "wait not over":
      return `${refusal.step} lasts ${duration(refusal.least_s)}, and ${duration(refusal.left_s)} are left.${refusal.because === null ? "" : ` ${refusal.because}`}`;
    case "clock is right":
      return "The clock was not set back since the last act. There is nothing to settle.";
    case "handing over to oneself":
      return "Who comes is somebody else than who goes. Choose who takes the shift.";
    case "not for a shift":
      return `${refusal.who} does not answer for a shift: that is a ${refusal.needs.join(" or ")}. Choose somebody else.`;
    case "not gone through":
      return [
        ...(refusal.left.length > 0 ? [`Not gone through yet, ${refusal.left.length}: ${few(refusal.left)}.`] : []),
        ...(refusal.gone.length > 0 ? [`No longer so, ${refusal.gone.length}: ${few(refusal.gone)}.`] : []),
        "Look at the list again; tick or ask each, then sign.",
      ].join(" ");
    case "nothing changed":
      return `Permit ${refusal.permit} says that already. Nothing was changed.`;
    case "last copy":
      return `Permit ${refusal.permit} is live and would be displayed nowhere. Hang another copy first.`;
    case "not back":
      return `Not back yet: ${refusal.things.join(", ")}. Bring it back and write it down, then close permit ${refusal.permit}.`;
    case "not inspected":
      return `Nobody has inspected the place since permit ${refusal.permit} was handed back. Go and look, sign that, then close it.`;
    case "was live":
      return `Work was done under permit ${refusal.permit}, so it is handed back and closed, not cancelled.`;
    case "wrong answer":
      return `That is not where permit ${refusal.permit} has you work. Read it again with its holder before you sign on.`;
    case "still inside":
      return `Still inside: ${refusal.people.join(", ")}. First everybody is out and written out.`;
    case "not inside":
      return `${refusal.who} is not inside. Look at the list again.`;
    case "other duty":
      return `${refusal.who} has another duty on permit ${refusal.where}. A watch or attendant has no other: ask somebody who is free.`;
    case "not of this kind":
      return `Permit ${refusal.permit} is for ${refusal.kind}, which has no such log.`;
    case "not on post":
      return `You are not on duty as ${refusal.post} of permit ${refusal.permit}. Take the duty first.`;
    case "post needed":
      return `Stay on duty at permit ${refusal.permit}: ${refusal.why}. The next takes the duty first, then you leave.`;
    case "no look due":
      return refusal.next === null
        ? "No look is due any more."
        : `No look is due now. The next is at ${refusal.next}, ten minutes before or after at most.`;
    case "space full":
      return `At most ${refusal.most} may be inside, and ${refusal.people.join(", ")} ${refusal.people.length === 1 ? "is" : "are"}. Somebody comes out first.`;
    case "not by hand":
      return `${refusal.words}: this is not ticked by hand${refusal.unmet === null ? ", and it is met" : `: ${refusal.unmet}`}.`;
    case "sensor blind":
      return `This instrument does not see it: ${refusal.why}.`;
    case "no sample":
      return `No sample is being drawn at ${refusal.point}. Begin there, wait, then read.`;
    case "read too early":
      return `The sample from ${refusal.point} has not come through the hose yet. Wait ${refusal.wait_s} seconds more.`;
    case "gas order":
      return `${refusal.point}: read ${refusal.first} first. Oxygen, then what burns, then what poisons.`;
    case "point order":
      return `${refusal.first} comes before ${refusal.point} and is ${refusal.why}. Read from the opening inwards.`;
    case "no pocket":
      return `No gas was read at ${refusal.point}, so there is nothing to blow out.`;
    case "flush too short":
      return `A pocket does not move in ${refusal.held_s} seconds. Aim the hose at it for ${refusal.least_s} seconds at least.`;
    case "purge never ends":
      return `This blower never gets the air of ${refusal.space} clean by the sum. Take a larger one or fewer bends, and write the permit again.`;
    case "no purge":
      return `No purge is running under permit ${refusal.permit}.`;
    case "purge too short":
      return `Not yet: the space needs ${Math.ceil(refusal.wait_s / 60)} minutes more. Nobody ends a purge early.`;
    case "detector elsewhere":
      return `Detector ${refusal.detector} stands at permit ${refusal.permit}. Take another, or have it taken away there first.`;
    case "detector place":
      return `A detector does not stand “${refusal.place}”: choose a test point, the edge, head height or the opening, not beside the flame.`;
    case "detector silent":
      return `Detector ${refusal.detector} sends nothing. Switch it on, see it read, then post it.`;
    case "sheet missing":
      return `The register does not say what gas instrument ${refusal.number} reads, how far it may be off, nor its hose and pump. Have that entered, or take one that is.`;
    case "instrument busy":
      return `Instrument ${refusal.number} is drawing at ${refusal.where}. Read it there first, or take another.`;
    case "from inside":
      return `${refusal.point} is read from inside, by the first who goes in on a line. Nobody is inside.`;
    case "corners first":
      return `The first inside reads the corners and ducts before anybody else goes in: ${refusal.wants.join("; ")}.`;
    case "too many bends":
      return `The hose has ${refusal.bends} bends, and at most ${refusal.most} to ${refusal.to}. Lay it straighter, and write the permit so.`;
    case "no bad reading":
      return `No bad reading at ${refusal.point} waits for a cause.`;
    case "nothing odd":
      return `The last reading at ${refusal.point} needs no explanation.`;
    case "second instrument needed":
      return `That the instrument is at fault is shown by a second one: read ${refusal.point} with another first.`;
    case "issuer decides":
      return `Where no cause is found at ${refusal.point} the issuer decides, with a detector standing there.`;
    case "purging":
      return `Permit ${refusal.permit} is being purged. End the purge, then ventilate.`;
    case "blower stands":
      return `The blower reports by itself that it does not run: ${refusal.why}. Switch it on, and see that it sends; then say that it runs.`;
    case "not ventilated":
      return `Nobody wrote down that a blower runs under permit ${refusal.permit}.`;
    case "break not over":
      return `Permit ${refusal.permit} is in a break. End the break, read the air, then go on.`;
    case "online only":
      return `To ${refusal.act} needs the server at that moment: what it has not acknowledged protects nobody. Do it again now, on the spot.`;
    case "device clock":
      return `The time of your device cannot be right: ${refusal.why}. Set its clock, then send again.`;
  }
}

/** The first of many, each without its full stop. */
function few(all: readonly string[]): string {
  return all
    .slice(0, 2)
    .map((one) => one.replace(/\.$/, ""))
    .join("; ");
}
