import { PIPED_OR_WIRED } from "./carriers";
import { kindOf } from "./kinds";
import { isCreditable, type Item, type Link, type Plant } from "./plant";
import type { PlantFile } from "./plantSchema";
import type { Problem, Read } from "./problem";
import { placeIndexOf } from "./resolvePlace";

export type Origin = {
  /** Where item number i stands in the file, so that a problem can name its row. */
  item: (index: number) => Pick<Problem, "file" | "row">;
  link: (index: number) => Pick<Problem, "file" | "row">;
  area: (index: number) => Pick<Problem, "file" | "row">;
};

/**
 * A checked plant from a file whose shape is already right. Refuses duplicate tags, links to nowhere and a register
 * without any source; every problem is listed, not only the first. Warnings do not refuse.
 *
 * Cost: linear in items and links.
 */
export function buildPlant(file: PlantFile, origin: Origin): Read<Plant> {
  const items = file.items.map(toItem);
  const links = file.links.map(toLink);
  const plant: Plant = { items, links, kinds: file.kinds, areas: file.areas };
  const problems = [...itemProblems(plant, origin), ...linkProblems(plant, origin), ...areaProblems(plant, origin)];
  if (problems.length > 0) return { ok: false, problems };
  return { ok: true, value: plant, warnings: plantWarnings(plant, origin) };
}

function toItem(raw: PlantFile["items"][number]): Item {
  const { source, device, bleed, ...rest } = raw;
  return {
    tag: rest.tag,
    kind: rest.kind,
    name: rest.name,
    area: rest.area,
    level_m: rest.level_m,
    x_m: rest.x_m,
    y_m: rest.y_m,
    plate: rest.plate,
    contents: rest.contents,
    vessel: rest.vessel,
    space: rest.space,
    parts: rest.parts,
    voltage_V: rest.voltage_V,
    system: rest.system,
    criticality: rest.criticality,
    limit_Pa: rest.limit_Pa,
    feeder: rest.feeder,
    needs: rest.needs,
    sink: rest.sink,
    service: rest.service,
    protects: rest.protects,
    sources: source.map((entry) => ({
      carrier: entry.carrier,
      feeding: entry.feeding,
      regenerating: entry.regenerating,
      disconnectable: entry.disconnectable,
      part: entry.part,
      stored: entry.stored,
    })),
    device: device && {
      stops: [...new Set(device.stops)],
      credit: device.credit,
      positive: device.positive,
      lockable: device.lockable,
      effort_min: device.effort,
      commonCause: device.commonCause,
      heldBy: device.heldBy,
      stands: device.stands,
      bore_m: device.bore_m,
      flangeClass: device.flangeClass,
      seatTested: device.seatTested,
      safety: device.safety,
      bodyBleed: device.bodyBleed,
      positions: device.positions,
    },
    bleed,
  };
}

function toLink(raw: PlantFile["links"][number]): Link {
  const { from, to, carries, oneWay, normal, wall, service, protects, walked, temporary } = raw;
  return { from, to, carries, oneWay, normal, wall, service, protects, walked, temporary };
}

function areaProblems({ areas }: Plant, origin: Origin): Problem[] {
  return areas.flatMap(({ name }, index) =>
    areas.findIndex((other) => other.name === name) < index
      ? [{ ...origin.area(index), tag: name, field: "name", message: "this area is named twice" }]
      : [],
  );
}

const NO_SERVICE = "what protects others says by which service: relief, cooling and the like";

