import type { Plan } from "@/core/plan/plan";
import { Carrier } from "@/ui/text/Carrier";
import { Route } from "@/ui/text/Route";
import { WideTable } from "@/ui/text/WideTable";

/** Every way with its grade, the rule that asks for it, and where the rule comes from. */
export function RouteTable({ plan }: { plan: Plan }) {
  const points = plan.points.map((point) => point.device);
  return (
    <section>
      <details>
        <summary className="cursor-pointer text-lg font-semibold">
          All {plan.routes.length} routes, their grades and the rule that decides each
        </summary>
        <WideTable label="Routes">
          <table className="mt-3 table">
            <thead>
              <tr>
                <th>From</th>
                <th>To</th>
                <th>Barriers</th>
                <th>Grade</th>
                <th>Asked</th>
                <th>Rule</th>
                <th>Way with the fewest barriers</th>
              </tr>
            </thead>
            <tbody>
              {plan.routes.map((route) => (
                <tr key={`${route.source}${route.carrier}${route.face}`}>
                  <td>
                    <span className="tag block">{route.source}</span>
                    <Carrier name={route.carrier} />
                  </td>
                  <td className="tag">{route.face}</td>
                  <td className="num whitespace-nowrap">
                    {route.depth} of {route.required}
                  </td>
                  <td className={`min-w-36 ${route.held ? "" : "font-bold"}`}>{route.grade}</td>
                  <td className="min-w-36">{route.requiredGrade ?? `${route.required} barriers`}</td>
                  <td className="min-w-64 text-sm">
                    {route.rule.reason} ({route.rule.source})
                  </td>
                  <td className="min-w-96">
                    <Route via={route.via} marked={points} />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </WideTable>
      </details>
    </section>
  );
}
