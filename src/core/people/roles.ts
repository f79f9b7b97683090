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

/** The trades of isolating and proving. */
export const TRADES = ["electrical", "mechanical", "process"] as const;
export type Trade = (typeof TRADES)[number];

/** What a person has been found able to isolate and prove. High voltage comes on top of electrical, and never alone. */
export const COMPETENCES = ["electrical", "high-voltage", "mechanical", "process"] as const;
export type Competence = (typeof COMPETENCES)[number];

export type PersonId = string & { readonly __brand: "PersonId" };
