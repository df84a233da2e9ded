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
import type { TextIndex } from '../textIndex';

/** The index of a crawl's texts, which is read when somebody asks for it. */
export interface Texts {
  /** Null until it has been read, and while the texts are being indexed. */
  index: TextIndex | null;
  read: () => Promise<void>;
}

export interface View extends Snapshot {
  /** The imported sources that count for the crawl. */
  readonly imports: readonly MatchedSource[];
  /** Addresses of the pages that matter most to the site; null where nobody was asked. */
  readonly keys: readonly string[] | null;
  /** The words of its pages, for selections that ask for them; null where they are never indexed. */
  readonly texts: Texts | null;
  /** To the earlier crawl that selections ask about; null where there is none. */
  readonly comparison: Comparison<View> | null;
}

/** A view with a comparison to an earlier crawl. */
export interface ComparedView extends View {
  readonly comparison: Comparison<View>;
}

type Beside = Pick<View, 'imports' | 'keys' | 'texts'>;
const besides = <C extends View['comparison']>(snapshot: Snapshot, { imports, keys, texts }: Beside, comparison: C) =>
  Object.assign(snapshot, { imports, keys, texts, comparison });

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
  texts: Texts | null = null,
): View {
  const matched = matchSources(snapshot, imports);
  const columns = {
    ...importColumns(snapshot.count, matched),
    seen_in: () => withHits(snapshot.column('seen_in'), matched),
    ...(keys ? { key: () => keyColumn(snapshot, keys) } : {}),
  };
  return besides(withLayer(snapshot, { columns }), { imports: matched, keys, texts }, null);
}

/**
 * A view with another layer on top. What was worked out of what the layer gives stays as it is: see src/core/analysis.
 */
export const overView = (view: View, layer: Layer): View => besides(withLayer(view, layer), view, view.comparison);

/** A view with a comparison of its crawl to an earlier one. */
export const withComparison = (view: View, comparison: Comparison<View>): ComparedView =>
  besides(withLayer(view, {}), view, comparison);

/** A view with some of its imported sources. What is made of them is kept apart from what all of them give. */
export function withImports(view: View, imports: readonly MatchedSource[]): View {
  const { keys, texts } = view;
  const seen = withLayer(view, { columns: { seen_in: () => view.column('seen_in') } });
  return besides(seen, { imports, keys, texts }, view.comparison);
}

/** A view whose share is that of the model `plain`. */
export function withPlainShare(view: View): { view: View; share: Share } {
  const share = plainShare(view);
  return { view: overView(view, { columns: { share: () => share.share } }), share };
}

/** Reads the texts of a view, and of the earlier crawl beside it, so that selections can ask for them. */
export async function readTexts({ texts, comparison }: View): Promise<void> {
  await texts?.read();
  await comparison?.old.texts?.read();
}
