import type { ChangeFact } from '../facts';

/** One column of a list, as its head and its cells need it. */
export interface ListColumn extends Pick<ChangeFact, 'type' | 'unit' | 'label' | 'meaning' | 'values' | 'as' | 'sort'> {
  name: string;
  /** How a selection names it, where that is not its name. */
  asked?: string;
}
