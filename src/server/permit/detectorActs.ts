import { eq } from "drizzle-orm";
import { z } from "zod";
import { airPlaces } from "../../core/permit/air/airPlaces";
import type { PermitDetails } from "../../core/permit/kinds/details";
import { kindRule } from "../../core/permit/kinds/kinds";
import { isSilent } from "../../core/permit/air/instruments";
import { detectors } from "../db/schema";
import { loadPermit } from "./permitStore";
import { defineAct } from "../act/act";

const ROLES = ["gas tester", "fire watch", "attendant", "holder"] as const;

/** Where an instrument may stand: at a test point, which it then keeps fresh, or where people are warned by it. */
export function placesFor(details: PermitDetails): string[] {
  return [...airPlaces(details).points, "at the edge", "at head height", "at the opening"];
}

/** Posts an instrument that is switched on at the work: what it sends from now on counts for this permit. */
export const postDetector = defineAct({
  type: "detector.post",
  words: "post a detector",
  roles: ROLES,
  pin: false,
  input: z.object({
    permit: z.string(),
    detector: z.string("choose the detector").min(1, "choose the detector"),
    place: z.string("say where it stands").min(1, "say where it stands").max(120),
  }),
  run: ({ tx, now_ms }, input) => {
    const subject = input.permit;
    const stored = loadPermit(tx, input.permit);
    if (stored === null) return { ok: false, subject, refusal: { code: "unknown", what: "permit", name: subject } };
    const { details, state } = stored.life;
    if (details.kind !== "pressure test" && !kindRule(details.kind).air) {
      return { ok: false, subject, refusal: { code: "not of this kind", permit: subject, kind: details.kind } };
    }
    if (!placesFor(details).includes(input.place)) {
      return { ok: false, subject, refusal: { code: "detector place", place: input.place } };
    }
    if (["closed", "cancelled", "work done"].includes(state)) {
      const refusal = { code: "wrong state", what: `Permit ${subject}`, state, needs: "in use" } as const;
      return { ok: false, subject, refusal };
    }
    const row = tx.select().from(detectors).where(eq(detectors.id, input.detector)).get();
    if (row === undefined) {
      return { ok: false, subject, refusal: { code: "unknown", what: "detector", name: input.detector } };
    }
    if (row.permit !== null && row.permit !== subject) {
      return { ok: false, subject, refusal: { code: "detector elsewhere", detector: row.id, permit: row.permit } };
    }
    // One that is off when it is posted would only be found silent when somebody relies on it.
    if (isSilent({ posted_ms: 0, last_ms: row.lastAt }, now_ms)) {
      return { ok: false, subject, refusal: { code: "detector silent", detector: row.id } };
    }
    tx.update(detectors)
      .set({ permit: subject, place: input.place, postedAt: now_ms })
      .where(eq(detectors.id, row.id))
      .run();
    return { ok: true, subject, answer: { permit: subject, detector: row.id } };
  },
});

export const takeDetector = defineAct({
  type: "detector.take",
  words: "take a detector away",
  roles: ROLES,
  pin: false,
  input: z.object({ permit: z.string(), detector: z.string() }),
  run: ({ tx }, input) => {
    const subject = input.permit;
    const stored = loadPermit(tx, input.permit);
    const row = tx.select().from(detectors).where(eq(detectors.id, input.detector)).get();
    if (stored === null || row?.permit !== subject) {
      return { ok: false, subject, refusal: { code: "unknown", what: "detector here called", name: input.detector } };
    }
    const { state } = stored.life;
    if (state === "live") {
      const refusal = { code: "wrong state", what: `Permit ${subject}`, state, needs: "not live" } as const;
      return { ok: false, subject, refusal };
    }
    tx.update(detectors).set({ permit: null, place: "", postedAt: null }).where(eq(detectors.id, row.id)).run();
    return { ok: true, subject, answer: { permit: subject, detector: row.id } };
  },
});
