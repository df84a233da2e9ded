/** The state of a screen lives in the address of the browser: selection, sort and picked page. */
export interface ScreenState {
  select: string;
  sort: string;
  page: string;
}

export const screenState = (url: URL): ScreenState => ({
  select: url.searchParams.get('select') ?? '',
  sort: url.searchParams.get('sort') ?? '',
  page: url.searchParams.get('page') ?? '',
});

/** Path and query of a screen in another state; what is empty is left out. */
export function withState(url: URL, changes: Partial<ScreenState>, pathname = url.pathname): string {
  const state = { ...screenState(url), ...changes };
  const query = new URLSearchParams(Object.entries(state).filter(([, value]) => value));
  return query.size ? `${pathname}?${query}` : pathname;
}
