/** Written into every plan and permit, so that what was computed can be computed again. Raise when answers change. */
export const ENGINE_VERSION = "1";

/** The one rule table of this version; profiles come with their own names. */
export const RULE_PROFILE = "conservative";
