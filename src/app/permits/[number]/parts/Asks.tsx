import { mayDo, type PermitView } from "@/server/permit/permitView";
import type { Person } from "@/server/people/signIn";
import { issuesOnTheSpot } from "./SigningActs";
import { TickForm } from "@/ui/permit/TickForm";

/** Everything that this kind asks: what the program knows with its evidence, and what somebody still has to look at. */
export function Asks({ permit, person }: { permit: PermitView; person: Person }) {
  // Whoever issues it now ticks it there.
  const isTickedThere = issuesOnTheSpot(permit, person);
  if (permit.asks.length === 0) return null;
  const open = permit.asks.filter(({ unmet }) => unmet !== null);
  const isOnPost = (post: string) => permit.posted.some((one) => one.person === person.id) && permit.post === post;
  // What is asked of whoever stands on a post, nobody else says for them.
  const byHand = open.filter(({ byHand, only }) => byHand && (only === undefined || isOnPost(only)));
  const isOver = ["closed", "cancelled", "work done", "watching", "run out"].includes(permit.state);
  const canTick = byHand.length > 0 && !isOver && mayDo(permit, person, "tick");
  const missing = open.filter((ask) => !(canTick && byHand.includes(ask)));
  const met = permit.asks.filter(({ unmet }) => unmet === null);
  return (
    <section aria-labelledby="asked">
      <h2 id="asked" className="mb-2 text-lg font-semibold">
        Permit conditions:{" "}
        <span className="num">
          {met.length} of {permit.asks.length} met
        </span>
      </h2>
      {missing.length > 0 && <AskList asks={missing} label="Missing" />}
      {canTick && (
        <details className="mt-4" open={!isTickedThere}>
          <summary className="mb-2 cursor-pointer font-semibold">
            {isTickedThere ? "Sign what was looked at, and issue later" : "To look at on the spot"}
          </summary>
          <TickForm permit={permit.number} open={byHand.map(({ id, words, source }) => ({ id, words, source }))} />
        </details>
      )}
      {met.length > 0 && (
        <details className="mt-3" open={open.length === 0 && met.length <= MET_OPEN}>
          <summary className="cursor-pointer">
            <span className="num">{met.length}</span> met
          </summary>
          <div className="mt-2">
            <AskList asks={met} label="Met" />
          </div>
        </details>
      )}
    </section>
  );
}
const MET_OPEN = 6;

function AskList({ asks, label }: { asks: PermitView["asks"]; label: string }) {
  return (
    <ul aria-label={label} className="border-base-300 divide-base-300 divide-y border-y">
      {asks.map(({ id, words, unmet, source }) => (
        <li key={id} className="grid grid-cols-[1.25rem_1fr] gap-x-3 py-1.5">
          <Mark isMet={unmet === null} />
          <span className="max-w-prose">
            {words}
            {unmet !== null && <span className="block">{sentence(unmet)}</span>}
            {source !== "practice" && <span className="block text-sm opacity-80">{source}</span>}
          </span>
        </li>
      ))}
    </ul>
  );
}

function Mark({ isMet }: { isMet: boolean }) {
  return (
    <span className="pt-1">
      <svg aria-hidden viewBox="0 0 16 16" className="size-4">
        <circle cx="8" cy="8" r="6.5" fill={isMet ? "currentColor" : "none"} stroke="currentColor" strokeWidth="1.6" />
      </svg>
      <span className="sr-only">{isMet ? "met:" : "missing:"}</span>
    </span>
  );
}

/** Some reasons are sentences already. */
function sentence(text: string): string {
  return `${text.charAt(0).toUpperCase()}${text.slice(1)}${text.endsWith(".") ? "" : "."}`;
}
