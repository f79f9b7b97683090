import { Link } from "@/ui/text/Link";
import type { ListChange } from "@/core/plant/registerChange";
import type { Look } from "@/server/plant/lookAtRegister";

const LISTS = [
  ["items", "Items"],
  ["links", "Links"],
  ["areas", "Areas"],
  ["kinds", "Kinds"],
] as const;

/** What a register would change, and before that what it would do to work in hand. */
export function LookPanel({ look }: { look: Look }) {
  if (look.same) return <p>These files say what revision {look.on} says. There is nothing to import.</p>;
  const falls = look.work.filter(({ holds }) => !holds);
  return (
    <div className="flex flex-col gap-6">
      <section aria-label="Work in hand">
        <h2 className="mb-2 font-semibold">
          {look.work.length === 0
            ? "Nobody counts on an isolation now."
            : falls.length === 0
              ? `Every isolation that people count on holds: ${look.work.length}.`
              : `${falls.length} of ${look.work.length} isolations that people count on would fall.`}
        </h2>
        <ul className="flex flex-col gap-2">
          {look.work.map(({ isolation, jobs, live, holds, why }) => (
            <li
              key={isolation}
              className={`border-l-4 px-3 py-1 ${holds ? "border-success" : "border-error bg-error/10"}`}
            >
              <span className="tag mr-2">{isolation}</span>
              {jobs.map(({ number, title }) => (
                <span key={number}>
                  <Link href={`/jobs/${number}`} className="link">
                    {number}
                  </Link>{" "}
                  {title}{" "}
                </span>
              ))}
              <span className="block text-sm">
                {holds ? "Holds as approved." : `${capital(why)}.`}
                {!holds && live.length > 0 && ` Work stops under ${live.join(", ")}.`}
              </span>
            </li>
          ))}
        </ul>
      </section>
      <section aria-label="In the register">
        <h2 className="mb-2 font-semibold">In the register</h2>
        <table className="table-sm table w-auto">
          <thead>
            <tr>
              <th scope="col">
                <span className="sr-only">List</span>
              </th>
              {["added", "taken away", "otherwise"].map((word) => (
                <th key={word} scope="col" className="text-right">
                  {word}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {LISTS.filter(([key]) => Object.values(look.counts[key]).some((count) => count > 0)).map(([key, words]) => (
              <tr key={key}>
                <th scope="row" className="font-normal">
                  {words}
                </th>
                {(["added", "removed", "changed"] as const).map((way) => (
                  <td key={way} className="num text-right">
                    {look.counts[key][way]}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
        {LISTS.map(([key, words]) => (
          <Rows key={key} words={words} change={look.change[key]} counts={look.counts[key]} />
        ))}
      </section>
    </div>
  );
}

function Rows({ words, change, counts }: { words: string; change: ListChange; counts: Look["counts"]["items"] }) {
  const { added, removed, changed } = change;
  const more = counts.added + counts.removed + counts.changed - added.length - removed.length - changed.length;
  if (added.length + removed.length + changed.length === 0) return null;
  return (
    <details className="mt-3" open={counts.added + counts.removed + counts.changed <= 12}>
      <summary className="cursor-pointer font-medium">{words}, row by row</summary>
      {removed.length > 0 && <Names words="Taken away" names={removed} />}
      {added.length > 0 && <Names words="Added" names={added} />}
      {changed.length > 0 && (
        <dl className="mt-2 text-sm">
          {changed.map(({ name, fields }, i) => (
            <div
              key={`${name} ${i}`}
              className="border-base-300 border-b py-1 sm:grid sm:grid-cols-[14rem_1fr] sm:gap-3"
            >
              <dt className="tag whitespace-normal">{name}</dt>
              <dd>
                {fields.map(({ field, before, after }) => (
                  <p key={field}>
                    {field}: {before === "" ? "not said" : before} → {after === "" ? "not said" : after}
                  </p>
                ))}
              </dd>
            </div>
          ))}
        </dl>
      )}
      {more > 0 && <p className="mt-2 text-sm">and {more} more</p>}
    </details>
  );
}

function Names({ words, names }: { words: string; names: readonly string[] }) {
  return (
    <p className="mt-2 text-sm">
      {words}: <span className="tag whitespace-normal">{names.join(", ")}</span>
    </p>
  );
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
