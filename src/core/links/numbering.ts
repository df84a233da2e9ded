/** Gives keys numbers from 0, in the order in which they are first asked for. */
export function numbering<Key>() {
  const numbers = new Map<Key, number>();
  return {
    numbers,
    of(key: Key): number {
      let number = numbers.get(key);
      if (number === undefined) numbers.set(key, (number = numbers.size));
      return number;
    },
  };
}
