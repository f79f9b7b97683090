import type { Plan, Point } from "@/core/plan/plan";
import { DeviceRow } from "@/ui/stage/DeviceRow";
import { Carrier } from "@/ui/text/Carrier";
import { Tags } from "@/ui/text/Tags";

const BECAUSE: Readonly<Record<Point["because"], string>> = {
  computed: "",
  pinned: "Included by the planner.",
  positive: "Positive: fitted in stage 2.",
  "to fit the blinds": "So that the blinds can be fitted.",
  "to prove the space between": "So that the section between two barriers can be bled and proved.",
};

type Shared = readonly Readonly<{ device: string; jobs: readonly string[] }>[];

/** Each point by the stage in which it is set, and opened: why it is there, and what would happen without it. */
export function PointTable({
  plan,
  nameOf,
  shared,
  procedure,
}: {
  plan: Plan;
  nameOf: (tag: string) => string;
  shared: Shared;
  /** The procedure by which the job was asked for: what is included is what it names. */
  procedure: string | null;
}) {
  const failures = new Map(plan.singleFailures.map((failure) => [failure.device, failure]));
  const also = new Map(shared.map(({ device, jobs }) => [device, jobs]));
  const ordered = [...plan.points].sort((a, b) => a.stage - b.stage || (a.device < b.device ? -1 : 1));
  return (
    <section aria-label="Points">
      <ul className="border-base-300 divide-base-300 divide-y border-y">
        {ordered.map((point) => (
          <li key={point.device}>
            <DeviceRow
              device={point.device}
              head={
                <>
                  <span className="tag w-20 font-semibold">{point.device}</span>
                  <span className="min-w-0 flex-1">
                    {nameOf(point.device)}
                    {point.because !== "computed" && (
                      <span className="block text-sm">
                        {point.because === "pinned" && procedure !== null
                          ? `Included: ${procedure} names it.`
                          : BECAUSE[point.because]}
                      </span>
                    )}
                    {!point.lockable && (
                      <strong className="block text-sm">Takes no lock: tag, and do something more.</strong>
                    )}
                  </span>
                  <span className="text-right text-sm">
                    {point.stops.map((carrier) => (
                      <Carrier key={carrier} name={carrier} />
                    ))}
                  </span>
                  <span className="num w-14 text-right">{point.effort_min} min</span>
                </>
              }
            >
              <p>
                Without it <Why point={point} />.
              </p>
              <p className="mt-1">
                If it alone leaks or is reopened:{" "}
                {failures.get(point.device)?.faces.length ? (
                  <strong>
                    energy reaches <Tags tags={failures.get(point.device)!.faces} />
                  </strong>
                ) : (
                  "nothing arrives, another barrier holds"
                )}
                .
              </p>
              {also.has(point.device) && (
                <p className="mt-1">Held for {also.get(point.device)!.join(", ")} too: the last to release lifts it.</p>
              )}
            </DeviceRow>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The paths that would have too few barriers, said by source. */
function Why({ point }: { point: Point }) {
  if (point.holds.length === 0) {
    return point.because === "computed"
      ? "nothing changes by itself"
      : "the barriers would still count; see its reason";
  }
  const sources = [...new Set(point.holds.map((hold) => hold.source))];
  return (
    <>
      <Tags tags={sources} most={4} /> would have too few barriers to{" "}
      <Tags tags={[...new Set(point.holds.map((hold) => hold.face))]} />
    </>
  );
}
