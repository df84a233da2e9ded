import { describe, expect, it } from 'vitest';
import { moved, wholePhrase, wholeWords } from './range';

const text = 'When the Lantern Lane depot opened its doors again';
const at = (words: string) => [text.indexOf(words), text.indexOf(words) + words.length] as const;
const all = [0, text.length] as const;
const said = (range: readonly [number, number] | null) => range && text.slice(...range);

describe('the words of a link', () => {
  it.each([
    ['to', 1, 'Lantern Lane depot opened'],
    ['to', -1, 'Lantern Lane'],
    ['from', -1, 'the Lantern Lane depot'],
    ['from', 1, 'Lane depot'],
  ] as const)('move at %s by %i to “%s”', (end, step, words) =>
    expect(said(moved(text, at('Lantern Lane depot'), end, step, all))).toBe(words),
  );
  it('keep one word, and stay where they can be linked', () => {
    expect(said(moved(text, at('depot'), 'to', -1, all))).toBe('depot');
    expect(said(moved(text, at('Lantern Lane'), 'to', 1, at('the Lantern Lane')))).toBe('Lantern Lane');
    expect(said(moved(text, at('again'), 'to', 1, all))).toBe('again');
  });
  it.each([
    ['depot', 'Lantern Lane depot'],
    ['Lantern', 'Lantern Lane depot'],
    ['Lane', 'Lantern Lane depot'],
    ['doors', 'doors'],
  ])('“%s” become the whole phrase “%s”', (words, phrase) =>
    expect(said(wholePhrase(text, at(words), all, 'The depot of Lantern Lane'))).toBe(phrase),
  );
  it('are whole ones where a person drags over them', () => {
    expect(said(wholeWords(text, at('antern Lane dep'), all))).toBe('Lantern Lane depot');
    expect(wholeWords(text, at(' '), all)).toBeNull();
  });
});
