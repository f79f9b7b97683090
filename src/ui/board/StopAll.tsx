"use client";

import { ActForm } from "../act/ActForm";
import { Field } from "../act/Field";

/** All work in an area or on the site stops by one act, without a PIN; then everybody is looked for. */
export function StopAll({ areas }: { areas: readonly string[] }) {
  return (
    <details className="relative">
      <summary className="btn btn-sm btn-error btn-outline list-none">Stop all work</summary>
      <div className="bg-base-100 border-error absolute right-0 z-20 mt-1 w-[min(24rem,90vw)] border p-3 shadow-lg lg:bottom-full lg:mb-1">
        <ActForm act="site.stop" label="Stop all work" button="Stop all work now" then="/muster/{muster}">
          <label className="flex flex-col gap-1">
            <span className="text-sm font-medium">Where</span>
            <select name="area" className="select w-full">
              <option value="">the whole site</option>
              {areas.map((name) => (
                <option key={name}>{name}</option>
              ))}
            </select>
          </label>
          <Field label="Why all work stops" name="reason" maxLength={500} required />
        </ActForm>
      </div>
    </details>
  );
}
