/** In the address after signing out: what somebody is still on. Numbers only: no words of others come onto the page. */
export const STILL_ON = "still";

/** Numbers of permits and isolations in a text, each once. */
export const numbersIn = (text: string): string[] => [...new Set(text.match(/\b[PS]-\d{4,6}\b/g) ?? [])];
