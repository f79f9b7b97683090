"use client";

import { ActForm } from "../act/ActForm";
import { Field } from "../act/Field";

/** One's own lock on the box, or one on every point: the job says which. */
export function SignOnForm({ permit, points }: { permit: string; points: readonly string[] }) {
  return (
    <ActForm
      act="permit.sign-on"
      label="Sign on"
      fixed={{ permit }}
      toInput={(fields) => ({
        lock: String(fields.get("lock") ?? ""),
        points: Object.fromEntries(points.map((tag) => [tag, String(fields.get(`point ${tag}`) ?? "")])),
      })}
      pin
      button="Sign on, my lock is on"
      tone="strong"
      compact
    >
      {points.length === 0 ? (
        <Field label="My lock number" name="lock" className="tag w-32" autoComplete="off" />
      ) : (
        points.map((tag) => (
          <Field key={tag} label={`My lock on ${tag}`} name={`point ${tag}`} className="tag w-32" autoComplete="off" />
        ))
      )}
    </ActForm>
  );
}
