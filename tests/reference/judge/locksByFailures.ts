import { closedBy, type Failures, FLOWS } from "./byFailures";

/** Grades of conductors and of what moves: which devices every way crosses. */
export function lockGrade(failures: Failures, from: string, face: string, family: "wire" | "motion"): string {
  const carriers = family === "wire" ? ["power", "control"] : ["shaft", "gravity"];
  const ownTag = failures.itemAt(from).tag;
  const flowToo = family === "motion" && FLOWS.includes(from.slice(from.indexOf("|") + 1)) ? FLOWS : [];
  const passes = (stops: (tag: string) => boolean) => {
    const found = new Set([from]);
    for (const node of found) {
      for (const { from: a, to: b } of failures.arcs) {
        if (a !== node || (failures.gates.has(b) && failures.gates.get(b) !== ownTag && stops(failures.gates.get(b)!)))
          continue;
        found.add(b);
      }
    }
    return found.has(face);
  };
  const deviceOf = (tag: string) => failures.items.get(tag)!.device!;
  const closed = closedBy(failures, [...carriers, ...flowToo], ownTag);
  if (passes(() => true)) return "none";
  if (!passes((tag) => [...closed].some((node) => failures.gates.get(node) === tag))) {
    return family === "wire" ? "separated" : "restrained";
  }
  const isIsolating = (tag: string) =>
    !["switch", "load switch", "control isolator", "contactor"].includes(failures.items.get(tag)!.kind);
  if (family === "motion") return passes((tag) => deviceOf(tag).lockable === true) ? "none" : "drive isolated only";
  if (!passes((tag) => deviceOf(tag).lockable === true && isIsolating(tag))) return "locked isolating device";
  return passes((tag) => deviceOf(tag).lockable === true) ? "tagged only" : "locked switch";
}
