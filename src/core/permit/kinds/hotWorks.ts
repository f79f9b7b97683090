/** Kinds of hot work that a permit tells apart. */
export const HOT_WORKS = ["welding", "cutting", "grinding", "open flame", "hot air or soldering"] as const;
