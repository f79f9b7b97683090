import { changeBetween, type ListChange, type RegisterChange } from "../core/plant/registerChange";
import { plantFrom, type PlantKey } from "./plantFrom";

/** How much of a list is shown; how long it is stands beside it. */
const SHOWN = 200;

type Counts = Readonly<{ added: number; removed: number; changed: number }>;

/** What a register changes: how many rows of each list, and the first of them. */
export type RegisterLook = Readonly<{
  counts: Readonly<Record<keyof RegisterChange, Counts>>;
  change: RegisterChange;
}>;

const NOTHING = { items: [], links: [], kinds: [], areas: [] };

/** What the second register says that the first does not; without a first, all of it. Cost: linear in both. */
export function compareRegisters({ before, after }: { before: PlantKey | null; after: PlantKey }): RegisterLook {
  const change = changeBetween(before === null ? NOTHING : plantFrom(before).plant, plantFrom(after).plant);
  const counted = ({ added, removed, changed }: ListChange): Counts => ({
    added: added.length,
    removed: removed.length,
    changed: changed.length,
  });
  const first = ({ added, removed, changed }: ListChange): ListChange => ({
    added: added.slice(0, SHOWN),
    removed: removed.slice(0, SHOWN),
    changed: changed.slice(0, SHOWN),
  });
  const { items, links, areas, kinds } = change;
  return {
    counts: { items: counted(items), links: counted(links), areas: counted(areas), kinds: counted(kinds) },
    change: { items: first(items), links: first(links), areas: first(areas), kinds: first(kinds) },
  };
}
