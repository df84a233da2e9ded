import { addStems, draftFilter, finishFilter } from '../words';

/** The filter of a text by the stems that it has as a whole. */
export function wordFilter(text: string): Uint8Array {
  const draft = draftFilter();
  addStems(draft, text);
  return finishFilter(draft);
}
