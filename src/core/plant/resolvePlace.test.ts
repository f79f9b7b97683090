import { placeIndexOf, tagOfPlace } from "./resolvePlace";
import type { Item } from "./plant";

const item = (tag: string, ...parts: string[]) => ({ tag, parts }) as unknown as Item;

test("tags and parts that hold dots are told apart by what the register has", () => {
  const items = [item("MCC-2.07"), item("E.101", "shell", "tube.1"), item("V-1")];
  const tags = new Set(items.map(({ tag }) => tag));
  const places = placeIndexOf(items);
  const cases = [
    ["MCC-2.07", "MCC-2.07"],
    ["E.101.shell", "E.101"],
    ["E.101.tube.1", "E.101"],
    ["V-1", "V-1"],
  ] as const;
  for (const [place, tag] of cases) {
    expect(tagOfPlace(place, (name) => tags.has(name))).toBe(tag);
    const found = places.resolveFace(place);
    expect(found.ok && items[places.itemOf[found.places[0]!]!]!.tag).toBe(tag);
  }
  expect(tagOfPlace("nobody.knows", (name) => tags.has(name))).toBe("nobody.knows");
});
