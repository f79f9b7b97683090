/** How each carrier is told apart without colour: a letter, and a pattern for its line. */
export const CARRIER_MARKS: Readonly<Record<string, { letter: string; dash: string; width: number; words: string }>> = {
  power: { letter: "P", dash: "", width: 2.4, words: "power" },
  control: { letter: "C", dash: "2 4", width: 2, words: "control" },
  fluid: { letter: "F", dash: "", width: 4.4, words: "fluid" },
  hydraulic: { letter: "H", dash: "10 3", width: 3.4, words: "hydraulic" },
  pneumatic: { letter: "A", dash: "10 3 2 3", width: 2.6, words: "air (pneumatic)" },
  shaft: { letter: "S", dash: "16 5", width: 4.4, words: "shaft" },
  gravity: { letter: "G", dash: "1 5", width: 4.4, words: "gravity" },
  bulk: { letter: "B", dash: "6 4", width: 4.4, words: "bulk" },
  heat: { letter: "T", dash: "4 2 1 2", width: 3, words: "heat" },
  radiation: { letter: "R", dash: "1 3", width: 2.6, words: "radiation" },
};

/** A carrier in a sentence or table: its letter in a box, then its word. */
export function carrierMark(carrier: string) {
  return CARRIER_MARKS[carrier] ?? { letter: "?", dash: "", width: 2, words: carrier };
}
