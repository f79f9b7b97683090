import { max, scaleLinear } from "d3";
import type { Count } from "../../core/figures/figures";

/** Counts as a table whose middle column is drawn to one scale. */
export function Bars({ label, counts, none }: { label: string; counts: readonly Count[]; none: string }) {
  if (counts.length === 0) return <p>{none}</p>;
  const width = scaleLinear([0, max(counts, ({ n }) => n)!], [0, 100]);
  return (
    <table aria-label={label} className="w-full">
      <tbody>
        {counts.map(({ key, n }) => (
          <tr key={key} className="border-base-300 border-t">
            <th scope="row" className="w-2/5 py-1.5 pr-3 text-left font-normal">
              {key}
            </th>
            <td aria-hidden className="py-1.5">
              <div className="bg-base-content h-3" style={{ width: `${width(n)}%` }} />
            </td>
            <td className="num w-14 py-1.5 text-right">{n}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
