"use client";

import { ActForm } from "../act/ActForm";
import { PointLocks } from "./PointLocks";
import { OfferedNumbers } from "../act/OfferedNumbers";
import { Field, SelectField, Tick } from "../act/Field";

type Props = Readonly<{
  permit: string;
  points: readonly string[];
  /** The work's places among others; who was briefed knows which. */
  places: readonly string[];
  /** A permit of other work that this person is on now. */
  also: string | null;
  /** This person's locks that hang nowhere. */
  own: readonly string[];
}>;

/** What signing on is told: where the work is, and the locks. */
export function signOnInput(fields: FormData, { permit, points, also }: Pick<Props, "permit" | "points" | "also">) {
  return {
    permit,
    answer: String(fields.get("answer") ?? ""),
    ...(fields.get("briefed") === "on" ? { briefed: true } : {}),
    ...(also !== null && fields.get("also") === "on" ? { also } : {}),
    lock: String(fields.get("lock") ?? ""),
    points: Object.fromEntries(points.map((tag) => [tag, String(fields.get(`point ${tag}`) ?? "")])),
  };
}

/** One's own lock on the box, or one on every point: the job says which. First, where the work is. */
export function SignOnForm(props: Props) {
  return (
    <ActForm
      act="permit.sign-on"
      label="Sign on"
      toInput={(fields) => signOnInput(fields, props)}
      pin
      button="Sign on, my lock is on"
      tone="strong"
    >
      <SignOnFields {...props} />
    </ActForm>
  );
}

/** Briefed, where, with which lock. */
export function SignOnFields({ points, places, also, own }: Props) {
  return (
    <>
      <Tick name="briefed" label="I have read what may be done, its hazards and precautions" />
      {also !== null && (
        <Tick name="also" label={`I am on ${also} as well, at other work, and both holders know that I come and go`} />
      )}
      <div className="flex flex-wrap gap-4">
        <div className="w-52">
          <SelectField
            label="I will work at"
            name="answer"
            defaultValue=""
            hint="The holder asks; a wrong answer is refused."
          >
            <option value="">choose</option>
            {places.map((place) => (
              <option key={place} value={place}>
                {place}
              </option>
            ))}
          </SelectField>
        </div>
        {points.length === 0 ? (
          <div className="flex flex-wrap items-end gap-1">
            <Field label="My lock number" name="lock" className="tag w-32" autoComplete="off" />
            <OfferedNumbers name="lock" numbers={own} />
          </div>
        ) : (
          <PointLocks points={points} />
        )}
      </div>
    </>
  );
}
