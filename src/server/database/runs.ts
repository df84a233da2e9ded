/** Splits a list into runs, so that a statement never grows without bound. */
export function* inRuns<T>(items: readonly T[], size: number): Generator<T[]> {
  for (let at = 0; at < items.length; at += size) yield items.slice(at, at + size);
}
