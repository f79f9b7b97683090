import fc from "fast-check";
import { propertyRuns } from "../../../tests/support/runs";
import { changeBetween, isSame } from "./registerChange";
import type { PlantInput } from "./plantSchema";
import { readPlantValue } from "./readPlantJson";

type Item = PlantInput["items"][number];
type Link = PlantInput["links"][number];
const plantOf = (items: Item[], links: Link[] = []) => {
  const read = readPlantValue(
    {
      format: "heavy-lantern/plant",
      version: 1,
      items: [{ tag: "S", kind: "header", source: [{ carrier: "fluid" }] }, ...items],
      links,
    },
    "plant.json",
  );
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.value;
};
const valve = (tag: string, more: Partial<NonNullable<Item["device"]>> = {}): Item => ({
  tag,
  kind: "valve",
  device: { stops: ["fluid"], credit: true, effort: 5, ...more },
});

test("what is added, taken away and otherwise, each field by its name", () => {
  const before = plantOf(
    [valve("V-1"), valve("V-2"), { tag: "P", kind: "pump" }],
    [{ from: "S", to: "V-1", carries: "fluid" }],
  );
  const after = plantOf(
    [valve("V-1", { credit: false, effort: 7 }), { tag: "P", kind: "pump", name: "Feed pump" }, valve("V-3")],
    [
      { from: "S", to: "V-1", carries: "fluid", oneWay: true },
      { from: "V-1", to: "P", carries: "fluid" },
    ],
  );
  const { items, links } = changeBetween(before, after);
  expect(items.added).toEqual(["V-3"]);
  expect(items.removed).toEqual(["V-2"]);
  expect(items.changed).toEqual([
    {
      name: "V-1",
      fields: [
        { field: "device.credit", before: "yes", after: "no" },
        { field: "device.effort_min", before: "5", after: "7" },
      ],
    },
    { name: "P", fields: [{ field: "name", before: "", after: "Feed pump" }] },
  ]);
  expect(links).toEqual({
    added: ["V-1 to P (fluid)"],
    removed: [],
    changed: [{ name: "S to V-1 (fluid)", fields: [{ field: "oneWay", before: "no", after: "yes" }] }],
  });
});

test("the order in which fields are written is no change", () => {
  const source = {
    carrier: "fluid" as const,
    feeding: false,
    stored: { form: "hot body" as const, temperature_C: 80 },
  };
  const { stored, feeding, carrier } = source;
  const [one, other] = [source, { stored, feeding, carrier }].map((each) =>
    plantOf([{ tag: "T", kind: "tank", source: [each] }]),
  );
  const turned = JSON.parse(JSON.stringify(other), (_, value: unknown) =>
    value !== null && typeof value === "object" && !Array.isArray(value)
      ? Object.fromEntries(Object.entries(value).reverse())
      : value,
  ) as typeof other;
  expect(isSame(changeBetween(one!, turned!))).toBe(true);
});

test("a second line between the same places is one more, not the same", () => {
  const line: Link = { from: "S", to: "V-1", carries: "fluid" };
  const { links } = changeBetween(plantOf([valve("V-1")], [line]), plantOf([valve("V-1")], [line, line]));
  expect(links).toEqual({ added: ["S to V-1 (fluid)"], removed: [], changed: [] });
});

test("on random registers: forwards and backwards are each other's mirror, and nothing is said where nothing is otherwise", () => {
  const item = fc.record({ n: fc.nat(9), effort: fc.nat(3), named: fc.boolean() });
  const rows = fc.uniqueArray(item, { selector: ({ n }) => n, maxLength: 8 });
  const made = (some: readonly { n: number; effort: number; named: boolean }[]) =>
    plantOf(
      some.map(({ n, effort, named }) => ({
        ...valve(`V-${n}`, { effort }),
        ...(named ? { name: `Valve ${n}` } : {}),
      })),
    );
  let met = 0;
  fc.assert(
    fc.property(rows, rows, (a, b) => {
      const [one, other] = [made(a), made(b)];
      const there = changeBetween(one, other).items;
      const back = changeBetween(other, one).items;
      expect([...there.added].sort()).toEqual([...back.removed].sort());
      expect(there.changed.map(({ name }) => name).sort()).toEqual(back.changed.map(({ name }) => name).sort());
      // Counted apart: by what was put in.
      const both = a.filter(({ n }) => b.some((two) => two.n === n));
      const otherwise = both.filter((x) =>
        b.some((y) => y.n === x.n && (y.effort !== x.effort || y.named !== x.named)),
      );
      expect(there.changed.length).toBe(otherwise.length);
      expect(there.added.length).toBe(b.length - both.length);
      expect(isSame(changeBetween(one, one))).toBe(true);
      expect(isSame(changeBetween(one, other))).toBe(
        there.added.length + there.removed.length + otherwise.length === 0,
      );
      met += otherwise.length;
    }),
    propertyRuns(100),
  );
  expect(met).toBeGreaterThan(0);
});
