export const ROLES = [
  "coordinator",
  "issuer",
  "holder",
  "isolator",
  "worker",
  "operator",
  "approver",
  "gas tester",
  "fire watch",
  "attendant",
] as const;
export type Role = (typeof ROLES)[number];

/** What a person has been found able to isolate and prove. */
export const COMPETENCES = ["electrical", "mechanical", "process"] as const;
export type Competence = (typeof COMPETENCES)[number];

export type PersonId = string & { readonly __brand: "PersonId" };
