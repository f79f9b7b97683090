import { buildPlant } from "./buildPlant";
import type { Plant } from "./plant";
import { PLANT_FORMAT, plantSchema } from "./plantSchema";
import type { Problem, Read } from "./problem";
import { readTable, type CsvFile, type Row } from "./readTable";

export const ITEM_COLUMNS = [
  "tag",
  "name",
  "kind",
  "area",
  "level_m",
  "x_m",
  "y_m",
  "plate",
  "parts",
  "feeder",
  "needs",
  "sink",
  "service",
  "protects",
  "voltage_V",
  "system",
  "criticality",
  "contents",
  "temperature_C",
  "pressure_Pa",
  "volume_m3",
  "phase",
  "density_kg_m3",
  "gamma",
  "molar_kg",
  "hazards",
  "limit_Pa",
  "vessel",
  "space",
  "source",
  "stored",
  "stops",
  "credit",
  "positive",
  "lockable",
  "effort",
  "stands",
  "commonCause",
  "bodyBleed",
  "heldBy",
  "bore_m",
  "flangeClass",
  "seatTested",
  "safety",
  "bleed",
] as const;
export const LINK_COLUMNS = [
  "from",
  "to",
  "carries",
  "oneWay",
  "normal",
  "wall",
  "walked",
  "until",
  "service",
  "protects",
] as const;

export const AREA_COLUMNS = [
  "name",
  "x_m",
  "y_m",
  "width_m",
  "depth_m",
  "level_m",
  "tell",
  "opensTo",
  "tightFloor",
  "watchClass",
  "extinguisher",
  "exits",
  "phone",
  "alarm",
  "eyewash",
] as const;

/**
 * A plant from `items.csv` and `links.csv`, and `areas.csv` where there is one. Lists in a cell are parted by semicolons; a stored energy is written
 * `power capacitor capacitance_F=0.0022 voltage_V=565`. Nothing is taken unless both files are right.
 */
export function readPlantCsv(itemsFile: CsvFile, linksFile: CsvFile, areasFile?: CsvFile): Read<Plant> {
  const items = readTable(itemsFile, ITEM_COLUMNS, ["tag", "kind"]);
  const links = readTable(linksFile, LINK_COLUMNS, ["from", "to", "carries"]);
  const areas: Read<readonly Row[]> = areasFile
    ? readTable(areasFile, AREA_COLUMNS, ["name", "x_m", "y_m", "width_m", "depth_m"], true)
    : { ok: true, value: [], warnings: [] };
  if (!items.ok || !links.ok || !areas.ok) {
    return { ok: false, problems: [items, links, areas].flatMap((read) => (read.ok ? [] : read.problems)) };
  }
  const problems: Problem[] = [];
  const raw = {
    format: PLANT_FORMAT,
    version: 1,
    areas: areas.value.map(areaFromRow),
    items: items.value.map((row, index) =>
      itemFromRow(row, (field, message) =>
        problems.push({ file: itemsFile.name, row: index + 2, tag: row.tag, field, message }),
      ),
    ),
    links: links.value.map((row, index) =>
      linkFromRow(row, (field, message) =>
        problems.push({ file: linksFile.name, row: index + 2, tag: row.from, field, message }),
      ),
    ),
  };
  const parsed = plantSchema.safeParse(raw);
  if (!parsed.success) {
    for (const issue of parsed.error.issues) {
      const [list, index, ...rest] = issue.path;
      const file = list === "links" ? linksFile : list === "areas" && areasFile ? areasFile : itemsFile;
      const row = (list === "links" ? links : list === "areas" ? areas : items).value[Number(index)];
      problems.push({
        file: file.name,
        row: Number(index) + 2,
        tag: row?.tag ?? row?.from ?? row?.name,
        field: columnOf(rest.map(String)),
        message: issue.message,
      });
    }
  }
  if (problems.length > 0 || !parsed.success) return { ok: false, problems };
  const built = buildPlant(parsed.data, {
    item: (index) => ({ file: itemsFile.name, row: index + 2 }),
    link: (index) => ({ file: linksFile.name, row: index + 2 }),
    area: (index) => ({ file: areasFile?.name ?? "areas.csv", row: index + 2 }),
  });
  const said = [...items.warnings, ...links.warnings, ...areas.warnings];
  return built.ok ? { ...built, warnings: [...said, ...built.warnings] } : built;
}

