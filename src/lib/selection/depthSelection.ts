/** How bars of the depth chart are written as a selection, and read back from one. Null is "no route". */
import { depthFact, noRouteSelection } from '$core/reach/reach';
import type { Reader } from '$core/reach/reach';

export type Depth = number | null;

export function selectionOf(depths: readonly Depth[], reader: Reader = 'visitor'): string {
  const fact = depthFact(reader);
  const routed = depths.filter((depth) => depth !== null).sort((a, b) => a - b);
  const parts = [
    ...(routed.length === 1 ? [`${fact} = ${routed[0]}`] : routed.length ? [`${fact} in (${routed.join(', ')})`] : []),
    ...(depths.includes(null) ? [noRouteSelection(reader)] : []),
  ];
  return parts.join(' or ');
}

/** The bars that a selection names, when it is one that the chart could have written; else none. */
export function depthsOf(select: string, reader: Reader = 'visitor'): Depth[] {
  const fact = depthFact(reader);
  const pattern = new RegExp(
    `^(?:${fact} = (\\d+)|${fact} in \\(([\\d, ]+)\\))?(?:(?:^| or )(${noRouteSelection(reader)}))?$`,
  );
  const found = pattern.exec(select.trim());
  if (!found) return [];
  const routed = (found[1] ?? found[2] ?? '').split(',').filter(Boolean).map(Number);
  return [...routed, ...(found[3] ? [null] : [])];
}

/** What the selection becomes when a bar is picked: that bar alone, or with `add` one more or one fewer. */
export function pickDepth(select: string, depth: Depth, add: boolean, reader: Reader = 'visitor'): string {
  const now = depthsOf(select, reader);
  const has = now.includes(depth);
  if (add) return selectionOf(has ? now.filter((d) => d !== depth) : [...now, depth], reader);
  return has && now.length === 1 ? '' : selectionOf([depth], reader);
}
