/** What is made of a view once and kept: by what it reads, so that all views that agree in that share it. */
import type { ColumnName } from '../facts';
import type { LinkInput } from '../links';
import { sourcesOfLinks } from './snapshot';
import type { ColumnReader } from './column';
import type { BaseParts, Layered, Read, Snapshot } from './snapshot';

type Made = WeakMap<object, { value: unknown }>;
const memos: Made[] = [];

/** A memo that is kept as long as what it was made of. */
function kept() {
  const made: Made = new WeakMap();
  memos.push(made);
  return <T>(of: object, make: () => T): T => {
    let entry = made.get(of);
    if (!entry) made.set(of, (entry = { value: make() }));
    return entry.value as T;
  };
}

/** Keeps what is made of an object as long as that is. */
export function keptOf<Of extends object, T>(make: (of: Of) => T): (of: Of) => T {
  const keep = kept();
  return (of) => keep(of, () => make(of));
}

/** A view of which only some things are read. */
export type Reading<R extends Read> = Layered &
  Pick<Snapshot, 'count'> &
  Readonly<Pick<BaseParts, Extract<R, keyof BaseParts> | (R extends LinkInput ? 'links' : never)>> &
  ([Extract<R, 'faults'>] extends [never] ? unknown : Pick<Snapshot, 'links'>) & {
    column: ColumnReader<Extract<R, ColumnName>>;
  };

/** The lowest layer of a view below which nothing changes of what is read. */
function ownerOf(view: Layered, reads: readonly Read[]): Layered {
  let owner = view;
  while (owner.below && !reads.some(owner.gives)) owner = owner.below;
  return owner;
}

/**
 * Keeps what is made of some things of a view as long as the layer that gives the last of them.
 * @param reads everything that `make` reads
 */
export function memoOf<const R extends Read, T, More = unknown>(
  reads: readonly R[],
  make: (view: Reading<R> & More) => T,
): (view: Reading<R> & More) => T {
  const keep = kept();
  return (view) => keep(ownerOf(view, reads), () => make(view));
}

const NESTING = 3;

/** The bytes of the typed arrays in a value. */
function arrayBytes(value: unknown, nesting = NESTING): number {
  if (ArrayBuffer.isView(value)) return value.byteLength;
  if (typeof value !== 'object' || value === null || Array.isArray(value) || nesting === 0) return 0;
  return Object.values(value).reduce((sum: number, part) => sum + arrayBytes(part, nesting - 1), 0);
}

/** The bytes of everything that is kept for an object, for whoever bounds memory. */
export const keptBytes = (of: object): number => memos.reduce((sum, made) => sum + arrayBytes(made.get(of)?.value), 0);

/** As {@link keptBytes}, for all layers of a view. */
export const layerBytes = (view: Layered): number => keptBytes(view) + (view.below ? layerBytes(view.below) : 0);

/** The page that each link is on. */
export const sourcesOf: (view: Reading<'targets'>) => Uint32Array = memoOf(['targets'], sourcesOfLinks);
