import { randomUUID } from "node:crypto";
import { z } from "zod";
import { profileOf } from "../../core/requirement/profiles";
import { isolationReviews } from "../db/schema";
import { loadIsolation } from "./isolationStore";
import { defineAct } from "../act/act";

const HOUR_MS = 3_600_000;

/** Somebody has looked at an isolation that stays, says why it stays, and when it is looked at again. */
export const reviewIsolation = defineAct({
  type: "isolation.review",
  words: "review an isolation",
  roles: ["coordinator"],
  pin: true,
  input: z.object({
    isolation: z.string(),
    reason: z.string("the reason is missing").trim().min(3, "write why it stays").max(500, "at most 500 characters"),
    next_h: z
      .number("must be a whole number of hours")
      .int("must be a whole number of hours")
      .min(1, "must be at least 1 hour"),
  }),
  run: ({ tx, person, now_ms }, input) => {
    const stored = loadIsolation(tx, input.isolation);
    const subject = input.isolation;
    if (stored === null) return { ok: false, subject, refusal: { code: "unknown", what: "isolation", name: subject } };
    if (stored.life.state === "restored") {
      const refusal = {
        code: "wrong state",
        what: `Isolation ${subject}`,
        state: "restored",
        needs: "in place",
      } as const;
      return { ok: false, subject, refusal };
    }
    const most_h = profileOf(stored.row.ruleProfile).reviewEvery_h;
    if (input.next_h > most_h)
      return { ok: false, subject, refusal: { code: "review too late", hours: input.next_h, most: most_h } };
    tx.insert(isolationReviews)
      .values({
        id: randomUUID(),
        isolationId: stored.row.id,
        reason: input.reason,
        reviewedBy: person.id,
        reviewedAt: now_ms,
        nextAt: now_ms + input.next_h * HOUR_MS,
      })
      .run();
    return { ok: true, subject, answer: { isolation: subject, next_ms: now_ms + input.next_h * HOUR_MS } };
  },
});
