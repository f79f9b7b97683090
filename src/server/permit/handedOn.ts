import { inside } from "../../core/permit/people/entries";
import { onPost } from "../../core/permit/people/posts";
import { lastBad } from "../../core/permit/air/airTests";
import { lastOf } from "../../core/permit/record/permitLog";
import { siteTime } from "../runtime/siteTime";
import type { PermitNow } from "./permitFacts";

/** What the next shift has to know of a permit beside its state; in bold what may hurt somebody. */
export type HandedOn = Readonly<{ number: string; bold: readonly string[]; lines: readonly string[] }>;

export function handedOn({ now, facts }: PermitNow): HandedOn {
  const { number, log } = now;
  const stopped = now.state === "suspended" ? lastOf(log, "stopped", "break begun", "break ended") : undefined;
  const within = inside(log).map(({ person }) => facts.nameOf(person));
  const bad = lastBad(log);
  const silent = facts.detectors.filter(({ silent }) => silent).map(({ id }) => id);
  const against = facts.detectors.flatMap(({ id, against }) => against.map((what) => `${id}: ${what}`));
  const bypassed = now.details.kind === "safeguard bypass" && now.state === "live" ? now.details.safeguard : null;
  return {
    number,
    bold: [
      ...(stopped?.type === "stopped" ? [`Stopped ${siteTime(stopped.at_ms)}: ${stopped.reason}.`] : []),
      ...(stopped && stopped.type !== "stopped" ? [`In a break since ${siteTime(stopped.at_ms)}.`] : []),
      ...(within.length > 0 ? [`INSIDE now: ${within.join(", ")}.`] : []),
      ...(bad ? [`Bad air ${siteTime(bad.at_ms)} at ${bad.point}: ${bad.against.join("; ")}.`] : []),
      ...against.map((what) => `Now against: ${what}.`),
      ...silent.map((id) => `${id} is silent.`),
      ...(bypassed === null ? [] : [`Safeguard ${bypassed} does not work.`]),
    ],
    lines: [
      ...onPost(log).map(({ post, person }) => `${post}: ${facts.nameOf(person)}.`),
      ...facts.standIns.map(
        ({ words, sources, face }) => `Kept up against ${sources.join(", ")} at ${face}: ${words}.`,
      ),
    ],
  };
}
