"use client";

import { readNumber } from "../../core/units/readNumber";
import { ActForm } from "../act/ActForm";
import { Field } from "../act/Field";
import { dayAndClock } from "../text/when";

type Props = Readonly<{
  isolation: string;
  review: Readonly<{
    since_ms: number;
    due_ms: number;
    overdue: boolean;
    most_h: number;
    reviews: readonly Readonly<{ at_ms: number; next_ms: number; reason: string; by: string }>[];
  }>;
  mayReview: boolean;
  timeZone: string;
}>;

/** An isolation that stays: since when, why, and when somebody looks at it again. */
export function IsolationReview({ isolation, review, mayReview, timeZone }: Props) {
  return (
    <details open={review.overdue} className={`mb-4 ${review.overdue ? "border-error border-l-4 pl-3" : ""}`}>
      <summary className="cursor-pointer py-1">
        {review.overdue ? <strong>Review overdue</strong> : "Review"}: {review.overdue ? "it was due" : "next"}{" "}
        <span className="num">{dayAndClock(review.due_ms, timeZone)}</span>, standing since{" "}
        <span className="num">{dayAndClock(review.since_ms, timeZone)}</span>
      </summary>
      {review.reviews.length > 0 && (
        <ul className="border-base-300 my-2 border-l-2 pl-4 text-sm">
          {review.reviews.map((one) => (
            <li key={one.at_ms} className="py-0.5">
              <span className="num">{dayAndClock(one.at_ms, timeZone)}</span>, {one.by}: {one.reason}
            </li>
          ))}
        </ul>
      )}
      {mayReview && (
        <div className="mt-2">
          <ActForm
            act="isolation.review"
            label="Review the isolation"
            fixed={{ isolation }}
            toInput={(fields) => {
              const read = readNumber(String(fields.get("next_h") ?? ""));
              return { reason: fields.get("reason"), next_h: read.ok ? read.value : fields.get("next_h") };
            }}
            pin
            button="I have looked at every point"
            compact
          >
            <Field label="Why it stays" name="reason" maxLength={500} className="min-w-56" />
            <Field
              label={`Next look in hours, ${review.most_h} at most`}
              name="next_h"
              inputMode="numeric"
              className="num max-w-28"
            />
          </ActForm>
        </div>
      )}
    </details>
  );
}
