import { incomingLinks, sourcesOfLinks } from './snapshot';
import type { Base, IncomingLinks } from './snapshot';

type Made = WeakMap<object, { value: unknown }>;
const memos: Made[] = [];

/** Names the object whose place another takes that only adds to it: what is made of the one serves both. */
export const MADE_OF = Symbol('made of');

/** Keeps what is made of a base or snapshot as long as that is. */
export function memoOf<T, B extends object = Base>(make: (base: B) => T): (base: B) => T {
  const made: Made = new WeakMap();
  memos.push(made);
  return (base) => {
    const key = (base as { [MADE_OF]?: object })[MADE_OF] ?? base;
    let entry = made.get(key);
    if (!entry) made.set(key, (entry = { value: make(base) }));
    return entry.value as T;
  };
}

const NESTING = 3;

/** The bytes of the typed arrays in a value. */
function arrayBytes(value: unknown, nesting = NESTING): number {
  if (ArrayBuffer.isView(value)) return value.byteLength;
  if (typeof value !== 'object' || value === null || Array.isArray(value) || nesting === 0) return 0;
  return Object.values(value).reduce((sum: number, part) => sum + arrayBytes(part, nesting - 1), 0);
}

/** The bytes of everything that functions of {@link memoOf} keep for a base or snapshot, for whoever bounds memory. */
export const memoBytes = (base: object): number =>
  memos.reduce((sum, made) => sum + arrayBytes(made.get(base)?.value), 0);

/** The links of a snapshot by their targets. */
export const incomingOf: (base: Base) => IncomingLinks = memoOf(incomingLinks);

/** The page that each link is on. */
export const sourcesOf: (base: Base) => Uint32Array = memoOf(sourcesOfLinks);
