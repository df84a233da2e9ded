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

/**
 * Forgets what was used longest ago once the values take more than `most` bytes together; the newest one always stays.
 */
export function sizedCache<V>(most: number, bytesOf: (value: V) => number) {
  const map = new Map<string, { value: V; bytes: number }>();
  let total = 0;
  return {
    bytes: () => total,
    get: (key: string): V | undefined => {
      const entry = map.get(key);
      if (!entry) return undefined;
      map.delete(key);
      map.set(key, entry);
      return entry.value;
    },
    set: (key: string, value: V): void => {
      total -= map.get(key)?.bytes ?? 0;
      map.delete(key);
      const bytes = bytesOf(value);
      map.set(key, { value, bytes });
      total += bytes;
      for (const [oldest, entry] of map) {
        if (total <= most || oldest === key) return;
        map.delete(oldest);
        total -= entry.bytes;
      }
    },
  };
}
