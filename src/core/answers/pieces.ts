import { thousands } from '../numbers';

/** A piece of an answer: plain words, or a number that selects what it counts. */
export interface AnswerPiece {
  text: string;
  /** `calm` for what is as it should be, `lost` for what is not. */
  tone?: 'calm' | 'lost';
  /** The selection of what is counted. */
  select?: string;
}

export const plural = (n: number, one: string, many: string) => (n === 1 ? one : many);

/** A number, or words, that select what they count; as it should be, or not. */
const toned =
  (tone: AnswerPiece['tone']) =>
  (what: number | string, select?: string): AnswerPiece => ({
    text: typeof what === 'number' ? thousands(what) : what,
    tone,
    ...(select !== undefined && { select }),
  });
export const calm = toned('calm');
export const lost = toned('lost');

const isPlain = (piece: AnswerPiece | undefined) => piece && piece.tone === undefined && piece.select === undefined;

/** Makes pieces of a sentence that is written as a template: say`${calm(3, 'depth = 1')} of ${n} pages`. */
export function say(texts: TemplateStringsArray, ...put: (AnswerPiece | AnswerPiece[] | string | number)[]) {
  const pieces: AnswerPiece[] = [];
  const add = (piece: AnswerPiece) => {
    const last = pieces.at(-1);
    if (last && isPlain(last) && isPlain(piece)) pieces[pieces.length - 1] = { text: last.text + piece.text };
    else if (piece.text !== '') pieces.push(piece);
  };
  texts.forEach((text, i) => {
    add({ text });
    const given = put[i] ?? '';
    if (typeof given === 'object') [given].flat().forEach(add);
    else add({ text: typeof given === 'number' ? thousands(given) : given });
  });
  return pieces;
}
