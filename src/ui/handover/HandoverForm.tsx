"use client";

import { ActForm } from "../act/ActForm";
import { SelectField, TextField } from "../act/Field";
import { Small } from "../walk/EvidenceFields";

export type HandoverRow = Readonly<{
  key: string;
  area: string;
  subject: string;
  href: string | null;
  words: string;
  bold: boolean;
  /** It was not so at the last handover. */
  isNew: boolean;
}>;

type Props = Readonly<{
  rows: readonly HandoverRow[];
  /** Who may take the shift. */
  coming: readonly Readonly<{ id: string; name: string }>[];
  /** Live permits: who comes may have looked at their place. */
  live: readonly string[];
}>;

/** Gone through together, item by item: who comes ticks each, or asks. Both sign at the end. */
export function HandoverForm({ rows, coming, live }: Props) {
  const areas = [...new Set(rows.map(({ area }) => area))];
  return (
    <ActForm
      act="shift.hand-over"
      label="Hand over the shift"
      pin
      button="Both sign: the shift is handed over"
      tone="strong"
      toInput={(fields) => {
        const question = (key: string) => String(fields.get(`ask ${key}`) ?? "").trim();
        return {
          coming: fields.get("coming") ?? "",
          comingPin: String(fields.get("comingPin") ?? ""),
          read: rows.flatMap(({ key }) => (fields.get(`read ${key}`) === "on" && question(key) === "" ? [key] : [])),
          asked: rows.flatMap(({ key }) => (question(key) === "" ? [] : [{ item: key, words: question(key) }])),
          revalidate: fields.getAll("revalidate").map(String),
          remarks: fields.get("remarks") ?? "",
        };
      }}
    >
      {areas.map((area) => (
        <section key={area} aria-label={area || "Everywhere"}>
          <h2 className="mb-1 text-lg font-semibold">{area || "Everywhere"}</h2>
          <ul className="divide-base-300 border-base-300 divide-y border-y">
            {rows.map((row) =>
              row.area === area ? (
                <li
                  key={row.key}
                  className="grid grid-cols-[minmax(0,1fr)] items-center gap-x-4 gap-y-1 py-1.5 md:grid-cols-[5.5rem_minmax(0,1fr)_18rem]"
                >
                  <span className="tag">
                    {row.href ? (
                      <a href={row.href} className="link">
                        {row.subject}
                      </a>
                    ) : (
                      row.subject
                    )}
                  </span>
                  <label className="flex min-h-11 items-center gap-3">
                    <input type="checkbox" name={`read ${row.key}`} className="checkbox" />
                    <span className={row.bold ? "font-semibold" : ""}>
                      {row.words}
                      {row.isNew && <span className="text-accent ml-2 text-sm font-normal">new</span>}
                    </span>
                  </label>
                  <input
                    name={`ask ${row.key}`}
                    aria-label={`Ask about ${row.subject}: ${row.words}`}
                    placeholder="ask"
                    autoComplete="off"
                    maxLength={500}
                    className="input h-9 w-full"
                  />
                </li>
              ) : null,
            )}
          </ul>
        </section>
      ))}
      {live.length > 0 && (
        <fieldset>
          <legend className="mb-1 font-semibold">Revalidated by who comes, who looked at the place</legend>
          <div className="flex flex-wrap gap-x-6">
            {live.map((permit) => (
              <label key={permit} className="flex min-h-11 items-center gap-2">
                <input type="checkbox" name="revalidate" value={permit} className="checkbox" />
                <span className="tag">{permit}</span>
              </label>
            ))}
          </div>
        </fieldset>
      )}
      <TextField label="Said besides" name="remarks" rows={2} />
      <div className="flex flex-wrap items-end gap-4">
        <SelectField label="Who comes" name="coming" className="w-64" defaultValue="">
          <option value="">choose</option>
          {coming.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </SelectField>
        <Small label="PIN of who comes" name="comingPin" type="password" inputMode="numeric" className="num w-28" />
      </div>
    </ActForm>
  );
}