/** The schema's path as the column the person sees: device.effort is in column effort. */
function columnOf(path: readonly string[]): string | undefined {
  const known = new Set<string>([...ITEM_COLUMNS, ...LINK_COLUMNS, ...AREA_COLUMNS]);
  return path.findLast((name) => known.has(name)) ?? path.join(".");
}

const CONTENTS_COLUMNS = [
  "contents",
  "temperature_C",
  "pressure_Pa",
  "volume_m3",
  "phase",
  "density_kg_m3",
  "gamma",
  "molar_kg",
  "hazards",
];

type Say = (field: string, message: string) => void;

function itemFromRow(row: Row, say: Say): Record<string, unknown> {
  const isDevice = ["stops", "credit", "effort", "positive", "lockable", "commonCause", "heldBy"].some(
    (key) => row[key],
  );
  const hasContents = CONTENTS_COLUMNS.some((key) => row[key]);
  return dropMissing({
    tag: row.tag,
    name: text(row.name),
    kind: row.kind,
    area: text(row.area),
    level_m: numberCell(row.level_m),
    x_m: numberCell(row.x_m),
    y_m: numberCell(row.y_m),
    plate: text(row.plate),
    parts: list(row.parts),
    feeder: text(row.feeder),
    needs: list(row.needs),
    sink: flagCell(row.sink),
    service: text(row.service),
    protects: list(row.protects),
    voltage_V: numberCell(row.voltage_V),
    system: text(row.system),
    criticality: numberCell(row.criticality),
    contents: hasContents
      ? dropMissing({
          fluid: row.contents ?? "",
          temperature_C: numberCell(row.temperature_C),
          pressure_Pa: numberCell(row.pressure_Pa),
          volume_m3: numberCell(row.volume_m3),
          phase: text(row.phase),
          density_kg_m3: numberCell(row.density_kg_m3),
          gamma: numberCell(row.gamma),
          molar_kg: numberCell(row.molar_kg),
          hazards: list(row.hazards),
        })
      : undefined,
    limit_Pa: numberCell(row.limit_Pa),
    vessel: row.vessel ? vesselCell(row.vessel, say) : undefined,
    space: row.space ? figuresCell(row.space.split(/\s+/), "space", say) : undefined,
    source: [...sourceCells(row.source, say), ...storedCells(row.stored, say)],
    device: isDevice
      ? dropMissing({
          stops: list(row.stops),
          credit: flagCell(row.credit),
          positive: flagCell(row.positive) ?? false,
          lockable: flagCell(row.lockable) ?? false,
          effort: numberCell(row.effort),
          commonCause: text(row.commonCause),
          bodyBleed: text(row.bodyBleed),
          heldBy: list(row.heldBy),
          bore_m: numberCell(row.bore_m),
          flangeClass: text(row.flangeClass),
          seatTested: flagCell(row.seatTested),
          safety: text(row.safety),
          stands: text(row.stands) ?? "unknown",
        })
      : undefined,
    bleed: row.bleed ? bleedCell(row.bleed, say) : undefined,
  });
}

function linkFromRow(row: Row, say: Say): Record<string, unknown> {
  if (row.until && !row.walked) say("walked", "a temporary link needs the day it was fitted and walked");
  return dropMissing({
    from: row.from,
    to: row.to,
    carries: row.carries,
    oneWay: flagCell(row.oneWay) ?? false,
    normal: text(row.normal) ?? "forward",
    wall: flagCell(row.wall) ?? false,
    service: text(row.service),
    protects: list(row.protects),
    walked: text(row.walked),
    temporary: row.until && row.walked ? { from: row.walked, until: row.until } : undefined,
  });
}

function areaFromRow(row: Row): Record<string, unknown> {
  return dropMissing({
    name: row.name,
    x_m: numberCell(row.x_m),
    y_m: numberCell(row.y_m),
    width_m: numberCell(row.width_m),
    depth_m: numberCell(row.depth_m),
    level_m: numberCell(row.level_m),
    tell: text(row.tell),
    opensTo: text(row.opensTo) === undefined ? undefined : list(row.opensTo),
    tightFloor: flagCell(row.tightFloor),
    watchClass: text(row.watchClass),
    extinguisher: text(row.extinguisher),
    exits: text(row.exits) === undefined ? undefined : list(row.exits),
    phone: text(row.phone),
    alarm: text(row.alarm),
    eyewash: text(row.eyewash),
  });
}