function itemProblems(plant: Plant, origin: Origin): Problem[] {
  const problems: Problem[] = [];
  const firstRow = new Map<string, number>();
  let sources = 0;
  plant.items.forEach((item, index) => {
    const say = (field: string, message: string) =>
      problems.push({ ...origin.item(index), tag: item.tag, field, message });
    const first = firstRow.get(item.tag);
    if (first === undefined) firstRow.set(item.tag, index);
    else {
      const row = origin.item(first).row;
      say("tag", `duplicate tag${row === undefined ? "" : `, first used in row ${row}`}`);
    }
    sources += item.sources.length;
    if (item.device && item.parts.length > 0) say("parts", "a device has no parts");
    if (new Set(item.parts).size < item.parts.length) say("parts", "names the same part twice");
    for (const source of item.sources) {
      if (source.part !== undefined && !item.parts.includes(source.part)) {
        say("source.part", `${source.part} is not a part of ${item.tag}`);
      }
    }
  });
  plant.items.forEach((item, index) => {
    const known = (tag: string) => firstRow.has(tag);
    const missing = (field: string, tag: string) =>
      problems.push({ ...origin.item(index), tag: item.tag, field, message: `unknown tag ${tag}` });
    if (item.feeder !== undefined && !known(item.feeder)) missing("feeder", item.feeder);
    const bodyBleed = item.device?.bodyBleed;
    if (bodyBleed !== undefined && !known(bodyBleed)) missing("device.bodyBleed", bodyBleed);
    else if (bodyBleed !== undefined && !plant.items[firstRow.get(bodyBleed) ?? -1]?.bleed) {
      problems.push({
        ...origin.item(index),
        tag: item.tag,
        field: "device.bodyBleed",
        message: `${bodyBleed} is not a bleed`,
      });
    }
    for (const holder of item.device?.heldBy ?? []) if (!known(holder)) missing("device.heldBy", holder);
    for (const tag of item.protects) if (!known(tag)) missing("protects", tag);
    if (item.protects.length > 0 && item.service === undefined) {
      problems.push({ ...origin.item(index), tag: item.tag, field: "service", message: NO_SERVICE });
    }
  });
  if (sources === 0) {
    problems.push({
      file: origin.item(0).file,
      field: "source",
      message: "no item is a source: a plant without any energy cannot be right",
    });
  }
  return problems;
}

function linkProblems(plant: Plant, origin: Origin): Problem[] {
  const problems: Problem[] = [];
  const places = placeIndexOf(plant.items);
  const tags = new Set(plant.items.map(({ tag }) => tag));
  plant.links.forEach((link, index) => {
    for (const tag of link.protects) {
      if (!tags.has(tag)) {
        problems.push({ ...origin.link(index), tag: link.from, field: "protects", message: `unknown tag ${tag}` });
      }
    }
    if (link.protects.length > 0 && link.service === undefined) {
      problems.push({ ...origin.link(index), tag: link.from, field: "service", message: NO_SERVICE });
    }
    for (const field of ["from", "to"] as const) {
      const found = places.resolveOne(link[field]);
      if (!found.ok) problems.push({ ...origin.link(index), tag: link[field], field, message: found.message });
    }
    if (link.from === link.to) {
      problems.push({ ...origin.link(index), tag: link.from, field: "to", message: "links a place to itself" });
    }
  });
  return problems;
}

function plantWarnings(plant: Plant, origin: Origin): Problem[] {
  const warnings: Problem[] = [];
  const itemByTag = new Map(plant.items.map((item) => [item.tag, item]));
  plant.items.forEach((item, index) => {
    const warn = (field: string, message: string) =>
      warnings.push({ ...origin.item(index), tag: item.tag, field, message });
    if (item.device === undefined && kindOf(item.kind, plant.kinds) === undefined) {
      warn("kind", `kind ${item.kind} is unknown: energy is passed on and never converted in it`);
    }
    if (item.sources.some((source) => source.part === undefined) && item.parts.length > 0) {
      warn("source.part", "no part named: every part is taken as a source");
    }
  });

  const linksAtDevice = new Map<string, number>();
  plant.links.forEach((link, index) => {
    const warn = (tag: string, field: string, message: string) =>
      warnings.push({ ...origin.link(index), tag, field, message });
    for (const tag of [link.from, link.to]) {
      const device = itemByTag.get(tag)?.device;
      if (device === undefined) continue;
      if (device.stops.includes(link.carries)) {
        const key = `${tag} ${link.carries}`;
        const count = (linksAtDevice.get(key) ?? 0) + 1;
        linksAtDevice.set(key, count);
        if (count === 3) {
          warn(tag, "links", `third ${link.carries} link at a device: draw the tee as an item of its own`);
        }
      }
      if (link.oneWay && !isCreditable(device)) {
        warn(tag, "oneWay", "one-way at a device without credit: it would act as a credited check valve");
      }
    }
    if (link.oneWay && PIPED_OR_WIRED.has(link.carries)) {
      warn(link.from, "oneWay", `one-way ${link.carries} to ${link.to}: obeyed, but nothing proves it`);
    }
  });
  return warnings;
}
