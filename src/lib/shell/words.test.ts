import { expect, it } from 'vitest';
import { bytes, number, shortAddress } from './words';

it('writes numbers with separators, and unknown as a dash', () => {
  expect(number(1234567)).toBe('1,234,567');
  expect(number(null)).toBe('—');
  expect(bytes(2_340)).toBe('2.3 kB');
});
it('shortens addresses of the site only', () => {
  expect(shortAddress('https://a.example/x?y', 'https://a.example/start')).toBe('/x?y');
  expect(shortAddress('http://a.example/x', 'https://a.example/')).toBe('http://a.example/x');
});
