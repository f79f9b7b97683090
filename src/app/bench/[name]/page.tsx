import type { Metadata } from "next";
import { Link } from "@/ui/text/Link";
import { notFound } from "next/navigation";
import { inputsFromAddress, type Address } from "@/core/calc/address";
import { calculate, type Calculated, type Calculator } from "@/core/calc/calculator";
import { calculatorNamed } from "@/core/calc/calculators/calculators";
import { faultIn, type Fields } from "@/core/calc/fields";
import type { UnitSystem } from "@/core/units/units";
import { attachTargets } from "@/server/figures/dayView";
import { allPlaces, siteBlocks, spotOfTag } from "@/server/plant/register";
import { requirePerson } from "@/server/people/session";
import { ActForm } from "@/ui/act/ActForm";
import { Field } from "@/ui/act/Field";
import { BenchForm } from "@/ui/bench/BenchForm";
import { Drawing, Figures, HowItComes } from "@/ui/bench/CalculationView";
import { typedFrom, type Typed } from "@/ui/bench/typed";

type Params = { params: Promise<{ name: string }>; searchParams: Promise<Address> };

export async function generateMetadata({ params }: Pick<Params, "params">): Promise<Metadata> {
  return { title: calculatorNamed((await params).name)?.title ?? "Calculators" };
}

/** One calculator. Its inputs are the address, so that a link carries them. */
export default async function CalculatorPage({ params, searchParams }: Params) {
  const { units } = await requirePerson();
  const [{ name }, address] = [await params, await searchParams];
  const which = calculatorNamed(name);
  if (which === undefined || which.schema !== undefined) notFound();
  const asked = inputsFromAddress(which.fields, address);
  const done: Calculated = asked.ok ? answer(which, asked.raw, units) : asked;
  const isReach = done.ok && done.calculation.picture?.kind === "reach";
  const areas = isReach ? siteBlocks() : [];
  const to = typeof address.to === "string" ? address.to : "";
  const tag = typeof address.at === "string" ? address.at : "";
  return (
    <div className="px-4 py-4 md:px-5">
      <p className="mb-1 text-sm">
        <Link href="/bench" className="link">
          Calculators
        </Link>
        <span aria-hidden> › </span>
        {which.task}
      </p>
      <h1 className="mb-6 text-2xl font-semibold tracking-tight">{which.title}</h1>
      <div className="grid max-w-6xl grid-cols-[minmax(0,1fr)] gap-x-14 gap-y-8 lg:grid-cols-[22rem_minmax(0,1fr)]">
        <BenchForm
          // Figures are written anew when the person changes units.
          key={units}
          path={`/bench/${name}`}
          fields={which.fields}
          initial={typedOf(which.fields, address, asked.ok ? asked.raw : {}, units)}
          units={units}
          fault={done.ok ? null : done}
          to={to}
          {...(isReach ? { at: tag, places: allPlaces() } : {})}
        />
        <section aria-label="Answer" aria-live="polite" className="space-y-6">
          {done.ok ? (
            <>
              <Figures calculation={done.calculation} units={units} />
              <div className="overflow-x-auto" role="region" aria-label="Drawing" tabIndex={0}>
                <Drawing calculation={done.calculation} units={units} site={{ areas, at: spotOfTag(tag) }} />
              </div>
              <HowItComes calculation={done.calculation} />
            </>
          ) : (
            <p role="alert" className="border-error bg-error/10 max-w-prose border-l-4 px-3 py-2">
              <strong>No figure yet.</strong> {which.fields[done.key.split(".")[0]!]?.words ?? "The input"}{" "}
              {done.message}.
            </p>
          )}
        </section>
      </div>
      {done.ok && asked.ok && (
        <section className="border-base-300 mt-10 max-w-6xl border-t pt-5">
          <h2 className="mb-3 font-semibold">Keep this figure with a job or permit</h2>
          <ActForm
            key={JSON.stringify(asked.raw)}
            act="figure.attach"
            fixed={{ calculator: name, inputs: asked.raw }}
            label="Attach the figure"
            button="Attach"
            compact
          >
            <datalist id="targets">
              {attachTargets().map((target) => (
                <option key={target.number} value={target.number}>
                  {target.words}
                </option>
              ))}
            </datalist>
            <Field
              label="Number"
              name="to"
              list="targets"
              autoComplete="off"
              className="tag max-w-36"
              placeholder="J-0005"
              defaultValue={to}
            />
            <Field label="Note" name="note" maxLength={300} className="min-w-72" />
          </ActForm>
        </section>
      )}
    </div>
  );
}

/** The same answer as everywhere, but bounds are said in the person's units. */
function answer(which: Calculator, raw: Readonly<Record<string, unknown>>, units: UnitSystem): Calculated {
  for (const [key, field] of Object.entries(which.fields)) {
    const value = raw[key];
    if (field.type !== "number" || typeof value !== "number") continue;
    const message = faultIn(field, value, units);
    if (message !== null) return { ok: false, key, message };
  }
  return calculate(which, raw, units);
}

/** What stands in the fields: the words of the address, or the example. */
function typedOf(fields: Fields, address: Address, raw: Readonly<Record<string, unknown>>, units: UnitSystem): Typed {
  const isExample = !Object.keys(fields).some((key) => address[key] !== undefined);
  return Object.fromEntries(
    Object.entries(fields).map(([key, field]): [string, Typed[string]] => {
      if (field.type === "rows") {
        const columns = Object.entries(field.columns);
        const words = isExample
          ? field.example.map((row) => columns.map(([name]) => String(row[name])))
          : [address[key] ?? []].flat().map((word) => word.split(":"));
        return [key, words.map((row) => columns.map(([, column], i) => typedFrom(row[i] ?? "", column, units)))];
      }
      const [given] = [address[key] ?? []].flat();
      const word = isExample ? raw[key] : given;
      if (field.type === "choice") return [key, String(word || field.default)];
      const shown = String(word ?? field.default ?? "");
      return [key, shown === "" ? "" : typedFrom(shown, field, units)];
    }),
  );
}
