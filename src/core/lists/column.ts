import type { Fact } from '../facts';

/** One column of a list, as its head and its cells need it. */
export interface ListColumn extends Omit<Fact, 'from' | 'limit'> {
  name: string;
  /** How a selection names it, where that is not its name. */
  asked?: string;
}
