/** What looks like a tag: capitals and figures joined by hyphens, perhaps with a part after a dot. */
const TAG = /([A-Z][A-Z0-9]{0,11}(?:-[A-Z0-9]{1,11}){1,5}(?:\.[a-z]{1,15})?)/;

/** A sentence in its parts, tags apart, in their order; the parts joined are the sentence. */
export function withWholeTags(sentence: string): { text: string; isTag: boolean }[] {
  return sentence
    .split(TAG)
    .map((text, index) => ({ text, isTag: index % 2 === 1 }))
    .filter(({ text }) => text !== "");
}
