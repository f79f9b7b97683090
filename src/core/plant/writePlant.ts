import { changeBetween, isSame } from "./registerChange";
import { AREA_COLUMNS, ITEM_COLUMNS, LINK_COLUMNS } from "./readPlantCsv";
import type { Bleed, Item, Link, Plant, Source } from "./plant";
import { PLANT_FORMAT, type PlantInput } from "./plantSchema";

export type Cell = string | number;
/** A table as a spreadsheet has it: its headings first. */
export type Table = readonly (readonly Cell[])[];
export type PlantTables = Readonly<{ items: Table; links: Table; areas: Table }>;

/** The register as plant.json has it: read again it is the same. Cost: linear. */
export function plantFile({ items, links, kinds, areas }: Plant): PlantInput {
  return {
    format: PLANT_FORMAT,
    version: 1,
    ...(kinds.length > 0 ? { kinds: kinds as PlantInput["kinds"] } : {}),
    ...(areas.length > 0 ? { areas: areas as PlantInput["areas"] } : {}),
    items: items.map(({ sources, device, ...rest }) => {
      const { effort_min, ...own } = device ?? {};
      return { ...rest, source: sources, ...(device ? { device: { ...own, effort: effort_min } } : {}) };
    }) as PlantInput["items"],
    links: links as PlantInput["links"],
  };
}

/** The register as items.csv, links.csv and areas.csv have it. What their columns cannot say is missing: see lostInTables. Cost: linear. */
export function plantTables({ items, links, areas }: Plant): PlantTables {
  const rows = <Row>(columns: readonly string[], all: readonly Row[], cells: (row: Row) => Cells): Table => [
    columns,
    ...all.map((row) => {
      const said = cells(row);
      return columns.map((column) => said[column] ?? "");
    }),
  ];
  return {
    items: rows(ITEM_COLUMNS, items, itemCells),
    links: rows(LINK_COLUMNS, links, linkCells),
    areas: rows(AREA_COLUMNS, areas, (area) => ({
      ...area,
      opensTo: listed(area.opensTo),
      tightFloor: flag(area.tightFloor),
      exits: listed(area.exits),
    })),
  };
}

/**
 * What a register says that its tables do not, by name and field: found by comparing it with what was read from them. Empty where they
 * say all of it. Cost: see changeBetween.
 */
export function lostInTables(plant: Plant, readAgain: Plant): string[] {
  const change = changeBetween(plant, readAgain);
  if (isSame(change)) return [];
  return Object.values(change).flatMap(({ added, removed, changed }) => [
    ...removed,
    ...added,
    ...changed.map(({ name, fields }) => `${name} (${fields.map(({ field }) => field).join(", ")})`),
  ]);
}

type Cells = Readonly<Record<string, Cell | undefined>>;

function itemCells(item: Item): Cells {
  const { contents, device } = item;
  return {
    ...plain(item),
    parts: listed(item.parts),
    needs: listed(item.needs),
    sink: flag(item.sink),
    protects: listed(item.protects),
    contents: contents?.fluid,
    ...plain(contents ?? {}),
    hazards: listed(contents?.hazards),
    vessel: item.vessel && [item.vessel.shape, figures(item.vessel, ["shape"])].filter(Boolean).join(" "),
    space: item.space && figures(item.space),
    source: item.sources
      .filter(({ stored }) => stored === undefined)
      .map(sourceCell)
      .join("; "),
    stored: item.sources
      .filter(({ stored }) => stored !== undefined)
      .map(storedCell)
      .join("; "),
    ...(device
      ? {
          ...plain(device),
          stops: listed(device.stops),
          credit: flag(device.credit),
          positive: flag(device.positive),
          lockable: flag(device.lockable),
          effort: device.effort_min,
          heldBy: listed(device.heldBy),
          seatTested: flag(device.seatTested),
        }
      : {}),
    bleed: item.bleed && bleedCell(item.bleed),
  };
}

function linkCells(link: Link): Cells {
  return {
    ...plain(link),
    oneWay: link.oneWay ? "yes" : "",
    normal: link.normal === "none" ? "none" : "",
    wall: link.wall ? "yes" : "",
    protects: listed(link.protects),
    // A table has one day for both: that of fitting. Where it was walked on another, or never, the table says too much, and is not given out.
    walked: link.temporary?.from ?? link.walked,
    until: link.temporary?.until,
  };
}

/** Its words and figures, without what is made up of several. */
function plain(row: object): Record<string, Cell> {
  return Object.fromEntries(
    Object.entries(row).filter(
      (entry): entry is [string, Cell] => typeof entry[1] === "string" || typeof entry[1] === "number",
    ),
  );
}

const listed = (all: readonly string[] | undefined) => (all ?? []).join("; ");
const flag = (value: boolean | undefined) => (value === undefined ? "" : value ? "yes" : "no");

/** `diameter_m=2 length_m=4` */
function figures(row: object, without: readonly string[] = []): string {
  return Object.entries(plain(row))
    .filter(([key]) => !without.includes(key))
    .map(([key, value]) => `${key}=${value}`)
    .join(" ");
}

function sourceCell({ carrier, disconnectable, part }: Source): string {
  return [carrier, disconnectable ? "" : "undisconnectable", part === undefined ? "" : `part=${part}`]
    .filter(Boolean)
    .join(" ");
}

function storedCell({ carrier, stored, regenerating, part }: Source): string {
  return [
    carrier,
    stored!.form,
    figures(stored!, ["form"]),
    regenerating ? "regenerating" : "",
    part === undefined ? "" : `part=${part}`,
  ]
    .filter(Boolean)
    .join(" ");
}

function bleedCell({ safe, gauge, bore_m }: Bleed): string {
  // A bleed that is neither is one all the same.
  return [safe ? "safe" : "", gauge ? "gauge" : "", bore_m === undefined ? "" : `bore_m=${bore_m}`]
    .filter(Boolean)
    .join(" ");
}
