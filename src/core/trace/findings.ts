import { PIPED_OR_WIRED } from "../plant/carriers";
import type { SourceVertex } from "./sources";
import { leaksTo } from "./leaks";
import { itemAt, placeName, type StateGraph } from "./stateGraph";
import type { WorkFace } from "./workFaces";

/** Something about the plant or its register that a person must look at. A finding is never a silent gap. */
export const FINDING_CODES = [
  "no device",
  "cannot be disconnected",
  "one-way",
  "not walked",
  "temporary",
  "tube leak",
  "carriers left out",
  "no link",
  "not drained",
  "assumed sink",
  "protects unknown",
] as const;

export type Finding = Readonly<{
  code: (typeof FINDING_CODES)[number];
  /** The tag, or two for a link. */
  tags: readonly string[];
  sentence: string;
}>;

type Row = Readonly<{ way: readonly number[]; source: SourceVertex; row: { face: string; source: string } }>;

/** The findings of a trace, each said once. Cost: linear in the routes, plus one search for each wall. */
export function findingsOf(graph: StateGraph, faces: readonly WorkFace[], rows: readonly Row[]): Finding[] {
  const found = new Map<string, Finding>();
  const say = (code: Finding["code"], tags: readonly string[], sentence: string) => {
    found.set(`${code} ${tags.join(" ")}`, { code, tags, sentence });
  };

  for (const face of faces) {
    if (face.narrowedWithoutReason) {
      say(
        "carriers left out",
        [face.name],
        `Carriers were left out at ${face.name} without a reason. Write the reason.`,
      );
    }
  }

  for (const face of unlinked(graph, faces)) {
    say(
      "no link",
      [face],
      `${face} is joined to nothing in the register, so nothing can be said of it. Enter its lines and cables first.`,
    );
  }

  for (const { way, source, row } of rows) {
    const devices = way.slice(1, -1).some((vertex) => itemAt(graph, vertex).device);
    if (!devices) {
      say(
        "no device",
        [row.source, row.face],
        `Nothing on the way from ${row.source} to ${row.face} can stop ${source.carrier}. Find or fit a device.`,
      );
    }
    if (!source.source.disconnectable) {
      say(
        "cannot be disconnected",
        [row.source],
        `${row.source} cannot be disconnected: it stays live whatever is locked.`,
      );
    }
    for (let i = 1; i < way.length; i++) linkFindings(graph, way[i - 1]!, way[i]!, say);
  }
  tubeLeaks(graph, faces, say);
  return [...found.values()].sort((a, b) => (key(a) < key(b) ? -1 : 1));
}

/** Faces that no line, cable or shaft of the register joins to anything, and that supply nothing themselves. */
export function unlinked(graph: StateGraph, faces: readonly WorkFace[]): string[] {
  const isJoined = (place: number) => {
    const tag = graph.places.names[place]!;
    return graph.plant.links.some(({ from, to }) => from === tag || to === tag);
  };
  const hasSource = (item: number) => graph.plant.items[item]!.sources.length > 0;
  return faces.filter(({ places, items }) => !places.some(isJoined) && !items.some(hasSource)).map(({ name }) => name);
}

type Say = (code: Finding["code"], tags: readonly string[], sentence: string) => void;

function key(finding: Finding): string {
  return `${finding.code} ${finding.tags.join(" ")}`;
}

function linkFindings(graph: StateGraph, from: number, to: number, say: Say): void {
  for (let arc = graph.out.first[from]!; arc < graph.out.first[from + 1]!; arc++) {
    if (graph.out.other[arc] !== to) continue;
    const link = graph.plant.links[graph.out.link[arc]!];
    if (link === undefined) continue;
    const ends = [link.from, link.to];
    const line = `${link.from} to ${link.to} (${link.carries})`;
    if (link.oneWay && PIPED_OR_WIRED.has(link.carries)) {
      say("one-way", ends, `${line} is written as one-way. That would act as a credited check valve: confirm it.`);
    }
    if (link.walked === undefined) say("not walked", ends, `Nobody has walked ${line}. Walk it before relying on it.`);
    if (link.temporary) {
      say("temporary", ends, `${line} is temporary, fitted ${link.temporary.from}, due out ${link.temporary.until}.`);
    }
  }
}

/** A wall is no route, but where energy stands on one side and the work on the other a tube leak would make it one. */
function tubeLeaks(graph: StateGraph, faces: readonly WorkFace[], say: Say): void {
  const bringing = new Map<string, { carrier: string; near: string; face: string; sources: Set<string> }>();
  for (const { source, carrier, near, face } of leaksTo(graph, faces)) {
    const key = `${carrier} ${near} ${face}`;
    const known = bringing.get(key) ?? { carrier, near, face, sources: new Set<string>() };
    bringing.set(key, known);
    const contents = graph.plant.items[source.item]!.contents?.fluid;
    known.sources.add(`${placeName(graph, source.vertex)}${contents === undefined ? "" : ` (${contents})`}`);
  }
  for (const { carrier, near, face, sources } of bringing.values()) {
    say(
      "tube leak",
      [near, face],
      `A leak through the wall at ${near} would bring ${carrier} from ${[...sources].sort().join(", ")} to ${face}. The wall is no barrier.`,
    );
  }
}
