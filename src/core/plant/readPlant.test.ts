import { problemLine, type Read } from "./problem";
import { readPlantCsv } from "./readPlantCsv";
import { readPlantJson, readPlantValue } from "./readPlantJson";

const lines = (read: Read<unknown>): string[] => (read.ok ? [] : read.problems.map(problemLine));
const valve = { tag: "V-1", kind: "valve", device: { stops: ["fluid"], credit: true, effort: 1 } };
const tank = { tag: "T-1", kind: "tank", source: [{ carrier: "fluid" }] };
const plant = (items: unknown[], links: unknown[] = []) => ({
  format: "heavy-lantern/plant",
  version: 1,
  items,
  links,
});

describe("plant.json", () => {
  test.each<[string, unknown, RegExp]>([
    ["a duplicate tag", plant([tank, tank]), /plant\.json, T-1, tag: duplicate tag/],
    ["a link to nowhere", plant([tank], [{ from: "T-1", to: "V-9", carries: "fluid" }]), /V-9, to: unknown tag V-9/],
    [
      "an unknown carrier",
      plant([tank], [{ from: "T-1", to: "T-1", carries: "steam" }]),
      /carries: unknown carrier "steam"/,
    ],
    [
      "a negative effort",
      plant([tank, { ...valve, device: { ...valve.device, effort: -1 } }]),
      /V-1, device\.effort: must be a number/,
    ],
    [
      "a missing effort",
      plant([tank, { ...valve, device: { stops: ["fluid"], credit: true } }]),
      /V-1, device\.effort: must be/,
    ],
    [
      "an effort that is text",
      plant([tank, { ...valve, device: { ...valve.device, effort: "6" } }]),
      /V-1, device\.effort: must be/,
    ],
    ["no source at all", plant([valve]), /source: no item is a source/],
    [
      "a bare tag of an item with parts in a link",
      plant([tank, { tag: "X", kind: "exchanger", parts: ["a", "b"] }], [{ from: "T-1", to: "X", carries: "fluid" }]),
      /X has parts: name the part, for example X\.a/,
    ],
    ["a device with parts", plant([tank, { ...valve, parts: ["a"] }]), /V-1, parts: a device has no parts/],
    [
      "a tag that is also another's part",
      plant(
        [tank, { tag: "X", kind: "vessel", parts: ["a"] }, { tag: "X.a", kind: "vessel" }],
        [{ from: "T-1", to: "X.a", carries: "fluid" }],
      ),
      /X\.a is ambiguous/,
    ],
    ["another format", { ...plant([tank]), format: "something" }, /format: must be "heavy-lantern\/plant"/],
    ["items that are no list", { ...plant([]), items: {} }, /items: must be a list/],
    ["a feeder that does not exist", plant([{ ...tank, feeder: "Q-0" }]), /T-1, feeder: unknown tag Q-0/],
  ])("refuses %s, naming tag and field", (_, raw, expected) => {
    expect(lines(readPlantValue(raw, "plant.json")).join("\n")).toMatch(expected);
  });

  test("says so when the file is empty, no JSON or no text", () => {
    expect(lines(readPlantJson("", "plant.json"))).toEqual(["plant.json: the file is empty"]);
    expect(lines(readPlantJson("{", "plant.json"))).toEqual(["plant.json: the file is not JSON"]);
    expect(lines(readPlantJson("PK\u0003\u0000", "plant.json"))).toEqual(["plant.json: the file is not text"]);
  });

  test("lists every problem, not only the first", () => {
    const read = readPlantValue(
      plant([tank, tank, { ...valve, parts: ["a"] }], [{ from: "A", to: "B", carries: "fluid" }]),
      "p",
    );
    expect(lines(read)).toHaveLength(4);
  });

  test("warns of a third link of a stopped carrier at one device", () => {
    const ends = ["A", "B", "C"].map((tag) => ({ tag, kind: "vessel" }));
    const links = ends.map(({ tag }) => ({ from: tag, to: "V-1", carries: "fluid" }));
    const read = readPlantValue(plant([tank, valve, ...ends], links), "p");
    expect(read.ok && read.warnings.map(problemLine)).toEqual([
      "p, V-1, links: third fluid link at a device: draw the tee as an item of its own",
    ]);
  });
});

const ITEMS = "tag,name,kind,source,stops,credit,effort,parts\n";
const LINKS = "from,to,carries\n";
const csv = (items: string, links: string) =>
  readPlantCsv({ name: "items.csv", text: items }, { name: "links.csv", text: links });

