import type { Face } from "../../request/jobFile";
import type { PermitInPlace } from "./crossChecks";

/** An isolation that is proven, and what it was planned for. */
export type ProvenIsolation = Readonly<{ number: string; faces: readonly Pick<Face, "place" | "how">[] }>;

/**
 * Which isolation has opened a vessel for work and proven it so; null where none has. A vessel is no danger to a flame
 * then; being shut off alone leaves it full. Cost: linear once, then constant.
 */
export function emptiedBy(
  proven: readonly ProvenIsolation[],
  itemAt: (place: string) => string | null,
): (tag: string) => string | null {
  const opened = new Map<string, string>();
  for (const { number, faces } of proven) {
    for (const { place, how } of faces) {
      const tag = itemAt(place);
      if (tag === null || opened.has(tag)) continue;
      if (how.some((one) => one === "open" || one === "enter" || one === "hot")) opened.set(tag, number);
    }
  }
  return (tag) => opened.get(tag) ?? null;
}

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
