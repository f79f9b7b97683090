/** Written into every plan and permit, so that what was computed can be computed again. Raise when answers change. */
export const ENGINE_VERSION = "2";
