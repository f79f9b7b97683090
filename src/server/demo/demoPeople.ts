import type { Competence, Role } from "../../core/people/roles";

/** Everybody in the demo is invented. */
export const DEMO_PEOPLE: readonly Readonly<{
  signIn: string;
  name: string;
  roles: readonly Role[];
  competences: readonly Competence[];
}>[] = [
  { signIn: "maren", name: "Maren Tolve", roles: ["coordinator"], competences: [] },
  { signIn: "idris", name: "Idris Halloway", roles: ["issuer"], competences: [] },
  { signIn: "petra", name: "Petra Quillon", roles: ["holder", "worker"], competences: ["mechanical"] },
  { signIn: "jonas", name: "Jonas Ekeberg", roles: ["isolator"], competences: ["electrical"] },
  { signIn: "sunniva", name: "Sunniva Rask", roles: ["isolator"], competences: ["process", "mechanical"] },
  { signIn: "odalys", name: "Odalys Brenn", roles: ["isolator"], competences: ["process", "mechanical", "electrical"] },
  { signIn: "tomas", name: "Tomas Veyron", roles: ["worker"], competences: [] },
  { signIn: "signe", name: "Signe Aldane", roles: ["approver"], competences: [] },
  { signIn: "ruth", name: "Ruth Amberley", roles: ["operator"], competences: ["process"] },
];

/** The same for everyone, and printed on the demo's sign-in page. Never used outside the demo. */
export const DEMO_PIN = "4711";
export const DEMO_PASSWORD = "gannet-reach";
