/**
 * A text in which the work's places are not named, for a screen on which people then say where they work: whoever reads it there
 * says what they read. A part of an item goes with its item. Cost: linear in the text for each place.
 */
export function withoutPlaces(text: string, places: readonly string[]): string {
  const tags = [...new Set(places.flatMap((place) => [place, place.split(".")[0]!]))]
    .filter((tag) => tag !== "")
    // The longer first: CY-260.rod is no ….rod.
    .sort((a, b) => b.length - a.length);
  return tags.reduce((left, tag) => {
    const plain = tag.replace(/[.*+?^${}()|[\]\\]/g, "\\$&");
    return left.replace(new RegExp(`(?<![\\p{L}\\p{N}_-])${plain}(?![\\p{L}\\p{N}_-])`, "giu"), HERE);
  }, text);
}
const HERE = "…";
