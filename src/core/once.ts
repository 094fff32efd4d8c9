/** Answers what is made of a key, which is made the first time that it is asked for. */
export const onceFor = <Key, Value>(make: (key: Key) => Value): ((key: Key) => Value) => {
  const known = new Map<Key, Value>();
  return (key) => {
    const found = known.get(key);
    if (found !== undefined) return found;
    const made = make(key);
    known.set(key, made);
    return made;
  };
};
