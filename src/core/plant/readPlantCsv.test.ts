import { readPlantCsv } from "./readPlantCsv";

const COMMAS = {
  items:
    "tag,kind,source,level_m,vessel,stops,credit,effort\nS,header,fluid,2.5,vertical diameter_m=1.2,,,\nV,valve,,,,fluid,yes,4.5\n",
  links: "from,to,carries\nS,V,fluid\n",
};
const read = (items: string, links: string) =>
  readPlantCsv({ name: "items.csv", text: items }, { name: "links.csv", text: links });
const plantOf = (items: string, links: string) => {
  const found = read(items, links);
  if (!found.ok) throw new Error(JSON.stringify(found.problems));
  return found;
};

test("semicolons and tabs between columns, and commas in figures, are read as what they are, and said", () => {
  const plain = plantOf(COMMAS.items, COMMAS.links);
  expect(plain.warnings.filter(({ message }) => message.includes("parted"))).toEqual([]);
  const german = COMMAS.items.replaceAll(",", ";").replaceAll(/(\d)\.(\d)/g, "$1,$2");
  const found = plantOf(german, COMMAS.links.replaceAll(",", ";"));
  expect(found.value).toEqual(plain.value);
  expect(found.warnings[0]).toEqual({
    file: "items.csv",
    message: "its columns are parted by semicolons, and in 3 cells a comma was read as the decimal point",
  });
  expect(plantOf(COMMAS.items.replaceAll(",", "\t"), COMMAS.links).value).toEqual(plain.value);
});

test("a comma in words is left alone; where commas part, one in a figure is a fault that names its column", () => {
  const named = "tag;kind;name;source\nS;header;Header, 2,5 inch;fluid\nP;pump;;\n";
  expect(plantOf(named, "from;to;carries\nS;P;fluid\n").value.items[0]!.name).toBe("Header, 2,5 inch");
  const quoted = read('tag,kind,source,level_m\nS,header,fluid,"2,5"\nP,pump,,\n', "from,to,carries\nS,P,fluid\n");
  expect(quoted.ok === false && quoted.problems[0]).toMatchObject({ file: "items.csv", row: 2, field: "level_m" });
  // Thousands and decimals both marked is no figure that anybody should guess.
  const both = read("tag;kind;source;level_m\nS;header;fluid;1.000,5\nP;pump;;\n", "from;to;carries\nS;P;fluid\n");
  expect(both.ok === false && both.problems[0]).toMatchObject({ field: "level_m" });
});
