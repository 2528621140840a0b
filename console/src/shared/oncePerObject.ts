/**
 * A pure function of an object that never changes, worked out once for each: what is made of an invoice of thousands of
 * rows is asked for by many components, and again with every key that is pressed.
 */
export function oncePerObject<K extends object, V>(make: (of: K) => V): (of: K) => V {
  const made = new WeakMap<K, V>();
  return (of) => {
    const known = made.get(of);
    if (known !== undefined) {
      return known;
    }
    const value = make(of);
    made.set(of, value);
    return value;
  };
}
