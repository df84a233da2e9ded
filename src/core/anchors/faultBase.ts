import type { Base, ColumnReader } from '../snapshot';

/** What the faults of links are found in. */
export interface FaultBase extends Pick<Base, 'count' | 'links' | 'phrases' | 'outside' | 'wordFilters'> {
  column: ColumnReader<
    'url' | 'host' | 'path' | 'title' | 'h1' | 'description' | 'language' | 'content_hash' | 'html' | 'verdict'
  >;
}
