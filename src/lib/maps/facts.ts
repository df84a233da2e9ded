/** Which facts maps can be coloured by. */
import { factOf } from '$core/facts';
import type { ColumnName } from '$core/facts';

/** Facts that belong to the crawl itself: the worker has nothing of imports and of other crawls. */
export const isDrawable = (name: ColumnName) => ['base', 'derived'].includes(factOf(name).from);
