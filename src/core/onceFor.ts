/**
 * Works something out once for each object it is asked about, and keeps it as long as that object lives. What is given
 * back is shared: nobody may change it.
 */
export function onceFor<Key extends object, Value>(workOut: (key: Key) => Value): (key: Key) => Value {
  const known = new WeakMap<Key, { value: Value }>();
  return (key) => {
    const found = known.get(key) ?? { value: workOut(key) };
    known.set(key, found);
    return found.value;
  };
}

/** Works something out when it is first asked for, and keeps it. */
export function later<Value>(workOut: () => Value): () => Value {
  let known: { value: Value } | undefined;
  return () => (known ??= { value: workOut() }).value;
}
