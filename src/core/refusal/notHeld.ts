/** Why an isolation is not held at this moment, with the evidence. */
export type NotHeld =
  | Readonly<{ code: "not proven"; isolation: string; state: string; openSteps: number }>
  /** Its plan stands on an earlier register than today's, and nobody has judged it on this one. */
  | Readonly<{ code: "not judged"; isolation: string; revision: number }>
  /** Somebody read the locks on its points, and at these the right one was not there. */
  | Readonly<{ code: "locks not found"; isolation: string; points: readonly string[] }>
  /** Judged on today's register its points do not do what was approved. */
  | Readonly<{
      code: "plan fell";
      isolation: string;
      revision: number;
      missingFaces: readonly string[];
      lostPoints: readonly string[];
      /** Paths with less in the way than was asked and accepted; the worst first. */
      short: readonly Readonly<{ source: string; face: string; depth: number }>[];
    }>;
