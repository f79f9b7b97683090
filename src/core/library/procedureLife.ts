import type { Competence, PersonId, Role } from "../people/roles";
import { accept, refuse, type Result } from "../refusal/result";
import type { Refusal } from "../refusal/refusal";
import { PARTS, type Part, type ProcedureLife } from "./procedure";

/** 29 CFR 1910.147(c)(6)(i), at least annually, from memory. */
export const INSPECTED_WITHIN_DAYS = 365;
const DAY_MS = 86_400_000;

type By = Readonly<{ by: PersonId; roles: readonly Role[]; competences: readonly Competence[]; at_ms: number }>;
export type ProcedureCommand =
  | (By & Readonly<{ type: "sign"; part: Part }>)
  | (By & Readonly<{ type: "inspect"; watched: readonly PersonId[]; found: string; sound: boolean }>)
  | (By & Readonly<{ type: "withdraw" }>);

/**
 * What becomes of a version. It is approved by two people, neither of whom wrote it: one who has every trade of its steps, and
 * one who answers for the equipment. Once a year somebody who does not use it looks on while others do.
 */
export function decideProcedure(life: ProcedureLife, command: ProcedureCommand): Result<ProcedureLife> {
  const { number, state } = life;
  const what = `Version ${life.version} of ${number}`;
  switch (command.type) {
    case "sign": {
      if (state !== "draft") return refuse({ code: "wrong state", what, state, needs: "draft" });
      if (command.by === life.writtenBy) return refuse({ code: "own procedure", procedure: number });
      if (life.signatures.some(({ part }) => part === command.part)) {
        return refuse({ code: "already done", what: `The signature for the ${command.part}` });
      }
      if (life.signatures.some(({ by }) => by === command.by)) {
        return refuse({ code: "two people", procedure: number });
      }
      const fault = fitsPart(life, command);
      if (fault) return refuse(fault);
      const signatures = [...life.signatures, { part: command.part, by: command.by, at_ms: command.at_ms }];
      const isWhole = PARTS.every((part) => signatures.some((one) => one.part === part));
      return accept({ ...life, signatures, state: isWhole ? "approved" : "draft" });
    }
    case "inspect": {
      if (state !== "approved") return refuse({ code: "wrong state", what, state, needs: "approved" });
      if (command.watched.length === 0) return refuse({ code: "nobody watched", procedure: number });
      if (command.watched.includes(command.by)) return refuse({ code: "inspecting oneself", procedure: number });
      const { by, at_ms, watched, found, sound } = command;
      return accept({
        ...life,
        inspections: [...life.inspections, { by, at_ms, watched: [...watched], found, sound }],
      });
    }
    case "withdraw":
      if (state !== "draft" && state !== "approved") {
        return refuse({ code: "wrong state", what, state, needs: "draft or approved" });
      }
      return accept({ ...life, state: "withdrawn" });
  }
}

function fitsPart({ trades }: ProcedureLife, command: ProcedureCommand & { type: "sign" }): Refusal | null {
  if (command.part === "equipment") {
    const needs = ["issuer"] as const;
    return command.roles.includes("issuer")
      ? null
      : { code: "not yours to do", act: "approve a procedure for its equipment", needs };
  }
  const missing = trades.find((trade) => !command.competences.includes(trade));
  return missing === undefined
    ? null
    : { code: "not competent", step: "Approving a procedure for its trade", needs: missing };
}

/** By when the next inspection is due: a year after the last, or after it was approved. Null while it is not. */
export function inspectionDue_ms(life: ProcedureLife): number | null {
  if (life.state !== "approved") return null;
  const from_ms = life.inspections.at(-1)?.at_ms ?? Math.max(...life.signatures.map(({ at_ms }) => at_ms));
  return from_ms + INSPECTED_WITHIN_DAYS * DAY_MS;
}

/** Why nobody requests work by it; null where one may. */
export type Unusable = "not approved" | "superseded" | "withdrawn" | "inspection overdue" | "found unsound";

export function whyUnusable(life: ProcedureLife, now_ms: number): Unusable | null {
  switch (life.state) {
    case "draft":
      return "not approved";
    case "superseded":
      return "superseded";
    case "withdrawn":
      return "withdrawn";
    case "approved":
      if (life.inspections.at(-1)?.sound === false) return "found unsound";
      return now_ms >= inspectionDue_ms(life)! ? "inspection overdue" : null;
  }
}
