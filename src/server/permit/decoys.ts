import type { CurrentPlant } from "../plant/plantStore";

/** Places that look like the job's: who knows where they work picks theirs out of them. Always the same for one job. */
export function decoysFor(plant: CurrentPlant | null, places: readonly string[]): string[] {
  const letters = /^[A-Z]*/.exec(places[0] ?? "")![0];
  const others = (plant?.plant.items ?? [])
    .map(({ tag }) => tag)
    .sort()
    .filter((tag) => !places.some((place) => place === tag || place.startsWith(`${tag}.`)));
  const alike = others.filter((tag) => tag.startsWith(`${letters}-`));
  const from = alike.length >= DECOYS ? alike : others;
  const step = Math.max(1, Math.floor(from.length / DECOYS));
  return Array.from({ length: Math.min(DECOYS, from.length) }, (_, i) => from[i * step]!);
}
const DECOYS = 4;
