/**
 * Keeps what a pure function gave, for the keys asked for of late; the one not asked for longest goes first. A `null` or
 * `undefined` answer is kept too.
 */
export function keptSome<Key, Value>(most: number): (key: Key, make: () => Value) => Value {
  const kept = new Map<Key, { value: Value }>();
  return (key, make) => {
    const known = kept.get(key);
    if (known) {
      kept.delete(key);
      kept.set(key, known);
      return known.value;
    }
    const made = { value: make() };
    kept.set(key, made);
    if (kept.size > most) kept.delete(kept.keys().next().value!);
    return made.value;
  };
}

/** The same for what is worked out elsewhere: asked for twice at once it is made once, and what failed is not kept. */
export function keptAnswers<Key, Value>(most: number): (key: Key, make: () => Promise<Value>) => Promise<Value> {
  const kept = new Map<Key, Promise<Value>>();
  return (key, make) => {
    const known = kept.get(key) ?? make();
    kept.delete(key);
    kept.set(key, known);
    known.catch(() => kept.delete(key));
    if (kept.size > most) kept.delete(kept.keys().next().value!);
    return known;
  };
}
