import { describe, expect, it } from 'vitest';
import { leavesList, readList } from './listField';
import type { Faults } from './settingsForm';

const form = (fields: Record<string, string>) => {
  const data = new FormData();
  for (const [name, value] of Object.entries(fields)) data.set(name, value);
  return data;
};

describe('the field of known addresses', () => {
  it('is read an address a line, in normal form, and empty lines are passed over', () => {
    const faults: Faults = {};
    const lists = ' https://www.larkfield.example/visit \n\nHTTPS://www.larkfield.example:443/shop?b=1\r\n';
    expect(readList(form({ lists }), faults)).toEqual([
      'https://www.larkfield.example/visit',
      'https://www.larkfield.example/shop?b=1',
    ]);
    expect(faults).toEqual({});
  });
  it('says which line is the first that is not an address, and keeps the others', () => {
    const faults: Faults = {};
    expect(readList(form({ lists: 'tram\nhttps://www.larkfield.example/\nbus' }), faults)).toHaveLength(1);
    expect(faults.lists).toBe('“tram” is not a URL.');
  });
  it('leaves a list that is too long to be shown, unless others are typed or it is to go', () => {
    expect(leavesList(form({ longList: 'yes', lists: ' ' }))).toBe(true);
    expect(leavesList(form({ longList: 'yes', lists: 'https://www.larkfield.example/' }))).toBe(false);
    expect(leavesList(form({ longList: 'yes', lists: '', removeList: 'on' }))).toBe(false);
    expect(leavesList(form({ lists: '' }))).toBe(false);
  });
});
