import type { NotHeld } from "../../refusal/notHeld";

/** Why nobody may count on an isolation, as a clause: said after a colon, ended by whoever says it. */
export function notHeldClause(why: NotHeld): string {
  const { isolation } = why;
  switch (why.code) {
    case "not proven":
      return `${isolation} is not proven now, it is ${why.state}`;
    case "not judged":
      return `the plant register changed to revision ${why.revision}, and whether ${isolation} still holds on it is not known yet`;
    case "locks not found":
      return `the lock of ${isolation} was not found on ${why.points.join(" and ")}`;
    case "plan fell":
      return `on revision ${why.revision} of the plant register ${isolation} does not hold: ${fellClauses(why).join("; ")}`;
  }
}

function fellClauses({ missingFaces, lostPoints, short }: Extract<NotHeld, { code: "plan fell" }>): string[] {
  return [
    ...(missingFaces.length > 0 ? [`the register no longer has ${missingFaces.join(", ")}`] : []),
    ...(lostPoints.length > 0
      ? [`${lostPoints.join(", ")} ${lostPoints.length > 1 ? "stop" : "stops"} nothing now`]
      : []),
    ...short.map(({ source, face, depth }) =>
      depth === 0 ? `${source} reaches ${face}` : `${source} is held from ${face} less well than was approved`,
    ),
  ];
}

/** What the certificate of an isolation says of it, at the moment at which it is printed. */
export function certificateLine(
  state: string,
  p: Readonly<{ openSteps: number; planFault: NotHeld | null; stale: readonly string[] }>,
): string {
  const no = (why: string) => `${why}. Nobody works on it.`;
  if (state !== "proven") {
    return no(`NOT PROVEN when printed: ${state}${p.openSteps > 0 ? `, ${p.openSteps} steps open` : ""}`);
  }
  if (p.planFault !== null) return no(`DOES NOT HOLD when printed: ${notHeldClause(p.planFault)}`);
  if (p.stale.length > 0) return no(`TO BE PROVED AGAIN when printed: ${p.stale.join("; ")}`);
  return "Proven. Work is allowed only under a live permit.";
}

/** The state of an isolation as it is said beside its number: never "proven" alone over a plan that fell, or over old proofs. */
export function isolationState(state: string, planFault: NotHeld | null, stale: readonly string[]): string {
  if (planFault === null || planFault.code === "not proven") {
    return state === "proven" && stale.length > 0 ? `${state} before, to be proved again` : state;
  }
  return planFault.code === "not judged" ? `${state}, not judged yet` : `${state}, does not hold now`;
}
