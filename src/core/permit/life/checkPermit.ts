import { kindRule } from "../kinds/kinds";
import { inside } from "../people/entries";
import { signedBy } from "../record/permitLog";
import { peopleOn, type PermitFacts, type PermitLife } from "../record/permitTypes";
import { missingWhileLive } from "../requirements/requirements";
import { isRunOut, reasonOf, stillOut } from "./permitLife";

/** Throws when an invariant is broken; run after every step in tests. A lock that was cut may break the fifth. */
export function checkPermit(permit: PermitLife, facts: PermitFacts, now_ms: number): void {
  const broken = (rule: string) => {
    throw new Error(`permit ${permit.number}, ${permit.state}: ${rule}`);
  };
  const on = peopleOn(permit);
  const within = inside(permit.log);
  if (on.length > 0 && !["live", "suspended", "run out"].includes(permit.state)) broken("somebody is on");
  if (permit.issuer === permit.holder) broken("its holder issued it");
  if (kindRule(permit.details.kind).alone && on.some(({ person }) => person !== permit.holder)) {
    broken("somebody else is on where one works alone");
  }
  const isAlone = kindRule(permit.details.kind).alone;
  if (
    !isAlone &&
    ["issued", "live", "suspended", "watching", "closed"].includes(permit.state) &&
    permit.issuer === null
  ) {
    broken("nobody issued it");
  }
  if (new Set(on.map((s) => s.person)).size < on.length || new Set(on.map((s) => s.lock)).size < on.length) {
    broken("one person is on twice, or two with one lock");
  }
  if (facts.firstOn.includes("lead") && on.length > 0 && !on.some((signOn) => signOn.person === permit.holder)) {
    broken("people are on without their lead");
  }
  if (permit.state === "live") {
    if (isRunOut(permit, now_ms)) broken("it is live after its time");
    const missing = missingWhileLive({ permit, facts, now_ms });
    if (missing.length > 0) broken(`it is live without: ${reasonOf(missing)}`);
  }
  if (within.some((stay) => !on.some((signOn) => signOn.person === stay.person))) {
    broken("somebody is inside and not on");
  }
  if (permit.state === "closed") {
    if (permit.closedBy === null || (!isAlone && permit.closedBy === permit.holder)) broken("its holder closed it");
    if (on.length > 0 || within.length > 0) broken("it is closed with somebody on");
    if (stillOut(permit).length > 0) broken(`it is closed with ${stillOut(permit).join(", ")} out`);
    if (kindRule(permit.details.kind).afterWatch && signedBy(permit.log, "accept")) {
      if (!signedBy(permit.log, "end watch")) broken("it is closed without the end of its watch");
    }
  }
}
