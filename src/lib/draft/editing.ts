/** How any part of a screen opens the dialog in which changes are tried; there is none while a crawl runs. */
import { getContext, setContext } from 'svelte';
import type { Edit } from '$core/draft';

/** @param begun the edits that are to be made, with what is known of them */
export type OpenEditing = (begun: readonly Partial<Edit>[]) => Promise<void>;

const KEY = Symbol('editing');

/** @param open gives null where nothing can be edited */
export const provideEditing = (open: () => OpenEditing | null): void => void setContext(KEY, open);
export const editing = (): (() => OpenEditing | null) =>
  getContext<(() => OpenEditing | null) | undefined>(KEY) ?? (() => null);
