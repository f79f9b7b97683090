import type { UnitSystem } from "../../core/units/units";

/** Metric or US units, per person; changes every figure on the page at once. */
export function UnitSwitch({ units, choose }: { units: UnitSystem; choose: (form: FormData) => Promise<void> }) {
  const other = units === "metric" ? "us" : "metric";
  const words = { metric: "metric", us: "US" } as const;
  return (
    <form action={choose}>
      <input type="hidden" name="units" value={other} />
      <button
        type="submit"
        className="btn btn-ghost px-2 whitespace-nowrap"
        aria-label={`Units are ${words[units]}: change to ${words[other]}`}
        title={`Change to ${words[other]} units`}
      >
        {units === "metric" ? "m · bar" : "ft · psi"}
      </button>
    </form>
  );
}
