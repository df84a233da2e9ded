/** A piece of an answer: plain words, or a number that selects what it counts. */
export interface AnswerPiece {
  text: string;
  /** `calm` for what is as it should be, `lost` for what is not. */
  tone?: 'calm' | 'lost';
  /** The selection of what is counted. */
  select?: string;
}

export const plural = (n: number, one: string, many: string) => (n === 1 ? one : many);
