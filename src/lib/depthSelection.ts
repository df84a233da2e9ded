/** How bars of the depth chart are written as a selection, and read back from one. Null is "no route". */
export type Depth = number | null;

export function selectionOf(depths: readonly Depth[]): string {
  const routed = depths.filter((depth) => depth !== null).sort((a, b) => a - b);
  const parts = [
    ...(routed.length === 1 ? [`depth = ${routed[0]}`] : routed.length ? [`depth in (${routed.join(', ')})`] : []),
    ...(depths.includes(null) ? ['not reached'] : []),
  ];
  return parts.join(' or ');
}

/** The bars that a selection names, when it is one that the chart could have written; else none. */
export function depthsOf(select: string): Depth[] {
  const found = /^(?:depth = (\d+)|depth in \(([\d, ]+)\))?(?:(?:^| or )(not reached))?$/.exec(select.trim());
  if (!found) return [];
  const routed = (found[1] ?? found[2] ?? '').split(',').filter(Boolean).map(Number);
  return [...routed, ...(found[3] ? [null] : [])];
}

/** What the selection becomes when a bar is picked: that bar alone, or with `add` one more or one fewer. */
export function pickDepth(select: string, depth: Depth, add: boolean): string {
  const now = depthsOf(select);
  const has = now.includes(depth);
  if (add) return selectionOf(has ? now.filter((d) => d !== depth) : [...now, depth]);
  return has && now.length === 1 ? '' : selectionOf([depth]);
}
