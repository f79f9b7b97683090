/** Why one point may not be swapped for another under live work, with the evidence. */
export type SwapFault =
  | Readonly<{ code: "unknown device"; device: string }>
  | Readonly<{ code: "not a barrier"; device: string }>
  | Readonly<{ code: "not as good"; from: string; to: string }>
  | Readonly<{ code: "needed passing"; device: string; job: string }>
  | Readonly<{
      code: "harm";
      harms: readonly Readonly<{
        job: string;
        face: string;
        source: string;
        depth: number;
        needs: number;
        /** Missing in rows of before. */
        grade?: string | null;
        asked?: string | null;
        people: readonly string[];
      }>[];
    }>;
