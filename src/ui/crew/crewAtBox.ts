/** One of the crew, as the screen at the box shows them. */
export type CrewMember = Readonly<{
  id: string;
  name: string;
  /** On, with which lock, since when; null for not on. */
  on: Readonly<{ lock: string; on_ms: number }> | null;
  /** Another permit where they are on, on duty or inside. */
  elsewhere: string | null;
  /** The same, where it is of other work: who comes here as well says that both holders know. */
  also: string | null;
  /** Why they do not come on whatever they sign; null where nothing is known against it. */
  against: string | null;
  /** Their own locks that hang nowhere. */
  own: readonly string[];
}>;

/** A permit's crew at the box. */
export type CrewAtBox = Readonly<{
  number: string;
  words: string;
  hazards: string;
  precautions: string;
  /** The permit's holder. */
  lead: string;
  /** Points that each locks themselves; empty where locks hang on the box. */
  pointsToLock: readonly string[];
  /** The work's places among others that look like them. */
  places: readonly string[];
  missing: Readonly<{ at_ms: number; names: readonly string[] }> | null;
  roll: readonly Readonly<{ id: string; name: string }>[];
  crew: readonly CrewMember[];
}>;
