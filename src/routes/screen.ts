import type { ServerLoadEvent } from '@sveltejs/kit';
import { isColumnName } from '$core/facts';
import type { ColumnName } from '$core/facts';
import { importColumnName, numbersOfSource } from '$core/lists';
import { cookieOf, neededColumns, columnsFor, shownColumns } from '$lib/list/columns';
import { screenState } from '$lib/shell/address';
import { listOf, listWindow } from '$server/index';
import { beforeOf, localsOf } from './crawl';
import { crawlForView } from './view';

const FIRST_ROWS = 60;

/**
 * What a screen with a list is made of: the crawl, its snapshot, and the list with its first rows.
 * @param pageColumns the columns of pages while nobody has chosen others
 */
export async function listScreen(event: ServerLoadEvent, pageColumns?: string) {
  const state = screenState(event.url);
  const found = await crawlForView(localsOf(event), state, event.url.searchParams);
  const by: ColumnName = isColumnName(state.by) ? state.by : 'section';
  const view = { list: state.list, select: state.select, sort: state.sort, by };
  const columns = columnsFor(
    state.reader,
    shownColumns(
      state.list,
      event.cookies.get(cookieOf(state.list)) ?? (state.list === 'pages' ? pageColumns : undefined),
    ),
  );
  return {
    ...found,
    state,
    list: {
      columns,
      imported: found.snapshot.imports.flatMap((source) =>
        numbersOfSource(source).map((number) => importColumnName(source.kind, source.name, number)),
      ),
      fault: listOf(found.snapshot, view).fault,
      first: listWindow(
        found.snapshot,
        view,
        neededColumns(state.list, columns),
        0,
        FIRST_ROWS,
        beforeOf(event.locals, found.snapshot),
      ),
    },
  };
}
