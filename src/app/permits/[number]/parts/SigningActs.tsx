import { Link } from "@/ui/text/Link";
import type { ReactNode } from "react";
import { kindRule } from "@/core/permit/kinds/kinds";
import { mayDo, type PermitView } from "@/server/permit/permitView";
import { ownFreeLocks } from "@/server/box/locks";
import { database } from "@/server/db/database";
import type { Person } from "@/server/people/signIn";
import { siteTime } from "@/server/runtime/siteTime";
import { ActForm } from "@/ui/act/ActForm";
import { Drawer } from "@/ui/stage/Drawer";
import { TextField } from "@/ui/act/Field";
import { SignOnForm } from "@/ui/locks/SignOnForm";
import { IssueForm } from "@/ui/permit/IssueForm";
import { AcceptAndOn } from "@/ui/permit/rounds/AcceptAndOn";
import { InspectAndClose } from "@/ui/permit/rounds/InspectAndClose";
import { OffAndBack } from "@/ui/permit/rounds/OffAndBack";
import { OnTheSpot } from "@/ui/permit/rounds/OnTheSpot";
import { ExtendForm } from "@/ui/permit/ExtendForm";
import { HandBackForm } from "@/ui/permit/HandBackForm";
import { NextDayForm } from "@/ui/permit/NextDayForm";

type Props = Readonly<{ permit: PermitView; person: Person }>;

/** An act that a person signs, with the words they sign under. */
function Block({ heading, words, children }: { heading: string; words: string; children: ReactNode }) {
  return (
    <div>
      <h2 className="text-lg font-semibold">{heading}</h2>
      <p className="mb-3 text-sm">{words}</p>
      {children}
    </div>
  );
}

/** Acts that are nobody's next step on most days; with a round of several as the next step, its parts one by one. */
const RARE: ReadonlySet<string> = new Set([
  ...["break", "back", "extend", "send back", "cancel", "next-day"],
  ...["authorise alone", "issue alone", "accept alone", "inspect alone"],
]);

/** This person may issue it now, and authorise it by the same signature where it is only checked. */
export function issuesOnTheSpot(permit: PermitView, person: Person): boolean {
  const may = (type: Parameters<typeof mayDo>[2]) => mayDo(permit, person, type);
  const isolationHolds = permit.asks.every(({ id, unmet }) => id !== "isolation" || unmet === null);
  if (permit.holderId === person.id || !isolationHolds) return false;
  return may("issue") || (may("authorise") && permit.authorisedApart === null);
}

