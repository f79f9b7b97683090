/** An act that a device keeps because it had no network: what, whose, and when by its own clock. Never the PIN. */
export type KeptAct = Readonly<{
  actId: string;
  type: string;
  input: Readonly<Record<string, unknown>>;
  doneAt_ms: number;
  /** Whose it is: only they can send it, for it takes their PIN. */
  personId: string;
  personName: string;
  /** What it was, in words, and where it belongs. */
  label: string;
  page: string;
  /** A picture that goes first; its id then joins the input. */
  photo: Blob | null;
  /** What the server said when it no longer fitted. */
  refusal: Readonly<{ sentence: string; code: string; settles: boolean }> | null;
}>;
