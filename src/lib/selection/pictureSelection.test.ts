import { describe, expect, it } from 'vitest';
import { parseSelection } from '$core/selection';
import { selectionWith } from './pictureSelection';

const shown = { picture: '', select: '', reader: 'visitor' } as const;

describe('the selection that comes with a picture', () => {
  it.each(['no-route', 'gates', 'traps', 'readers', 'leaks'])('of %s is what it is about', (picture) => {
    const select = selectionWith(picture, shown);
    expect(select).not.toBe('');
    expect(parseSelection(select)).toMatchObject({ ok: true });
    // The next picture brings its own again.
    expect(selectionWith('', { ...shown, picture, select })).toBe('');
  });
  it('follows the reader', () =>
    expect(selectionWith('no-route', { ...shown, reader: 'crawler' })).not.toBe(selectionWith('no-route', shown)));
  it('never takes the place of what a person has selected', () => {
    const own = { ...shown, select: 'title has "tram"' };
    expect(selectionWith('gates', own)).toBe('title has "tram"');
    expect(selectionWith('', { ...own, picture: 'gates' })).toBe('title has "tram"');
  });
});