describe("items.csv and links.csv", () => {
  test("read as the same plant that plant.json gives", () => {
    const fromCsv = csv(`${ITEMS}T-1,,tank,fluid,,,,\nV-1,,valve,,fluid,yes,1,\n`, `${LINKS}T-1,V-1,fluid\n`);
    const fromJson = readPlantValue(plant([tank, valve], [{ from: "T-1", to: "V-1", carries: "fluid" }]), "p");
    if (!fromCsv.ok || !fromJson.ok) throw new Error(lines(fromCsv).join());
    expect(JSON.parse(JSON.stringify(fromCsv.value))).toEqual(JSON.parse(JSON.stringify(fromJson.value)));
  });

  test.each<[string, string, string, RegExp]>([
    ["a wrong column", "tag,kind,colour\nT-1,tank,red\n", LINKS, /items\.csv row 1, colour: unknown column/],
    ["a missing column", "tag,name\nT-1,x\n", LINKS, /items\.csv row 1, kind: this column is missing/],
    ["an empty file", "", LINKS, /items\.csv: the file is empty/],
    ["a heading without rows", ITEMS, LINKS, /items\.csv: there is a heading but no rows/],
    [
      "a duplicate tag",
      `${ITEMS}T-1,,tank,fluid,,,,\nT-1,,tank,fluid,,,,\n`,
      `${LINKS}T-1,T-1,fluid\n`,
      /items\.csv row 3, T-1, tag: duplicate tag, first used in row 2/,
    ],
    [
      "a link to nowhere",
      `${ITEMS}T-1,,tank,fluid,,,,\n`,
      `${LINKS}T-1,V-9,fluid\n`,
      /links\.csv row 2, V-9, to: unknown tag V-9/,
    ],
    [
      "an effort with a comma",
      `${ITEMS}T-1,,tank,fluid,,,,\nV-1,,valve,,fluid,yes,"1,5",\n`,
      `${LINKS}T-1,V-1,fluid\n`,
      /items\.csv row 3, V-1, effort: must be a number of minutes/,
    ],
    [
      "credit that is neither yes nor no",
      `${ITEMS}T-1,,tank,fluid,,,,\nV-1,,valve,,fluid,maybe,1,\n`,
      `${LINKS}T-1,V-1,fluid\n`,
      /items\.csv row 3, V-1, credit: must be true or false/,
    ],
    ["bytes that are no text", "tag,kind\n\u0000\u0001,x\n", LINKS, /items\.csv: the file is not text/],
  ])("refuses %s, naming file, row, tag and field", (_, items, links, expected) => {
    expect(lines(csv(items, links)).join("\n")).toMatch(expected);
  });

  test("understands stored energies and sources that cannot be disconnected", () => {
    const text =
      "tag,kind,source,stored\nB-1,panel,power undisconnectable,power capacitor capacitance_F=0.002 voltage_V=400\n";
    const read = csv(text, `${LINKS}`.concat("B-1,C-1,power\n"));
    expect(lines(read)).toEqual(["links.csv row 2, C-1, to: unknown tag C-1"]);
    const good = csv(`${text}C-1,vessel,,\n`, `${LINKS}B-1,C-1,power\n`);
    if (!good.ok) throw new Error(lines(good).join());
    expect(good.value.items[0]?.sources).toMatchObject([
      { carrier: "power", feeding: true, disconnectable: false },
      { carrier: "power", feeding: false, stored: { form: "capacitor", capacitance_F: 0.002, voltage_V: 400 } },
    ]);
  });
});

describe("areas.csv", () => {
  const plant = (areas: string) =>
    readPlantCsv(
      { name: "items.csv", text: "tag,kind,source,area\nH-1,header,fluid,North\nT-1,tank,,North\n" },
      { name: "links.csv", text: "from,to,carries\nH-1,T-1,fluid\n" },
      { name: "areas.csv", text: areas },
    );

  test("gives each area its place on the site plan and whom to tell", () => {
    const read = plant("name,x_m,y_m,width_m,depth_m,level_m,tell\nNorth,0,5,10,8,3,Night operator\n");
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    expect(read.value.areas).toEqual([
      { name: "North", x_m: 0, y_m: 5, width_m: 10, depth_m: 8, level_m: 3, tell: "Night operator" },
    ]);
  });
  test("a size of nothing is refused by row and field", () => {
    const read = plant("name,x_m,y_m,width_m,depth_m\nNorth,0,0,0,8\n");
    expect(read).toMatchObject({
      ok: false,
      problems: [{ file: "areas.csv", row: 2, tag: "North", field: "width_m" }],
    });
  });
  test("an area named twice is refused", () => {
    const read = plant("name,x_m,y_m,width_m,depth_m\nNorth,0,0,5,8\nNorth,9,0,5,8\n");
    expect(read).toMatchObject({ ok: false, problems: [{ row: 3, field: "name" }] });
  });
});

test.each([
  ["device", { device: { stops: ["fluid"], credit: true, effort: 1, heldby: ["A"] } }, "device.heldby", "heldBy"],
  [
    "device",
    { device: { stops: ["fluid"], credit: true, effort: 1, comonCause: "air" } },
    "device.comonCause",
    "commonCause",
  ],
  ["bleed", { bleed: { save: true } }, "bleed.save", "safe"],
  ["source", { source: [{ carrier: "fluid", feding: false }] }, "source.0.feding", "feeding"],
] as const)("a misspelt field of a %s is refused, with its tag and the nearest word", (_, fields, field, nearest) => {
  const items = [
    { tag: "H", kind: "header", source: [{ carrier: "fluid" }] },
    { tag: "X-1", kind: "valve", ...fields },
  ];
  const read = readPlantValue({ format: "heavy-lantern/plant", version: 1, items, links: [] }, "plant.json");
  if (read.ok) throw new Error("taken");
  expect(read.problems).toContainEqual(
    expect.objectContaining({
      tag: "X-1",
      field,
      message: expect.stringContaining(`did you mean ${nearest}?`) as string,
    }),
  );
});
