import type { Competence, Role } from "../../core/people/roles";

/** Everybody in the demo is invented. */
export const DEMO_PEOPLE: readonly Readonly<{
  signIn: string;
  name: string;
  roles: readonly Role[];
  competences: readonly Competence[];
  firm?: string;
}>[] = [
  { signIn: "maren", name: "Maren Tolve", roles: ["coordinator"], competences: [] },
  { signIn: "idris", name: "Idris Halloway", roles: ["issuer"], competences: [] },
  { signIn: "petra", name: "Petra Quillon", roles: ["holder", "worker"], competences: ["mechanical"] },
  { signIn: "jonas", name: "Jonas Ekeberg", roles: ["isolator"], competences: ["electrical"] },
  { signIn: "sunniva", name: "Sunniva Rask", roles: ["isolator"], competences: ["process", "mechanical"] },
  {
    signIn: "odalys",
    name: "Odalys Brenn",
    roles: ["isolator"],
    competences: ["process", "mechanical", "electrical", "high-voltage"],
  },
  { signIn: "tomas", name: "Tomas Veyron", roles: ["worker"], competences: [] },
  { signIn: "nils", name: "Nils Harrow", roles: ["worker", "gas tester"], competences: [] },
  { signIn: "edda", name: "Edda Morrow", roles: ["worker", "fire watch"], competences: [] },
  { signIn: "kaspar", name: "Kaspar Lind", roles: ["worker", "attendant"], competences: [] },
  { signIn: "yrsa", name: "Yrsa Oakley", roles: ["worker", "fire watch"], competences: [] },
  { signIn: "bram", name: "Bram Ostler", roles: ["holder", "worker"], competences: ["mechanical"] },
  { signIn: "ines", name: "Ines Calder", roles: ["worker", "attendant"], competences: [] },
  { signIn: "joss", name: "Joss Perrin", roles: ["worker"], competences: [] },
  { signIn: "mika", name: "Mika Thorne", roles: ["worker"], competences: [] },
  { signIn: "rhea", name: "Rhea Vance", roles: ["worker", "fire watch"], competences: [] },
  { signIn: "silas", name: "Silas Wren", roles: ["worker"], competences: [] },
  { signIn: "dagny", name: "Dagny Pell", roles: ["worker"], competences: [], firm: "Skerry Rope and Rig" },
  { signIn: "signe", name: "Signe Aldane", roles: ["approver"], competences: [] },
  { signIn: "ruth", name: "Ruth Amberley", roles: ["operator"], competences: ["process"] },
];

/** The same for everyone, and printed on the demo's sign-in page. Never used outside the demo. */
export const DEMO_PIN = "4711";
export const DEMO_PASSWORD = "gannet-reach";

/** Detectors of the demo, with the tokens by which they are known. Never used outside the demo. */
export const DEMO_DETECTORS = [
  { id: "GD-1", kind: "gas", token: "demo-token-of-detector-gd-1" },
  { id: "GD-2", kind: "gas", token: "demo-token-of-detector-gd-2" },
  { id: "BL-3", kind: "blower", token: "demo-token-of-blower-bl-3" },
  { id: "PT-9", kind: "gauge", token: "demo-token-of-gauge-pt-9" },
] as const;
