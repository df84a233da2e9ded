/** Makes the index of a crawl's texts, page by page. */
import type { TextBlock } from '../html';
import { guessLanguage, isSmallWord, languageOf, stemOf } from '../language';
import { templatePages } from '../links';
import { blockHash, byteWriter, IN_CODE, IN_LINK, IS_APART, packBlock } from './tokens';
import { MAX_DIGITS, MAX_FORM, wordsOfText } from './textWords';

/** The stored form of an index. */
export type TextParts = Map<string, Uint8Array>;
export const TEXT_INDEX_VERSION = 2;

/** Bytes of packed pages in one part. */
const PART_BYTES = 1 << 20;
/** Words of one page; those after them are not kept. */
const MAX_PAGE_WORDS = 200_000;
/** Shorter blocks may well be the same on several pages. */
const MIN_RECURRING = 4;
const FEW_PAGES = 5;

const formOf = (word: string) => (/^\d+$/.test(word) && word.length > MAX_DIGITS ? '#' : word.slice(0, MAX_FORM));

/** The words of a block as they are kept, with what is said of each: at most so many. */
export function keptWords({ text, runs }: TextBlock, most: number): { forms: string[]; flags: number[] } {
  const words = wordsOfText(text).slice(0, most);
  let run = 0;
  return {
    forms: words.map((word) => formOf(word.text)),
    flags: words.map(({ from, isApart }) => {
      while (run + 1 < runs.length && runs[run + 1].from <= from) run++;
      const { isLink, isCode } = runs[run];
      return (isLink ? IN_LINK : 0) | (isCode ? IN_CODE : 0) | (isApart ? IS_APART : 0);
    }),
  };
}

/** Numbers for texts, each in one language, from 0 on, in the order in which they come. */
function numbering() {
  const numbers: Map<string, number>[] = [];
  /** Each behind the number of its language. */
  const texts: string[] = [];
  return {
    texts,
    /** @param onNew is called when a text comes for the first time */
    of(language: number, text: string, onNew: (text: string) => void): number {
      const own = (numbers[language] ??= new Map<string, number>());
      let number = own.get(text);
      if (number === undefined) {
        own.set(text, (number = texts.length));
        texts.push(`${language} ${text}`);
        onNew(text);
      }
      return number;
    },
  };
}

/** What is known of a page besides its blocks. */
export interface TextPage {
  /** Its number in the snapshot. */
  page: number;
  /** The tag of its language, as it says itself; null when it does not. */
  language: string | null;
  blocks: readonly TextBlock[];
}

/** Takes pages in the order of their numbers, and makes the parts of their index. */
export function textIndexBuilder() {
  const languages: string[] = [];
  const pagesIn: number[] = [];
  /** Words as they are written, and their stems. */
  const forms = numbering();
  const stems = numbering();
  const stemOfForm: number[] = [];
  const isSmall: number[] = [];
  const pagesOfStem: number[] = [];
  /** The last page that had a stem. */
  const lastPage: number[] = [];
  const pagesOfBlock = new Map<number, number>();
  const out = byteWriter();
  const packed = byteWriter();
  const parts: TextParts = new Map();
  let [pages, words] = [0, 0];
  const endPart = () => {
    if (out.length > 0) parts.set(`pages/${parts.size}`, out.take());
  };

  /** The language of most pages so far. */
  const usual = () => languages[pagesIn.indexOf(Math.max(...pagesIn))] ?? '';

  function addForm(word: string, language: string, number: number): void {
    const stem = stems.of(number, stemOf(word, language), () => {
      pagesOfStem.push(0);
      lastPage.push(-1);
    });
    stemOfForm.push(stem);
    isSmall.push(Number(isSmallWord(word, language)));
  }

  return {
    /** @returns how many pages there are now */
    add({ page, language: tag, blocks }: TextPage): number {
      let left = MAX_PAGE_WORDS;
      const read = blocks.map((block) => {
        const words = keptWords(block, left);
        left -= words.forms.length;
        return { ...words, kind: block.kind };
      });
      const language =
        languageOf(tag) ||
        guessLanguage(
          read.flatMap(({ forms }) => forms.map((form) => form.toLowerCase())),
          usual(),
        );
      if (!languages.includes(language)) languages.push(language);
      const number = languages.indexOf(language);
      pagesIn[number] = (pagesIn[number] ?? 0) + 1;
      const hashes = new Set<number>();
      const addNew = (form: string) => addForm(form, language, number);
      for (const { kind, forms: kept, flags } of read) {
        const numbers = kept.map((form) => forms.of(number, form, addNew));
        for (const form of numbers) {
          const stem = stemOfForm[form];
          if (lastPage[stem] !== page) pagesOfStem[stem]++;
          lastPage[stem] = page;
        }
        if (numbers.length >= MIN_RECURRING) hashes.add(blockHash(numbers, 0, numbers.length));
        packBlock(packed, { kind, forms: numbers, flags });
        words += numbers.length;
      }
      for (const hash of hashes) pagesOfBlock.set(hash, (pagesOfBlock.get(hash) ?? 0) + 1);
      const body = packed.take();
      out.number(page);
      out.number(number);
      out.number(body.length);
      out.bytes(body);
      pages++;
      if (out.length >= PART_BYTES) endPart();
      return pages;
    },
    /** The parts of the index. Nothing can be added afterwards. */
    finish(): TextParts {
      endPart();
      const utf8 = new TextEncoder();
      const bytesOf = (numbers: readonly number[]) => new Uint8Array(Uint32Array.from(numbers).buffer);
      const least = Math.max(FEW_PAGES, Math.min(templatePages(pages), pages / 10));
      const recurring = [...pagesOfBlock].flatMap(([hash, count]) => (count >= least ? [hash] : []));
      const head = { version: TEXT_INDEX_VERSION, languages, pages, words };
      return new Map([
        ['head', utf8.encode(JSON.stringify(head))],
        ['forms', utf8.encode(forms.texts.join('\n'))],
        ['stems', utf8.encode(stems.texts.join('\n'))],
        ['stem_of_form', bytesOf(stemOfForm)],
        ['is_small', Uint8Array.from(isSmall)],
        ['pages_of_stem', bytesOf(pagesOfStem)],
        ['recurring', bytesOf(recurring.sort((a, b) => a - b))],
        ...parts,
      ]);
    },
  };
}
