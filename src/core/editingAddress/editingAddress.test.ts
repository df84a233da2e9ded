import { expect, it } from 'vitest';
import { editingAddress, editingPatternFault } from '.';

const at = 'https://www.larkfield.example/learn/trams.html';
const admin = 'https://cms.larkfield.example/';

it.each([
  [`${admin}edit?url={url}`, `${admin}edit?url=${encodeURIComponent(at)}`],
  [`${admin}find?path={path}`, `${admin}find?path=%2Flearn%2Ftrams.html`],
  [`${admin}page/{path:([^/]+)\\.html$}`, `${admin}page/trams`],
  [`${admin}edit?id={source:data-id="(\\d{1,9})"}`, `${admin}edit?id=47`],
  [`${admin}edit?id={source:data-number="(\\d+)"}`, null],
  ['', null],
])('the editing address of a page by %s', (pattern, address) => {
  expect(editingAddress(pattern, at, '<body data-id="47">')).toBe(address);
});

it('a pattern that cannot be read is refused with the reason', () => {
  expect(editingPatternFault(`${admin}edit?id={source:data-id="(\\d+)"}`)).toBeNull();
  expect(editingPatternFault(`${admin}{path:(}`)).toBe('“(” is not a regular expression.');
  expect(editingPatternFault('admin/{path}')).toBe('The editing address is not an http or https address.');
});
