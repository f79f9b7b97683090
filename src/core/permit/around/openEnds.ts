import type { PermitInPlace } from "./crossChecks";

/** Ends that other permits open: by breaking a line, or at a work location that is met open. */
export function openEndsOf(
  others: readonly Readonly<{ number: string; permit: PermitInPlace }>[],
): { tag: string; permit: string }[] {
  return others.flatMap(({ number, permit }) =>
    permit.faces
      .filter(({ how }) => permit.details.kind === "line break" || how.includes("open"))
      .map(({ tag }) => ({ tag, permit: number })),
  );
}
