import { Link } from "@/ui/text/Link";
import type { Plan } from "@/core/plan/plan";
import { Carrier } from "@/ui/text/Carrier";
import { Route } from "@/ui/text/Route";
import { WideTable } from "@/ui/text/WideTable";

const A_PAGE = 40;

/** Every way with its grade, the rule that asks for it, and where the rule comes from; some at a time, when asked for. */
export function RouteTable({
  plan,
  from,
  href,
}: {
  plan: Plan;
  from: number | null;
  href: (from: number | null) => string;
}) {
  const points = plan.points.map((point) => point.device);
  const count = plan.routes.length;
  const shown = from === null ? [] : plan.routes.slice(from, from + A_PAGE);
  return (
    <section>
      <p>
        <Link href={href(from === null ? 0 : null)} scroll={false} className="link">
          {from === null ? `Show all ${count} paths, their grades and the rule that decides each` : "Hide the paths"}
        </Link>
      </p>
      {shown.length > 0 && from !== null && (
        <>
          <p className="mt-2 flex gap-6">
            <span>
              <span className="num">{from + 1}</span> to <span className="num">{from + shown.length}</span> of{" "}
              <span className="num">{count}</span>
            </span>
            {from > 0 && (
              <Link href={href(Math.max(0, from - A_PAGE))} scroll={false} className="link">
                The ones before
              </Link>
            )}
            {from + A_PAGE < count && (
              <Link href={href(from + A_PAGE)} scroll={false} className="link">
                The next ones
              </Link>
            )}
          </p>
          <WideTable label="Paths">
            <table className="mt-3 table">
              <thead>
                <tr>
                  <th>From</th>
                  <th>To</th>
                  <th>Barriers</th>
                  <th>Grade</th>
                  <th>Asked</th>
                  <th>Rule</th>
                  <th>Path with the fewest barriers</th>
                </tr>
              </thead>
              <tbody>
                {shown.map((route) => (
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
        </>
      )}
    </section>
  );
}
