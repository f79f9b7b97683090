"use client";

import { instantOf } from "../text/siteInstant";
import { ActForm } from "../act/ActForm";
import { WhenField } from "../act/WhenField";

/** The same work tomorrow, under a number of its own. */
export function NextDayForm({ permit }: { permit: string }) {
  const time = (fields: FormData, name: string) => instantOf(String(fields.get(name) ?? ""));
  return (
    <details>
      <summary className="link w-fit cursor-pointer">Write the next permit</summary>
      <div className="mt-3">
        <ActForm
          act="permit.next-day"
          label="Next day"
          fixed={{ permit }}
          toInput={(fields) => ({
            validFrom_ms: time(fields, "validFrom_ms"),
            validTo_ms: time(fields, "validTo_ms"),
          })}
          button="Write the next permit"
          then="/permits/{permit}"
        >
          <div className="grid gap-4 sm:grid-cols-2">
            <WhenField label="Valid from" name="validFrom_ms" />
            <WhenField label="Valid until" name="validTo_ms" />
          </div>
        </ActForm>
      </div>
    </details>
  );
}