/** `fluid; power undisconnectable; control part=coil` */
function sourceCells(cell: string | undefined, say: Say): Record<string, unknown>[] {
  return list(cell).map((entry) => {
    const [carrier, ...words] = entry.split(/\s+/);
    const source: Record<string, unknown> = { carrier };
    for (const word of words) {
      if (word === "undisconnectable") source.disconnectable = false;
      else if (word.startsWith("part=")) source.part = word.slice(5);
      else say("source", `do not understand ${word}; write a carrier, then undisconnectable or part=NAME`);
    }
    return source;
  });
}

const FORMS = [
  "capacitor",
  "accumulator",
  "raised mass",
  "spring",
  "flywheel",
  "trapped pressure",
  "hot body",
  "other",
];

/** `gravity raised mass mass_kg=300 height_m=2.5; fluid hot body regenerating` */
function storedCells(cell: string | undefined, say: Say): Record<string, unknown>[] {
  return list(cell).flatMap((entry) => {
    const carrier = entry.split(/\s+/, 1)[0] ?? "";
    const rest = entry.slice(carrier.length).trim();
    const form = FORMS.find((name) => rest === name || rest.startsWith(`${name} `));
    if (form === undefined) {
      say("stored", `write a carrier, then one of ${FORMS.join(", ")}, then figures`);
      return [];
    }
    const source: Record<string, unknown> = { carrier, feeding: false };
    const figures: Record<string, unknown> = { form };
    for (const word of rest.slice(form.length).trim().split(/\s+/).filter(Boolean)) {
      const [key, value] = word.split("=", 2);
      if (word === "regenerating") source.regenerating = true;
      else if (key === "part") source.part = value;
      else if (key !== undefined && value !== undefined) figures[key] = numberCell(value);
      else say("stored", `do not understand ${word}; figures are written name=number`);
    }
    return [{ ...source, stored: figures }];
  });
}

function bleedCell(cell: string, say: Say): Record<string, unknown> {
  const words = cell.split(/\s+/);
  const figures = words.filter((word) => word.startsWith("bore_m="));
  const strange = words.find((word) => word !== "safe" && word !== "gauge" && !figures.includes(word));
  if (strange !== undefined)
    say("bleed", `do not understand ${strange}; write safe, gauge and bore_m=NUMBER as they apply`);
  return { safe: words.includes("safe"), gauge: words.includes("gauge"), ...figuresCell(figures, "bleed", say) };
}

/** `horizontal diameter_m=2.4 length_m=5 level_m=2` */
function vesselCell(cell: string, say: Say): Record<string, unknown> {
  const [shape, ...figures] = cell.split(/\s+/);
  return { shape, ...figuresCell(figures, "vessel", say) };
}

/** `chimneys=1 depth_m=4`, already parted. */
function figuresCell(words: readonly string[], column: string, say: Say): Record<string, unknown> {
  return Object.fromEntries(
    words.map((word) => {
      const [key = "", value] = word.split("=", 2);
      if (value === undefined) say(column, `do not understand ${word}; figures are written name=number`);
      return [key, numberCell(value)];
    }),
  );
}

function text(cell: string | undefined): string | undefined {
  return cell === undefined || cell === "" ? undefined : cell;
}

function list(cell: string | undefined): string[] {
  return (cell ?? "")
    .split(";")
    .map((entry) => entry.trim())
    .filter(Boolean);
}

/** A number, or the text itself, so that the schema refuses it and names the column. */
function numberCell(cell: string | undefined): number | string | undefined {
  if (cell === undefined || cell === "") return undefined;
  return /^[+-]?(?:\d+(?:\.\d*)?|\.\d+)(?:e[+-]?\d+)?$/i.test(cell) ? Number(cell) : cell;
}

function flagCell(cell: string | undefined): boolean | string | undefined {
  if (cell === undefined || cell === "") return undefined;
  if (cell === "yes" || cell === "true") return true;
  if (cell === "no" || cell === "false") return false;
  return cell;
}

function dropMissing(record: Record<string, unknown>): Record<string, unknown> {
  return Object.fromEntries(Object.entries(record).filter(([, value]) => value !== undefined));
}
