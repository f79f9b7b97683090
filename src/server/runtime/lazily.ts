/** The value that a function gives, worked out at the first asking and kept. */
export function once<T>(make: () => T): () => T {
  let made: { value: T } | null = null;
  return () => (made ??= { value: make() }).value;
}

/** An object whose every part is worked out when it is first read. */
export function lazily<T extends object>(makers: { [K in keyof T]: () => T[K] }): T {
  const made = {} as T;
  for (const key of Object.keys(makers) as (keyof T)[]) {
    Object.defineProperty(made, key, { enumerable: true, configurable: true, get: once(makers[key]) });
  }
  return made;
}
