import { describe, expect, it } from 'vitest';
import { listColumns, listNames } from '$core/lists/columns';
import {
  columnsToSave,
  moved,
  neededColumns,
  otherColumns,
  printColumns,
  columnsFor,
  shownColumns,
  toggled,
} from './columns';

describe('the columns of a list', () => {
  it.each(listNames)('%s begin with columns that the list has, and all others can be had', (list) => {
    const shown = shownColumns(list, undefined);
    expect(shown.length).toBeGreaterThan(4);
    expect(shown.length + otherColumns(list, shown).length).toBe(listColumns[list].length);
    expect(neededColumns(list, shown).every((name) => listColumns[list].some((column) => column.name === name))).toBe(
      true,
    );
  });
  it('come back from the cookie as they were kept', () => {
    const chosen = toggled('pages', shownColumns('pages', undefined), 'word_count');
    expect(shownColumns('pages', encodeURIComponent(printColumns(chosen)))).toEqual(chosen);
  });
  it('pass over what a cookie has wrong', () => {
    expect(shownColumns('pages', 'url:300p,nonsense:20,depth:9999,depth:50,title')).toEqual([
      { name: 'url', width: 300, pinned: true },
      { name: 'depth', width: 900, pinned: false },
    ]);
    expect(shownColumns('pages', '%%%')).toEqual(shownColumns('pages', undefined));
  });
  it('move among those that are pinned like them', () => {
    const columns = shownColumns('pages', 'url:300p,depth:60,share:60');
    const names = (of: typeof columns) => of.map(({ name }) => name).join();
    expect(names(moved(columns, 'share', -1))).toBe('url,share,depth');
    expect(names(moved(columns, 'depth', -1))).toBe('url,depth,share');
  });
  it('keep their last one', () => expect(toggled('hosts', shownColumns('hosts', 'host:100'), 'host')).toHaveLength(1));
  it('show the depth of the reader, and are kept for both', () => {
    const names = (of: { name: string }[]) => of.map(({ name }) => name).join();
    const columns = shownColumns('pages', 'url:300p,depth:60,share:60');
    const read = columnsFor('crawler', columns);
    expect(names(read)).toBe('url,crawler_depth,share');
    expect(columnsToSave('crawler', read)).toEqual(columns);
    expect(columnsFor('visitor', columns)).toEqual(columns);
    const both = shownColumns('pages', 'depth:60,crawler_depth:60');
    expect(names(columnsFor('crawler', both))).toBe('depth,crawler_depth');
  });
});
