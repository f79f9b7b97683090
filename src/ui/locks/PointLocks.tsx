"use client";

import { Field } from "../act/Field";

/** A lock of one's own on every point, where the job says so. */
export function PointLocks({ points }: { points: readonly string[] }) {
  return points.map((tag) => (
    <Field key={tag} label={`My lock on ${tag}`} name={`point ${tag}`} className="tag w-32" autoComplete="off" />
  ));
}
