/**
 * What an index of texts takes, and the places in it: `texts PAGES WORDS` generates a site of so many pages of so many
 * words, in which each page is named by some others without a link. Reading the pages and splitting them into words,
 * as the index does first, is what it is measured by.
 */
import { brotliCompressSync, constants } from 'node:zlib';
import { readBlocks } from '../src/core/html';
import { pagesInNeed, placesOf, targetBatches } from '../src/core/places';
import { atOnce } from '../src/core/promises';
import { pageOf } from '../src/core/snapshot';
import { tiny, tinySite } from '../src/core/testing/tinySite';
import { openTextIndex, searchTexts, textIndexBuilder, wordsOfText } from '../src/core/textIndex';

const [pages, words] = process.argv.slice(2).map(Number);
const VOCABULARY = 20_000;
const PARAGRAPHS = 10;
/** Pages that each page names without a link. */
const NAMED = 3;
const QUALITY = 4;

let seed = 12345;
const random = () => (seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0) / 4294967296;
const syllables = 'ka lo mi ter van sho dru pel qui nar est on ra bel fin gor hul wex'.split(' ');
const wordOf = (number: number) => {
  let word = '';
  for (let left = number + syllables.length; left > 0; left = Math.floor(left / syllables.length))
    word += syllables[left % syllables.length];
  return word;
};
/** The frequent ones are as frequent as in English (Zipf's law). */
const anyWord = () => wordOf(Math.floor(VOCABULARY ** random()) - 1);
const titles = Array.from({ length: pages }, (_, i) => `${wordOf(2000 + (i % 9000))} ${wordOf(3000 + (i % 7919))}`);
const pathOf = (page: number) => (page === 0 ? '/' : `/s${page % 20}/p${page}`);
const links = Array.from({ length: pages }, () => [0, 1, 2].map(() => Math.floor(random() * pages)));

function htmlOf(page: number): string {
  const paragraphs = Array.from({ length: PARAGRAPHS }, (_, i) => {
    const said = Array.from({ length: Math.floor(words / PARAGRAPHS) }, anyWord);
    if (i < NAMED) said.splice(5, 0, titles[Math.floor(random() * pages)]);
    else if (i < NAMED + 3) {
      const to = links[page][i - NAMED];
      said.splice(5, 0, `<a href="${pathOf(to)}">${titles[to]}</a>`);
    }
    return `<p>${said.join(' ')}.</p>`;
  });
  return `<html lang="en"><title>${titles[page]}</title><main><h1>${titles[page]}</h1>\n${paragraphs.join('\n')}</main>`;
}
const sources = Array.from({ length: pages }, (_, page) => Buffer.from(htmlOf(page)));

function timed<T>(run: () => T): { value: T; seconds: number } {
  const start = performance.now();
  const value = run();
  return { value, seconds: (performance.now() - start) / 1000 };
}
const n = (value: number) => Math.round(value).toLocaleString('en');
const view = tinySite(
  Object.fromEntries(
    titles.map((title, page) => [
      pathOf(page),
      {
        ...{ title, h1: title, language: 'en' },
        worded: links[page].map((to): [string, string, 'main'] => [pathOf(to), titles[to], 'main']),
      },
    ]),
  ),
);
const numbers = titles.map((_, page) => pageOf(view, tiny(pathOf(page))));

const read = timed(() =>
  sources.reduce(
    (sum, bytes) => readBlocks(bytes, 'utf-8').blocks.reduce((all, { text }) => all + wordsOfText(text).length, sum),
    0,
  ),
);
const built = timed(() => {
  const builder = textIndexBuilder();
  const inOrder = [...numbers.keys()].sort((a, b) => numbers[a] - numbers[b]);
  for (const page of inOrder)
    builder.add({ page: numbers[page], language: 'en', blocks: readBlocks(sources[page], 'utf-8').blocks });
  return builder.finish();
});
const texts = sources.reduce(
  (sum, bytes) => sum + readBlocks(bytes, 'utf-8').blocks.reduce((all, { text }) => all + Buffer.byteLength(text), 0),
  0,
);
const options = { params: { [constants.BROTLI_PARAM_QUALITY]: QUALITY } };
const stored = [...built.value.values()].reduce((sum, part) => sum + brotliCompressSync(part, options).length, 0);
console.log(`${n(pages)} pages, ${n(read.value)} words`);
console.log(`  read and split ${read.seconds.toFixed(1)} s; read, split and indexed ${built.seconds.toFixed(1)} s`);
console.log(`  ${(built.seconds / read.seconds).toFixed(2)} times as long (aim 1.5)`);
console.log(`  stored ${n(stored / 1024)} KiB, ${((100 * stored) / texts).toFixed(0)} % of the text (aim 30)`);

const index = openTextIndex(built.value);
const opened = timed(() => placesOf(view, index));
const need = pagesInNeed(view);
const times = need
  .filter((_, i) => i % Math.ceil(need.length / 30) === 0)
  .map((target) => timed(() => atOnce(opened.value.to([target]))).seconds)
  .sort((a, b) => a - b);
const of = (part: number) => n(1000 * times[Math.floor(part * (times.length - 1))]);
console.log(`  the site is read in ${n(1000 * opened.seconds)} ms, once`);
console.log(`  one target: half in ${of(0.5)} ms, all in ${of(1)} ms (aim 150)`);
let found = 0;
const all = timed(() => {
  for (const batch of targetBatches(opened.value, need, Infinity))
    for (const places of atOnce(opened.value.to(batch)).values()) found += places.length;
});
console.log(`  all ${n(need.length)} pages in need: ${n(found)} places in ${all.seconds.toFixed(1)} s (aim 60)`);
const frequent = timed(() => searchTexts(index, [wordOf(1), wordOf(2)]));
console.log(`  two frequent words together: ${n(frequent.value.length)} pages in ${n(1000 * frequent.seconds)} ms`);
