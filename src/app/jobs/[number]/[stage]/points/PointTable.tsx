import type { Plan, Point } from "@/core/plan/plan";
import { Carrier } from "@/ui/text/Carrier";
import { Tags } from "@/ui/text/Tags";
import { WideTable } from "@/ui/text/WideTable";

const BECAUSE: Readonly<Record<Point["because"], string>> = {
  computed: "",
  pinned: "Pinned by the planner.",
  positive: "Positive: fitted in stage 2.",
  "to fit the blinds": "So that the blinds can be fitted.",
  "to prove the space between": "So that the space between two barriers can be bled and proved.",
};

type Shared = readonly Readonly<{ device: string; jobs: readonly string[] }>[];

/** Each point: why it is there, and what would happen without it. */
export function PointTable({ plan, nameOf, shared }: { plan: Plan; nameOf: (tag: string) => string; shared: Shared }) {
  const failures = new Map(plan.singleFailures.map((failure) => [failure.device, failure]));
  const also = new Map(shared.map(({ device, jobs }) => [device, jobs]));
  const ordered = [...plan.points].sort((a, b) => a.stage - b.stage || (a.device < b.device ? -1 : 1));
  return (
    <section>
      <h2 className="mb-2 text-lg font-semibold">Why each point</h2>
      <WideTable label="Points">
        <table className="table">
          <thead>
            <tr>
              <th>Point</th>
              <th>Stops</th>
              <th>Effort</th>
              <th>Without it</th>
              <th>If it alone leaks or is reopened</th>
            </tr>
          </thead>
          <tbody>
            {ordered.map((point) => (
              <tr key={point.device}>
                <td className="w-64">
                  <span className="tag block">{point.device}</span>
                  <span className="text-sm">{nameOf(point.device)}</span>
                  {point.because !== "computed" && <span className="block text-sm">{BECAUSE[point.because]}</span>}
                  {also.has(point.device) && (
                    <span className="block text-sm">
                      Held for {also.get(point.device)!.join(", ")} too: the last to release lifts it.
                    </span>
                  )}
                  {!point.lockable && (
                    <strong className="block text-sm">Takes no lock: tag, and do something more.</strong>
                  )}
                </td>
                <td>
                  {point.stops.map((carrier) => (
                    <Carrier key={carrier} name={carrier} />
                  ))}
                </td>
                <td className="num whitespace-nowrap">{point.effort_min} min</td>
                <td>
                  <Why point={point} />
                </td>
                <td>
                  {failures.get(point.device)?.faces.length ? (
                    <strong>
                      lights <Tags tags={failures.get(point.device)!.faces} />
                    </strong>
                  ) : (
                    "stays dark: another barrier holds"
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </WideTable>
    </section>
  );
}

/** The ways that would have too few barriers, said by source. */
function Why({ point }: { point: Point }) {
  if (point.holds.length === 0) {
    return point.because === "computed" ? "nothing by itself" : "the barriers would still count; see its reason";
  }
  const sources = [...new Set(point.holds.map((hold) => hold.source))];
  return (
    <>
      <Tags tags={sources} most={4} /> would have too few barriers to{" "}
      <Tags tags={[...new Set(point.holds.map((hold) => hold.face))]} />
    </>
  );
}
