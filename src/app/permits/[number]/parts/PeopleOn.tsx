import { kindRule } from "@/core/permit/kinds/kinds";
import { missingNow } from "@/core/permit/people/roll";
import type { PermitView } from "@/server/permit/permitView";
import { Link } from "@/ui/text/Link";
import { dayAndClock } from "@/ui/text/when";

/** Everybody who signed on, with their locks. */
export function PeopleOn({ permit, timeZone }: { permit: PermitView; timeZone: string }) {
  const on = permit.signOns.filter((signOn) => signOn.off_ms === null);
  const missing = missingNow(permit.life);
  return (
    <div>
      <div className="mb-2 flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 className="text-lg font-semibold">
          There now: <span className="num">{on.length}</span>
        </h2>
        {(permit.state === "live" || on.length > 0) && !kindRule(permit.kind).alone && (
          <Link href={`/permits/${permit.number}/crew`} className="link">
            Crew at one screen, roll-call
          </Link>
        )}
      </div>
      {missing && (
        <p className="border-error bg-error/10 mb-2 border-l-4 px-3 py-2">
          <strong>Not seen at the roll-call of {dayAndClock(missing.at_ms, timeZone)}:</strong>{" "}
          {missing.people.map(permit.nameOf).join(", ")}.
        </p>
      )}
      {permit.signOns.length === 0 ? (
        <p>Nobody has signed on.</p>
      ) : (
        <ul aria-label="Everybody who signed on" className="border-base-300 divide-base-300 divide-y border-y">
          {permit.signOns.map((signOn) => (
            <li key={`${signOn.personId} ${signOn.on_ms}`} className="grid grid-cols-[5rem_1fr] gap-x-4 py-2">
              <span className="tag whitespace-normal">
                {Object.keys(signOn.points).length > 0 ? Object.values(signOn.points).join(" ") : signOn.lock}
              </span>
              <span className="font-medium">
                {signOn.name}
                {signOn.personId === permit.holderId && <span className="font-normal">, holder</span>}
              </span>
              <span className="col-start-2 text-sm">
                <span className="num">on {dayAndClock(signOn.on_ms, timeZone)}</span>,{" "}
                {signOn.off_ms === null ? (
                  <strong>still on</strong>
                ) : (
                  <span className="num">off {dayAndClock(signOn.off_ms, timeZone)}</span>
                )}
              </span>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

/** Of a minor isolation: whoever is not on, and whose lock hangs on the point. */
export function hungAlone({ minor, nameOf }: PermitView, on: readonly Readonly<{ personId: string }>[]) {
  const lock = minor?.lock ?? null;
  return lock === null || on.some(({ personId }) => personId === lock.by)
    ? []
    : [{ personId: lock.by, name: nameOf(lock.by), lock: lock.number }];
}
