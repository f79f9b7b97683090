/** Bolts of one flange joint, by nominal bore in mm and pressure class. */
type Row = Readonly<{ upTo_mm: number; bolts: number }>;

const PN_25: readonly Row[] = [
  { upTo_mm: 50, bolts: 4 },
  { upTo_mm: 150, bolts: 8 },
  { upTo_mm: 250, bolts: 12 },
  { upTo_mm: 350, bolts: 16 },
];

/** ASME B16.5, classes 150 and 300, and EN 1092-1, PN 10 to 40, both from memory. */
const BOLTS: Readonly<Record<string, readonly Row[]>> = {
  "10": [
    { upTo_mm: 50, bolts: 4 },
    { upTo_mm: 200, bolts: 8 },
    { upTo_mm: 300, bolts: 12 },
    { upTo_mm: 400, bolts: 16 },
  ],
  "16": [
    { upTo_mm: 50, bolts: 4 },
    { upTo_mm: 150, bolts: 8 },
    { upTo_mm: 300, bolts: 12 },
    { upTo_mm: 400, bolts: 16 },
  ],
  "25": PN_25,
  "40": PN_25,
  "150": [
    { upTo_mm: 80, bolts: 4 },
    { upTo_mm: 200, bolts: 8 },
    { upTo_mm: 350, bolts: 12 },
    { upTo_mm: 450, bolts: 16 },
    { upTo_mm: 600, bolts: 20 },
  ],
  "300": [
    { upTo_mm: 40, bolts: 4 },
    { upTo_mm: 125, bolts: 8 },
    { upTo_mm: 200, bolts: 12 },
    { upTo_mm: 300, bolts: 16 },
    { upTo_mm: 450, bolts: 20 },
    { upTo_mm: 600, bolts: 24 },
  ],
};

/** Bolts for one joint; null where the table has no such class or size: then they are counted on the flange. */
export function boltsFor(bore_m: number, flangeClass: string): number | null {
  const rows = BOLTS[flangeClass.replace(/\D/g, "")];
  return rows?.find(({ upTo_mm }) => bore_m * 1000 <= upTo_mm)?.bolts ?? null;
}
