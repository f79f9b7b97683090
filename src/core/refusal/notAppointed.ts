/** An area that is empty is known to nobody; `at` is the site's clock, as 23:40. */
export type NotAppointed =
  | Readonly<{ far: "area"; area: string; areas: readonly string[] }>
  | Readonly<{ far: "shift"; at: string; shifts: readonly number[] }>;
