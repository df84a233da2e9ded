/** Forgets the oldest entries once there are more than `size`. */
export function boundedMap<K, V>(size: number) {
  const map = new Map<K, V>();
  return {
    get: (key: K) => map.get(key),
    clear: () => map.clear(),
    set: (key: K, value: V) => {
      map.delete(key);
      map.set(key, value);
      if (map.size > size) map.delete(map.keys().next().value as K);
    },
  };
}
