import { Link } from "@/ui/text/Link";
import { LONG_MS } from "@/core/board/whoIsWhere";
import { presence } from "@/server/board/presence";
import { requirePerson } from "@/server/people/session";
import { requestTime_ms, siteTimeZone } from "@/server/runtime/siteTime";
import { dayAndClock, span } from "@/ui/text/when";
import { WideTable } from "@/ui/text/WideTable";

export const metadata = { title: "Who is where" };

/** Everybody who is on, on post or inside now, by area: for a muster, and to see who has been at it too long. */
export default async function HerePage() {
  await requirePerson();
  const now_ms = requestTime_ms();
  const timeZone = siteTimeZone();
  const rows = presence(now_ms);
  const areas = [...new Set(rows.map(({ area }) => area))];
  const within = rows.filter(({ what }) => what === "inside").length;
  return (
    <div className="px-4 py-4 md:px-5">
      <div className="mb-4 flex flex-wrap items-baseline gap-4">
        <h1 className="text-2xl font-semibold tracking-tight">Who is where</h1>
        <p>
          {new Set(rows.map(({ person }) => person)).size} people
          {within > 0 && <strong className="text-error">, {within} inside</strong>}
        </p>
        <Link href="/people" className="link ml-auto">
          Everybody, roles and access
        </Link>
      </div>
      {rows.length === 0 && <p>Nobody is on, on post or inside.</p>}
      {rows.length > 0 && (
        <p className="mb-4 max-w-prose text-sm opacity-85">
          At work: since what they first signed after eight hours without anything. They may have been here longer.
        </p>
      )}
      {areas.map((area) => {
        const here = rows.filter((row) => row.area === area);
        return (
          <section key={area} className="mb-6">
            <h2 className="mb-1 font-semibold">
              {area === "" ? "Nobody wrote down where" : area}, {here.length}
            </h2>
            <WideTable label={`People at ${area === "" ? "places unknown" : area}`}>
              <table className="table-sm table">
                <thead>
                  <tr>
                    <th>Person</th>
                    <th>Where</th>
                    <th>Permit</th>
                    <th>Since</th>
                    <th className="text-right">For</th>
                    <th className="text-right">At work</th>
                  </tr>
                </thead>
                <tbody>
                  {here.map(({ person, name, what, permit, title, since_ms, lock, atWorkSince_ms }) => {
                    const atWork_ms = now_ms - atWorkSince_ms;
                    return (
                      <tr key={`${person} ${permit} ${what}`}>
                        <td className="font-medium">{name}</td>
                        <td>
                          {what === "inside" ? <strong className="text-error">inside</strong> : what}
                          {lock !== "" && <span className="tag ml-2">{lock}</span>}
                        </td>
                        <td>
                          <Link href={`/permits/${permit}`} className="link">
                            <span className="tag mr-2">{permit}</span>
                            {title}
                          </Link>
                        </td>
                        <td className="num">{dayAndClock(since_ms, timeZone)}</td>
                        <td className="num text-right">{span(now_ms - since_ms)}</td>
                        <td className="num text-right">
                          {atWork_ms >= LONG_MS ? (
                            <strong className="text-error">{span(atWork_ms)}, long</strong>
                          ) : (
                            span(atWork_ms)
                          )}
                        </td>
                      </tr>
                    );
                  })}
                </tbody>
              </table>
            </WideTable>
          </section>
        );
      })}
    </div>
  );
}
