import { expect, it } from 'vitest';
import { calm, lost, say } from './pieces';

it('makes one piece of all plain words that follow each other', () =>
  expect(say`${calm(1204, 'indexable')} of ${2000} ${'pages'}${say`, and ${lost('some', 'broken')} more`}.`).toEqual([
    { text: '1,204', tone: 'calm', select: 'indexable' },
    { text: ' of 2,000 pages, and ' },
    { text: 'some', tone: 'lost', select: 'broken' },
    { text: ' more.' },
  ]));
it('leaves nothing where nothing is put in', () => expect(say`${[]}${''}`).toEqual([]));
