import { ActForm } from "../act/ActForm";
import { SelectField } from "../act/Field";

/** One point for another while the isolation stands; the server proves first that nobody loses a barrier. */
export function SwapForm({ isolation, held, mayDo }: { isolation: string; held: readonly string[]; mayDo: boolean }) {
  if (!mayDo) return null;
  return (
    <details className="border-base-300 border-t py-2">
      <summary className="min-h-11 cursor-pointer content-center font-medium">Swap a point for another</summary>
      <p className="my-2 max-w-prose text-sm">
        When a lock has to move: hang the new one first, then lift the old one. It is refused unless no one at work
        loses a barrier they count on.
      </p>
      <ActForm act="point.swap" label="Swap a point" fixed={{ isolation }} pin button="Prove and swap">
        <div className="grid gap-3 sm:grid-cols-2">
          <SelectField label="Lift the lock from" name="from" className="tag">
            {held.map((tag) => (
              <option key={tag}>{tag}</option>
            ))}
          </SelectField>
          <Text name="to" label="Lock instead" />
          <Text name="plate" label="Plate reads" />
          <Text name="lock" label="Lock number" />
        </div>
        <Text name="reason" label="Reason" />
      </ActForm>
    </details>
  );
}

function Text({ name, label }: { name: string; label: string }) {
  return (
    <label className="flex flex-col gap-1 text-sm">
      <span className="font-medium">{label}</span>
      <input name={name} autoComplete="off" className="input tag w-full" />
    </label>
  );
}
