import type { Carrier } from "../plant/carriers";
import type { HiddenBy } from "../trace/hiddenRoute";
import type { Tier } from "../trace/tiers";
import type { TracedSource } from "../trace/trace";

/** Energies that the same lock stops, or that come by the same last place where no one lock stops them all. */
export type EnergyGroup = Readonly<{
  face: string;
  /** The creditable device nearest the face that every way of every row crosses; null where there is none. */
  lock: string | null;
  /** That device is a point of the plan: only then are they stopped by the same lock. */
  locked: boolean;
  /** Where no device is crossed by all: the last place before the face. */
  by: string | null;
  /** The best of its rows. */
  tier: Tier;
  rows: readonly EnergyRow[];
}>;

export type EnergyRow = Readonly<{
  source: string;
  carrier: Carrier;
  arrives: Carrier;
  /** As traced; 1 where it is lit or short with the plan, however unlikely. */
  tier: Tier;
  brings: string | null;
  hiddenBy: readonly HiddenBy[];
  /** A way of its tier. */
  via: readonly string[];
  /** The way that people forget, where a plain one is shown. */
  forgotten: readonly string[] | null;
}>;

type Way = Readonly<{ source: string; carrier: Carrier; face: string }>;
const keyOf = ({ source, carrier, face }: Way) => `${source}\u0000${carrier}\u0000${face}`;

/** What reaches the work, what matters first in front. `open` are ways that the plan leaves lit or short. Cost: linear. */
export function energiesOf(
  traced: readonly TracedSource[],
  points: ReadonlySet<string>,
  open: readonly Way[],
): EnergyGroup[] {
  const isOpen = new Set(open.map(keyOf));
  const groups = new Map<
    string,
    { lock: string | null; by: string | null; face: string; rows: Map<string, EnergyRow> }
  >();
  for (const row of traced) {
    const by = row.lastLock === null ? (row.via.at(-2) ?? row.source) : null;
    const key = `${row.face}\u0000${row.lastLock ?? ""}\u0000${by ?? ""}`;
    const group = groups.get(key) ?? { face: row.face, lock: row.lastLock, by, rows: new Map() };
    groups.set(key, group);
    const own = `${keyOf(row)}\u0000${row.arrives}`;
    const known = group.rows.get(own);
    if (known) {
      // The plain way of a row comes before the one that people forget.
      group.rows.set(own, { ...known, forgotten: row.via });
      continue;
    }
    const { source, carrier, arrives, brings, hiddenBy } = row;
    const tier = isOpen.has(keyOf(row)) ? 1 : row.tier;
    const via = row.likeliest ?? row.via;
    group.rows.set(own, { source, carrier, arrives, brings, hiddenBy, via, forgotten: null, tier });
  }
  return [...groups.values()]
    .map(({ face, lock, by, rows }): EnergyGroup => {
      const sorted = [...rows.values()].sort(
        (a, b) =>
          a.tier - b.tier || a.hiddenBy.length - b.hiddenBy.length || a.via.length - b.via.length || byName(a, b),
      );
      return { face, lock, by, locked: lock !== null && points.has(lock), tier: sorted[0]!.tier, rows: sorted };
    })
    .sort((a, b) => byText(a.face, b.face) || a.tier - b.tier || byText(nameOf(a), nameOf(b)));
}

const nameOf = ({ lock, by }: EnergyGroup) => lock ?? by ?? "";
const byText = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);
const byName = (a: EnergyRow, b: EnergyRow) =>
  byText(`${a.source} ${a.carrier} ${a.arrives}`, `${b.source} ${b.carrier} ${b.arrives}`);
