"use client";

import { ActForm } from "../act/ActForm";
import { Small } from "../walk/EvidenceFields";

type Person = Readonly<{ id: string; name: string }>;
type Props = Readonly<{
  permit: string;
  lead: string;
  on: readonly (Person & Readonly<{ lock: string }>)[];
  /** In the crew and not on. */
  coming: readonly Person[];
  /** Each person locks each of these; empty where locks hang on the box. */
  points: readonly string[];
}>;

/**
 * Shift change at the box, one device for all: everybody who comes hangs their lock and signs, then everybody who goes
 * takes theirs off and signs. All of it is done together, or nothing; so there is no moment with nobody's lock on.
 */
export function HandOverForm({ permit, lead, on, coming, points }: Props) {
  return (
    <details className="border-base-300 border-t pt-3">
      <summary className="min-h-11 cursor-pointer content-center text-lg font-semibold">Hand over to others</summary>
      <p className="mb-3 max-w-prose">
        Who comes hangs their lock first and signs; who goes takes theirs off then. Leave out who stays. It counts for
        all of them together.
      </p>
      <ActForm
        act="permit.hand-over"
        label="Hand over"
        fixed={{ permit }}
        toInput={(fields) => ({ pairs: readPairs(fields, on.length, points) })}
        button="All locks are on and off as written"
        tone="strong"
      >
        <ol data-field="pairs" className="divide-base-300 divide-y">
          {on.map((person, i) => (
            <li key={person.id} aria-label={`In place of ${person.name}`} className="space-y-2 py-3">
              <p>
                <span className="font-medium">{person.name}</span>, lock <span className="tag">{person.lock}</span>
                {person.id === lead && ", holder"}
                <input type="hidden" name={`from ${i}`} value={person.id} />
              </p>
              <div className="flex flex-wrap items-end gap-3">
                <label className="flex flex-col gap-1 text-sm">
                  <span>Who comes</span>
                  <select name={`to ${i}`} className="select w-48" defaultValue="">
                    <option value="">stays on</option>
                    {coming.map((one) => (
                      <option key={one.id} value={one.id}>
                        {one.name}
                      </option>
                    ))}
                  </select>
                </label>
                {points.length === 0 ? (
                  <Small label="Their lock" name={`lock ${i}`} className="tag w-24" />
                ) : (
                  points.map((tag) => (
                    <Small key={tag} label={`Lock on ${tag}`} name={`point ${i} ${tag}`} className="tag w-24" />
                  ))
                )}
                <Small
                  label="PIN of who comes"
                  name={`pairs.${i}.toPin`}
                  type="password"
                  inputMode="numeric"
                  className="num w-24"
                />
                <Small
                  label={`PIN of ${person.name}`}
                  name={`pairs.${i}.fromPin`}
                  type="password"
                  inputMode="numeric"
                  className="num w-24"
                />
              </div>
            </li>
          ))}
        </ol>
      </ActForm>
    </details>
  );
}

function readPairs(fields: FormData, count: number, points: readonly string[]) {
  const text = (name: string) => String(fields.get(name) ?? "").trim();
  return Array.from({ length: count }, (_, i) => ({
    from: text(`from ${i}`),
    to: text(`to ${i}`),
    lock: text(`lock ${i}`),
    points: Object.fromEntries(points.map((tag) => [tag, text(`point ${i} ${tag}`)])),
    toPin: text(`pairs.${i}.toPin`),
    fromPin: text(`pairs.${i}.fromPin`),
  })).filter((pair) => pair.to !== "");
}
