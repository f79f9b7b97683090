/** Several of a few, each ticked by itself. */
export function Ticks<T extends string | number>({
  name,
  legend,
  options,
  chosen = [],
  words = String,
}: {
  name: string;
  legend: string;
  options: readonly T[];
  chosen?: readonly T[];
  words?: (option: T) => string;
}) {
  return (
    <fieldset data-field={name}>
      <legend className="mb-1 text-sm font-medium">{legend}</legend>
      <div className="grid grid-cols-2 gap-x-4 sm:grid-cols-3">
        {options.map((option) => (
          <label key={option} className="flex min-h-11 items-center gap-2 first-letter:uppercase">
            <input
              type="checkbox"
              name={name}
              value={option}
              defaultChecked={chosen.includes(option)}
              className="checkbox"
            />
            {words(option)}
          </label>
        ))}
      </div>
    </fieldset>
  );
}
