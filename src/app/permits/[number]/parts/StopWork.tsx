import type { PermitView } from "@/server/permit/permitView";
import { ActForm } from "@/ui/act/ActForm";
import { Field, SelectField } from "@/ui/act/Field";

/** Anybody may stop the work, from wherever they read this. */
export function StopWork({ permit }: { permit: Pick<PermitView, "number" | "state"> }) {
  if (permit.state !== "live" && permit.state !== "suspended") return null;
  return (
    <details className="relative">
      <summary className="btn bg-error text-error-content min-h-11 list-none border-none">Stop this work</summary>
      <div className="bg-base-100 border-error absolute right-0 z-20 mt-1 w-[min(24rem,calc(100vw-2rem))] border-2 p-4 shadow-lg">
        <p className="mb-3">Anybody may, at once, without a PIN. Say why; it is kept.</p>
        <ActForm act="permit.stop" label="Stop the work" fixed={{ permit: permit.number }} button="Stop" tone="strong">
          <SelectField label="What it is" name="cause" defaultValue="stop-work">
            <option value="stop-work">Something is wrong with the work</option>
            <option value="area alarm">Alarm in the area</option>
            <option value="weather">Weather</option>
            <option value="gas">Gas</option>
            <option value="clash">Another job</option>
          </SelectField>
          <Field label="What you saw" name="reason" autoComplete="off" />
        </ActForm>
      </div>
    </details>
  );
}
