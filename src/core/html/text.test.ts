import { expect, it } from 'vitest';
import { sourceText, textBlocks } from './text';

const page = (html: string) => new TextEncoder().encode(html);

it('reads a page block by block, as a person does', () =>
  expect(
    textBlocks(
      page(
        '<title>Depot</title><script>a("b")</script><h1>The <em>night</em>\n tram</h1><p>It ran<br>until 1962 &amp; later<ul><li>Car&nbsp;42<li>',
      ),
      'utf-8',
    ),
  ).toEqual(['Depot', 'The night tram', 'It ran', 'until 1962 & later', 'Car 42']));
it('reads bytes by their charset', () =>
  expect(textBlocks(Uint8Array.of(0x3c, 0x70, 0x3e, 0xe9), 'iso-8859-1')).toEqual(['é']));
it('cuts a source at every kind of line end', () =>
  expect(sourceText(page('<p>a\r\n<p>b\r<p>c\n'), undefined)).toEqual(['<p>a', '<p>b', '<p>c', '']));