/** The signatures that this person may give now; the server decides again when they do. */
export function SigningActs({ permit, person }: Props) {
  const fixed = { permit: permit.number };
  const may = (type: Parameters<typeof mayDo>[2]) => mayDo(permit, person, type);
  const isHolder = permit.holderId === person.id;
  const isOn = permit.signOns.some((signOn) => signOn.personId === person.id && signOn.off_ms === null);
  const plain = (act: string, label: string, button: string, strong = false) => (
    <ActForm act={act} label={label} fixed={fixed} pin button={button} tone={strong ? "strong" : "plain"} compact />
  );
  const told = (act: string, label: string, field: string, button: string, strong = false) => (
    <ActForm act={act} label={label} fixed={fixed} pin button={button} tone={strong ? "strong" : "plain"}>
      <TextField label={field} name="words" rows={2} />
    </ActForm>
  );
  const acts: Readonly<{ isRare: boolean; block: ReactNode }>[] = [];
  const add = (key: string, heading: string, words: string, form: ReactNode) =>
    acts.push({
      isRare: RARE.has(key),
      block: (
        <Block key={key} heading={heading} words={words}>
          {form}
        </Block>
      ),
    });
  const hanging = permit.copies.filter(({ returned_ms }) => returned_ms === null);
  const on = permit.signOns.filter((signOn) => signOn.off_ms === null);
  const toLookAt = permit.asks.filter(({ byHand, only, unmet }) => byHand && only === undefined && unmet !== null);
  const places = [...permit.places, ...permit.decoys].sort();
  const also = permit.atOtherWork(person.id);
  const signsOn = !isOn && (permit.state === "live" || permit.state === "issued");
  const own = signsOn ? ownFreeLocks(database(), person.id) : [];
  // What one person does at one place, one after the other, takes one signature.
  const onTheSpot = issuesOnTheSpot(permit, person);
  const acceptAndOn = may("accept") && permit.kind !== "safeguard bypass";
  const offAndBack =
    isHolder && isOn && on.length === 1 && may("hand back") && (permit.entry?.inside ?? []).length === 0;
  const inspectAndClose = may("inspect") && !isHolder && !permit.isInspected;
  if (offAndBack) {
    add(
      "off and back",
      "Sign off and hand back",
      "You are the last one on, and the work has ended.",
      <OffAndBack permit={permit.number} copies={kindRule(permit.kind).afterWatch ? [] : hanging} />,
    );
  }
  const isAlone = kindRule(permit.kind).alone;
  const page = (stage: string, words: string) => (
    <Link className="btn btn-primary" href={`/jobs/${permit.job.number}/${stage}`}>
      {words}
    </Link>
  );
  if (isAlone && isHolder && may("begin alone")) {
    const words = "At the machine: lock it with your own lock, prove it, try it, and begin by one signature.";
    add("begin alone", "Isolate and begin, alone", words, page("walk", "To the steps"));
  }
  if (isAlone && isHolder && may("end alone")) {
    const words = "The work is done: clear, tell, sign, and take your own lock off the point.";
    add("end alone", "Clear, and take your lock off", words, page("return", "To the steps back"));
  }
  if (isAlone && !isHolder && may("end alone") && on.length === 0) {
    const words = "Nobody is on: their lock was taken off without them.";
    add("end for", "End it", words, plain("permit.end-alone", "End it", "End it", true));
  }
  if (isOn && may("sign off")) {
    add(
      "off",
      "Sign off",
      "Tools out, you are clear. Take your own lock off the box.",
      plain("permit.sign-off", "Sign off", "Sign off, my lock is off", !offAndBack),
    );
  }
  const inCrew = isHolder || permit.job.holderId === person.id || permit.job.crewIds.includes(person.id);
  if (may("sign on") && permit.state === "live" && !isOn && inCrew && permit.kind !== "safeguard bypass") {
    add(
      "on",
      "Sign on",
      permit.pointsToLock.length > 0
        ? "Read the permitted work. Hang a lock of your own on every point, then sign."
        : "Read the permitted work. Hang your own lock on the box, then sign.",
      <>
        <SeenByCrew permit={permit} />
        <SignOnForm permit={permit.number} points={permit.pointsToLock} places={places} also={also} own={own} />
      </>,
    );
  }
  if (may("check") && !isHolder) {
    add(
      "check",
      "Check",
      "You have read it against the job, its isolation and the drawings.",
      plain("permit.check", "Check", "It is right", true),
    );
  }
  if (onTheSpot) {
    add(
      "on the spot",
      may("issue") ? "Issue" : "Authorise and issue",
      "You are there: the points are locked, the place is safe for this work. Tick what you have looked at.",
      <OnTheSpot
        permit={permit.number}
        authorise={!may("issue")}
        open={toLookAt.map(({ id, words, source }) => ({ id, words, source }))}
      />,
    );
  }
  if (may("authorise") && !isHolder) {
    add(
      onTheSpot ? "authorise alone" : "authorise",
      "Authorise",
      "You answer for this part of the plant, and let this work be prepared.",
      plain("permit.authorise", "Authorise", "Authorise the permit", !onTheSpot),
    );
  }
  if (may("approve") && permit.approval.length > 0 && !permit.isApproved) {
    add(
      "approve",
      "Approve for safety",
      `Because: ${permit.approval.join("; ")}.`,
      told("permit.approve", "Approve", "What you approve, and on what terms", "Approve the permit", true),
    );
  }
  if (may("issue") && !isHolder) {
    add(
      onTheSpot ? "issue alone" : "issue",
      "Issue",
      "You have checked the site: the points are locked, the place is safe for this work.",
      <IssueForm permit={permit.number} />,
    );
  }
  if (acceptAndOn) {
    add(
      "accept and on",
      "Accept and sign on",
      "You have read it, you keep to its words, you brief the crew. Your own lock is the first after the coordinator's.",
      <AcceptAndOn permit={permit.number} points={permit.pointsToLock} places={places} also={also} own={own} />,
    );
  }
  if (may("accept")) {
    add(
      acceptAndOn ? "accept alone" : "accept",
      acceptAndOn ? "Accept, and sign on later" : "Accept",
      "You have read it, you keep to its words, you brief the crew.",
      plain("permit.accept", "Accept", "Accept the permit", !acceptAndOn),
    );
  }
  if (may("resume") && !isHolder && permit.stop?.type === "stopped") {
    add(
      "resume",
      "Let work go on",
      "You have looked yourself: what stopped it is over, and everything that is asked holds.",
      told("permit.resume", "Resume", "What you found", "Let work go on", true),
    );
  }
  if (may("end break") && permit.stop?.type === "break begun") {
    add(
      "end-break",
      "End the break",
      permit.air === null ? "Everybody is back." : "Everybody is back. The air is read once more, then work goes on.",
      plain("permit.end-break", "End the break", permit.air === null ? "Go on with the work" : "End the break", true),
    );
  }
  if (may("go on") && permit.stop?.type === "break ended") {
    add(
      "go-on",
      "Go on after the break",
      "The air was read since everybody came back, and is acceptable.",
      plain("permit.go-on", "Go on after the break", "Go on with the work", true),
    );
  }
  if (may("revalidate") && !isHolder && permit.revalidation !== null) {
    add(
      "revalidate",
      "Revalidate",
      "A shift has changed: you have looked at the place, and the permit stands for the next one.",
      told("permit.revalidate", "Revalidate", "What you found", "Revalidate for this shift", true),
    );
  }
  if (may("extend") && !isHolder && "until_ms" in permit.extension) {
    add(
      "extend",
      "Extend",
      "Once, and before its time is over. You have been there and asked everybody who is on.",
      <ExtendForm
        permit={permit.number}
        latest={siteTime(permit.extension.until_ms)}
        on={on.map(({ personId, name }) => ({ id: personId, name }))}
        hanging={hanging}
      />,
    );
  }
  if (may("begin break") && isHolder) {
    add(
      "break",
      "Break",
      "Nobody works until it ends. A fire watch stays.",
      <ActForm act="permit.begin-break" label="Begin a break" fixed={fixed} button="Begin a break" compact />,
    );
  }
  if (may("hand back")) {
    add(
      "back",
      "Hand back",
      "Work stops here: everybody is signed off, the place is clean.",
      <HandBackForm permit={permit.number} />,
    );
  }
  if (inspectAndClose) {
    add(
      "inspect and close",
      "Inspect and close",
      "Go there. Nothing is left behind, everything that went out is back, and it is safe to give back.",
      <InspectAndClose permit={permit.number} copies={hanging} />,
    );
    add(
      "inspect alone",
      "Inspect, and close later",
      "Go there. Nothing is left behind, and it is safe to give back.",
      told("permit.inspect", "Inspect", "What you found", "I have inspected the place"),
    );
  }
  if (may("close") && !isHolder && permit.isInspected) {
    add(
      "close",
      "Close",
      "It was inspected. Everything that went out is back.",
      plain("permit.close", "Close", "Close the permit", true),
    );
  }
  if (may("send back")) {
    add(
      "send back",
      "Send back",
      "Something of it has to be put right. It becomes a draft again, and is signed anew.",
      told("permit.send-back", "Send back", "What has to be put right", "Send it back"),
    );
  }
  if (may("cancel") && permit.state !== "run out") {
    add(
      "cancel",
      "Cancel",
      "Nobody works on it; a new one is written when needed.",
      plain("permit.cancel", "Cancel", "Cancel the permit"),
    );
  }
  const mayWrite = person.roles.some((role) => role === "coordinator" || role === "issuer" || role === "holder");
  const canGoOn = !["draft", "checked", "cancelled"].includes(permit.state) && permit.job.state === "open";
  if (mayWrite && canGoOn && permit.next.length === 0 && !isAlone) {
    add(
      "next-day",
      "The next day",
      "A day's work takes a new number, linked to this one.",
      <NextDayForm permit={permit.number} />,
    );
  }
  if (acts.length > 0) {
    // What is next for this person stands alone and strong; what is done once in a while is one touch away.
    const [next, ...others] = [...acts.filter(({ isRare }) => !isRare), ...acts.filter(({ isRare }) => isRare)];
    const besides = others.filter(({ isRare }) => !isRare);
    const rare = others.filter(({ isRare }) => isRare);
    return (
      <div className="space-y-4">
        <div data-next="" className="border-base-content rounded-md border-2 px-4 py-3">
          <p className="text-sm">Next, for you</p>
          {next!.block}
        </div>
        {besides.map(({ block }) => block)}
        {rare.length > 0 && (
          <Drawer title="More" count={rare.length}>
            <div className="space-y-5">{rare.map(({ block }) => block)}</div>
          </Drawer>
        )}
      </div>
    );
  }
  const waiting: Readonly<Record<string, string>> = {
    ...(isAlone ? { live: `${permit.holder} works alone.` } : {}),
    draft: "A coordinator or an issuer checks it.",
    checked: isAlone ? `${permit.holder} isolates, proves and begins, alone.` : "An issuer authorises it.",
    authorised: "An issuer goes there and issues it.",
    issued: `${permit.holder} accepts it.`,
    suspended: "An issuer looks, and lets the work go on.",
    watching: "The fire watch keeps watching.",
    "work done": "An issuer inspects and closes it.",
  };
  const inside = permit.entry?.inside.length ?? 0;
  const isPosted = permit.posted.some((one) => one.person === person.id);
  const words =
    permit.state !== "live" && inside > 0
      ? "Everybody out first, each of them counted at the entry."
      : isPosted && permit.state !== "watching"
        ? "You are on duty: stay until the next one is, and do nothing else."
        : (waiting[permit.state] ?? "Nothing to do here for you now.");
  return <p className="border-base-content rounded-md border-2 px-4 py-3">{words}</p>;
}

/** Everybody may read the locks at the points for themselves before their own goes on; who did so stands here. */
function SeenByCrew({ permit }: { permit: PermitView }) {
  const readers = permit.job.locks?.crew ?? [];
  if (permit.job.isolation === null) return null;
  return (
    <p className="mb-3 text-sm">
      {readers.length === 0
        ? "Nobody of the crew has read the locks at their points. "
        : `Locks read at their points by ${readers.map(({ name, at_ms }) => `${name}, ${siteTime(at_ms)}`).join("; ")}. `}
      <Link href={`/jobs/${permit.job.number}/locks`} className="link">
        Read them yourself first
      </Link>
    </p>
  );
}
