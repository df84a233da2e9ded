import { describe, expect, it } from 'vitest';
import { EdgeMapError, failure, isError, selectionFault, toldError } from '.';

describe('an error', () => {
  const refused = failure('import', 'The file holds no lines.', 'Nothing was imported.');
  it('is told apart by its code, not by its text', () => {
    expect(isError(refused, 'import')).toBe(true);
    expect(isError(refused, 'usage', 'import')).toBe(true);
    expect(isError(refused, 'usage')).toBe(false);
    expect(isError(new Error('import'), 'import')).toBe(false);
    expect(isError({ code: 'import' }, 'import')).toBe(false);
  });
  it('has parameters of its code, which need no text to be read', () => {
    const fault = selectionFault('Expected a test here.', 6, 2);
    expect(fault.params).toEqual({ at: 6, length: 2 });
    const lost = new EdgeMapError('lease_lost', 'Another worker has taken over crawl 7.', { crawl: 7 });
    expect(isError(lost, 'lease_lost') && lost.params.crawl).toBe(7);
  });
  it('is told with what to do, where the message does not say all', () => {
    expect(toldError(refused)).toBe('The file holds no lines. Nothing was imported.');
    expect(toldError(failure('usage', 'There is no crawl 9.'))).toBe('There is no crawl 9.');
  });
});
