import type { Metadata } from "next";
import { Link } from "@/ui/text/Link";
import { TASKS } from "@/core/calc/calculator";
import { CALCULATORS } from "@/core/calc/calculators/calculators";
import { requirePerson } from "@/server/people/session";

export const metadata: Metadata = { title: "Calculators" };

/** The calculators, by what people come for. */
export default async function BenchPage() {
  await requirePerson();
  return (
    <div className="px-4 py-4 md:px-5">
      <h1 className="text-2xl font-semibold tracking-tight">Calculators</h1>
      <p className="mt-1 mb-8 max-w-prose opacity-85">
        Sums to try on their own. Each says where it comes from and what it holds for; none replaces an engineer, an
        instrument or your local code.
      </p>
      <div className="max-w-6xl columns-1 gap-12 md:columns-2 xl:columns-3">
        {TASKS.map((task) => (
          <section key={task} className="mb-8 break-inside-avoid">
            <h2 className="border-base-content mb-1 border-b pb-1 font-semibold">{task}</h2>
            <ul>
              {CALCULATORS.filter((one) => one.task === task && one.schema === undefined).map((one) => (
                <li key={one.name}>
                  <Link href={`/bench/${one.name}`} className="hover:bg-base-200 block py-1.5 hover:underline">
                    {one.title}
                  </Link>
                </li>
              ))}
            </ul>
          </section>
        ))}
      </div>
    </div>
  );
}
