import type { PermitFacts } from "../../src/core/permit/record/permitTypes";
import { purgeNeed_s } from "../../src/core/permit/requirements/entry";
import { asksOf, missingFor } from "../../src/core/permit/requirements/requirements";
import { airState } from "../../src/core/permit/air/airTests";
import { sentSchema, type Sender } from "../../src/core/permit/air/instruments";
import { Acting, DETAILS, draftOf, HOUR, idOf, MINUTE, seen, SHEET, wellFacts } from "./permits";

/** Permits on which only the air is still open, and what is done about it. */

export const GAS = "hydrogen sulphide";
export const HOT = ["at the work", "at the edge"];
export const SPACE = ["top", "bottom"];
export const CORNER = "corner 1 low";
export const COVER = "through the closed cover";
export const entry = DETAILS["confined space entry"];

export const SENDER: Sender = { kind: "gas", sheet: SHEET, gases: [] };

export const hotFacts = (more: Partial<PermitFacts> = {}) => wellFacts({ testPoints: HOT, ...more });
export const spaceFacts = (more: Partial<PermitFacts> = {}) =>
  wellFacts({ testPoints: [...SPACE, CORNER], insidePoints: [CORNER], coverPoint: COVER, gases: seen(GAS), ...more });

export const prepared = (acting: Acting) =>
  acting
    .did("cora", { type: "check" })
    .did("isa", { type: "authorise" })
    .ticked(asksOf({ permit: acting.permit, facts: acting.facts, now_ms: HOUR }))
    .did("isa", { type: "issue", copies: ["at the work"] });
export const hot = (facts = hotFacts()) =>
  prepared(new Acting(draftOf({ ...DETAILS["hot work"], points: HOT }), facts)).did("fay", {
    type: "take post",
    post: "fire watch",
  });
export const draw = (
  acting: Acting,
  point: string,
  more: { instrument?: string; oxygen?: number; flammable?: number; h2s?: number | null } = {},
) => {
  const { instrument = "GI-1", oxygen = 0.209, flammable = 0, h2s = 0 } = more;
  acting.did("gil", { type: "begin sample", point, instrument }).later(2 * MINUTE);
  const toxics = h2s === null ? [] : [{ gas: GAS, fraction: h2s }];
  return acting.did("gil", { type: "read", point, reading: { oxygen, flammable, toxics } });
};
/** Tested through the cover, blown out, and ventilated from then on. */
export const blownOut = (acting: Acting) => {
  draw(acting, COVER).later(1);
  acting.did("gil", { type: "begin purge" }).later((purgeNeed_s(entry, acting.facts.gases) ?? 0) * 1000);
  return acting.did("gil", { type: "end purge" }).later(1).did("gil", { type: "begin ventilation" });
};
export const space = (facts = spaceFacts()) => {
  const acting = blownOut(prepared(new Acting(draftOf(entry), facts)));
  for (const point of SPACE) draw(acting, point);
  acting.did("ada", { type: "take post", post: "attendant" }).did("hal", { type: "accept" });
  for (const [i, name] of ["hal", "wim", "will"].entries()) {
    acting.did(name, { type: "sign on", lock: `L-${i}`, answer: "P-7" });
  }
  return acting;
};
export const go = (name: string) => ({ type: "go in", person: idOf(name) }) as const;
export const out = (name: string) => ({ type: "come out", person: idOf(name) }) as const;
export const is = (found: unknown, wanted: unknown) => expect(found).toEqual(wanted);
export const lacks = (acting: Acting, act: "issue" | "accept" = "accept") =>
  missingFor(act, { permit: acting.permit, facts: acting.facts, now_ms: acting.at_ms }).map(({ id }) => id);
export const fitAt = (acting: Acting, more: object = {}) =>
  airState(acting.facts, acting.permit.log, { every_min: 120, now_ms: acting.at_ms, entry: false, ...more }).fit;
export const againstOf = (acting: Acting) => {
  const last = acting.permit.log.at(-1);
  return last?.type === "air" ? last.against : null;
};
export const detector = (more: Partial<PermitFacts["detectors"][number]> = {}) => ({
  id: "GD-1",
  place: HOT[1]!,
  kind: "gas" as const,
  reads: ["oxygen", "flammable"],
  against: [],
  silent: false,
  silentFrom_ms: Infinity,
  ...more,
});
export const message = (more: object = {}) =>
  sentSchema.parse({ version: 1, sequence: 1, oxygen: 0.209, flammable: 0, battery: 1, ...more });
