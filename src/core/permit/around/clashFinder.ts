import { crossChecks, type PermitClash, type PermitInPlace } from "./crossChecks";

/**
 * `crossChecks` of one permit after another against the same many. Two permits can touch only if they share an isolation,
 * a place or a person, or if one of them reaches out: a flame, a pressure test, a lift, a ventilation.
 *
 * Cost: linear once; then the permits that share something, and those that reach out. All of them for one that does.
 */
export function clashFinder(others: readonly PermitInPlace[]): (one: PermitInPlace) => PermitClash[] {
  const sharing = new Map<string, number[]>();
  const reaching: number[] = [];
  others.forEach((other, index) => {
    for (const key of keysOf(other)) {
      const known = sharing.get(key);
      if (known) known.push(index);
      else sharing.set(key, [index]);
    }
    if (reachesOut(other)) reaching.push(index);
  });
  return (one) => {
    if (reachesOut(one)) return crossChecks(one, others);
    const near = new Set([...reaching, ...keysOf(one).flatMap((key) => sharing.get(key) ?? [])]);
    return crossChecks(
      one,
      [...near].sort((a, b) => a - b).map((index) => others[index]!),
    );
  };
}

function keysOf({ isolations, faces, people }: PermitInPlace): string[] {
  return [
    ...isolations.map((number) => `isolation ${number}`),
    ...faces.map(({ tag }) => `place ${tag}`),
    ...people.map((id) => `person ${id}`),
  ];
}

function reachesOut({ details, lifts }: PermitInPlace): boolean {
  return (
    lifts.length > 0 ||
    details.kind === "hot work" ||
    details.kind === "pressure test" ||
    details.kind === "confined space entry"
  );
}
