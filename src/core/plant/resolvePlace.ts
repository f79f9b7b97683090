import { inOneGo } from "../inOneGo";
import type { Item } from "./plant";

/** A place is named by its item's tag, or by tag.part where the item has parts. */
export type PlaceIndex = Readonly<{
  /** All place names, in the order of the register. */
  names: readonly string[];
  /** For each place, the index of its item. */
  itemOf: readonly number[];
  /** For each item, its first place; a part's, where it has parts. */
  firstOf: readonly number[];
  /** Exactly one place, for a link's end. */
  resolveOne: (name: string) => { ok: true; place: number } | { ok: false; message: string };
  /** One place or, for a bare tag of an item with parts, all of them: a face. */
  resolveFace: (name: string) => { ok: true; places: readonly number[] } | { ok: false; message: string };
}>;

/**
 * Names to places. A name resolves first as a whole tag, then as tag.part; if both readings exist it is ambiguous, and
 * that is an error, for guessing could point people at the wrong vessel.
 */
export function placeIndexOf(items: readonly Item[]): PlaceIndex {
  return inOneGo(placeIndexSteps(items));
}

/** Items looked at between two moments at which the work may be put down. */
const ITEMS_A_STEP = 1000;

/** The same, bit by bit. */
export function* placeIndexSteps(items: readonly Item[]): Generator<void, PlaceIndex> {
  const names: string[] = [];
  const itemOf: number[] = [];
  const firstOf: number[] = [];
  const wholeTag = new Map<string, number[]>();
  const tagAndPart = new Map<string, number[]>();
  for (const [itemIndex, item] of items.entries()) {
    if (itemIndex % ITEMS_A_STEP === 0) yield;
    const parts = item.parts.length === 0 ? [null] : item.parts;
    const own: number[] = [];
    firstOf.push(names.length);
    for (const part of parts) {
      const name = part === null ? item.tag : `${item.tag}.${part}`;
      const place = names.push(name) - 1;
      itemOf.push(itemIndex);
      own.push(place);
      if (part !== null) tagAndPart.set(name, [...(tagAndPart.get(name) ?? []), place]);
    }
    // A duplicate tag is refused elsewhere; here the first stands.
    if (!wholeTag.has(item.tag)) wholeTag.set(item.tag, own);
  }

  const resolveFace: PlaceIndex["resolveFace"] = (name) => {
    const whole = wholeTag.get(name);
    const part = tagAndPart.get(name);
    if ((whole && part) || (part && part.length > 1)) {
      return { ok: false, message: `${name} is ambiguous: it is a tag and also a part of another item` };
    }
    const places = whole ?? part;
    if (places === undefined) return { ok: false, message: `unknown tag ${name}` };
    return { ok: true, places };
  };
  return {
    names,
    itemOf,
    firstOf,
    resolveFace,
    resolveOne: (name) => {
      const face = resolveFace(name);
      if (!face.ok) return face;
      const [place, ...others] = face.places;
      if (place === undefined || others.length > 0) {
        return { ok: false, message: `${name} has parts: name the part, for example ${names[face.places[0] ?? 0]}` };
      }
      return { ok: true, place };
    },
  };
}

/**
 * The tag of a place's item, of tags that may hold dots themselves as parts may: the whole name where it is a tag, else the
 * longest beginning before a dot that is one. The name itself where none is.
 */
export function tagOfPlace(place: string, isTag: (name: string) => boolean): string {
  if (isTag(place)) return place;
  for (let dot = place.lastIndexOf("."); dot > 0; dot = place.lastIndexOf(".", dot - 1)) {
    if (isTag(place.slice(0, dot))) return place.slice(0, dot);
  }
  return place;
}
