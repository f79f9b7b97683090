/** How much the lantern draws, from the address. */
export type Extent = Readonly<{ whole: boolean; open: readonly string[]; shut: readonly string[] }>;
