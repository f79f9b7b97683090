import { darkSentence, lossSentence } from "@/core/words/en/losses";
import type { Plan } from "@/core/plan/plan";
import { WideTable } from "@/ui/text/WideTable";

type Row = Readonly<{
  key: string;
  tag: string;
  name: string;
  area: string;
  tell: string;
  kind: string;
  words: string;
}>;

/** What the plan takes from the plant besides the work, area by area: whom it concerns, and what to do about each. */
export function AlsoStops({ plan }: { plan: Plan }) {
  const rows: Row[] = [
    ...plan.goesDark
      .filter((loss) => !loss.isWork)
      .map((loss) => ({ ...loss, key: `dark ${loss.tag}`, kind: "fed no more", words: darkSentence(loss) })),
    ...plan.alsoStops.map((row) => ({ ...row, key: `${row.kind} ${row.tag}`, words: lossSentence(row) })),
  ];
  const areas = [...new Set(rows.map(({ area }) => area))].sort();
  return (
    <section aria-label="What else stops">
      {rows.length === 0 ? (
        <p>Nothing besides the work, by the register. Tell the operator of the area.</p>
      ) : (
        <>
          <p className="mb-2 max-w-prose">
            With these points and not today. The operator signs this list before the first lock.
          </p>
          <WideTable label="What else stops">
            <table className="table">
              <thead>
                <tr>
                  <th className="w-48">Area, and who is told</th>
                  <th className="w-36">How</th>
                  <th className="w-56">What</th>
                  <th>With this plan it</th>
                </tr>
              </thead>
              <tbody>
                {areas.flatMap((area) =>
                  rows
                    .filter((row) => row.area === area)
                    .map((row, index) => (
                      <tr key={row.key}>
                        <td>
                          {index === 0 && (
                            <>
                              <strong>{area || "No area"}</strong>
                              {row.tell && <span className="block text-sm">{row.tell}</span>}
                            </>
                          )}
                        </td>
                        <td className={row.kind === "unprotected" ? "font-semibold" : ""}>{row.kind}</td>
                        <td>
                          <span className="tag">{row.tag}</span>
                          {row.name && <span className="block text-sm">{row.name}</span>}
                        </td>
                        <td className="max-w-prose">{row.words}</td>
                      </tr>
                    )),
                )}
              </tbody>
            </table>
          </WideTable>
        </>
      )}
    </section>
  );
}
