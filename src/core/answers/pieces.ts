import type { Snapshot } from '../snapshot';

/** A piece of an answer: plain words, or a number that selects what it counts. */
export interface AnswerPiece {
  text: string;
  /** `calm` for what is as it should be, `lost` for what is not. */
  tone?: 'calm' | 'lost';
  /** The selection of what is counted. */
  select?: string;
}

export const plural = (n: number, one: string, many: string) => (n === 1 ? one : many);

/** How many pages pass a test. */
export function countPages(snapshot: Snapshot, test: (page: number) => boolean): number {
  let n = 0;
  for (let page = 0; page < snapshot.count; page++) n += Number(test(page));
  return n;
}
