/**
 * What a screen, a file or a command reads of a crawl: its snapshot, what was imported, and an earlier crawl beside it.
 */
import type { Comparison } from '../compare';
import { importColumns, matchSources, withHits } from '../imports';
import type { ImportedSource, MatchedSource } from '../imports';
import { plainShare } from '../share';
import type { Share } from '../share';
import { pageOf, withLayer } from '../snapshot';
import type { Layer, Snapshot } from '../snapshot';

export interface View extends Snapshot {
  /** The imported sources that count for the crawl. */
  readonly imports: readonly MatchedSource[];
  /** Addresses of the pages that matter most to the site; null where nobody was asked. */
  readonly keys: readonly string[] | null;
  /** To the earlier crawl that selections ask about; null where there is none. */
  readonly comparison: Comparison<View> | null;
}

/** A view with a comparison to an earlier crawl. */
export interface ComparedView extends View {
  readonly comparison: Comparison<View>;
}

const besides = <C extends Comparison<View> | null>(
  snapshot: Snapshot,
  imports: readonly MatchedSource[],
  keys: View['keys'],
  comparison: C,
) => Object.assign(snapshot, { imports, keys, comparison });

/** Which pages are key pages. */
function keyColumn(snapshot: Snapshot, keys: readonly string[]): Int32Array {
  const column = new Int32Array(snapshot.count);
  for (const address of keys) {
    const page = pageOf(snapshot, address);
    if (page >= 0) column[page] = 1;
  }
  return column;
}

/**
 * A crawl as it is read. Imported sources give facts of their own, and `seen_in` names them; nothing else depends on
 * them, so nothing else is worked out again.
 */
export function viewOf(
  snapshot: Snapshot,
  imports: readonly ImportedSource[] = [],
  keys: readonly string[] | null = null,
): View {
  const matched = matchSources(snapshot, imports);
  const columns = {
    ...importColumns(snapshot.count, matched),
    seen_in: () => withHits(snapshot.column('seen_in'), matched),
    ...(keys ? { key: () => keyColumn(snapshot, keys) } : {}),
  };
  return besides(withLayer(snapshot, { columns }), matched, keys, null);
}

/**
 * A view with another layer on top. What was worked out of what the layer gives stays as it is: see src/core/analysis.
 */
export const overView = (view: View, layer: Layer): View =>
  besides(withLayer(view, layer), view.imports, view.keys, view.comparison);

/** A view with a comparison of its crawl to an earlier one. */
export const withComparison = (view: View, comparison: Comparison<View>): ComparedView =>
  besides(withLayer(view, {}), view.imports, view.keys, comparison);

/** A view with some of its imported sources. What is made of them is kept apart from what all of them give. */
export const withImports = (view: View, imports: readonly MatchedSource[]): View =>
  besides(withLayer(view, { columns: { seen_in: () => view.column('seen_in') } }), imports, view.keys, view.comparison);

/** A view whose share is that of the model `plain`. */
export function withPlainShare(view: View): { view: View; share: Share } {
  const share = plainShare(view);
  return { view: overView(view, { columns: { share: () => share.share } }), share };
}
