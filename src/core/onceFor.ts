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
