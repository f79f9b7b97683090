const ENDS_TWICE = /([.!?])\.(?=\s|$)/g;
const ENDS_WITHIN = /\.(?=; )/g;

/** A sentence that tells of others, which may be sentences themselves: each ends once. */
export const endsOnce = (sentence: string): string => sentence.replace(ENDS_TWICE, "$1").replace(ENDS_WITHIN, "");
