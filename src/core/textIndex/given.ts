/** A text that is given beside those of a site: read as one more page of its index. */
import type { TextBlock } from '../html';
import { guessLanguage, isSmallWord } from '../language';
import { keptWords } from './build';
import type { TextIndex } from './open';
import { byteWriter, packBlock, unpackWords } from './tokens';

/** Words of a given text that are read. */
const MOST_WORDS = 20_000;

/** The language that most pages of an index are in, by its number. */
export function usualLanguage({ languages, pageNumbers, languageNumber }: TextIndex): number {
  const pages = languages.map(() => 0);
  for (const page of pageNumbers) pages[languageNumber(page)]++;
  return pages.indexOf(Math.max(...pages));
}

/** Some numbers with more after them. */
function longer<T extends Uint32Array | Uint8Array>(numbers: T, more: readonly number[]): T {
  const all = new (numbers.constructor as new (length: number) => T)(numbers.length + more.length);
  all.set(numbers);
  all.set(more, numbers.length);
  return all;
}

/**
 * An index with a text as one more page, in the language of the site that it seems to be in. How many pages have a word
 * stays as it was.
 * @param page the number that it gets
 */
export function withGivenText(index: TextIndex, page: number, blocks: readonly TextBlock[]): TextIndex {
  let left = MOST_WORDS;
  const read = blocks.map((block) => {
    const words = keptWords(block, left);
    left -= words.forms.length;
    return { ...words, kind: block.kind };
  });
  const usual = usualLanguage(index);
  const guessed = guessLanguage(
    read.flatMap(({ forms }) => forms.map((form) => form.toLowerCase())),
    index.languages[usual] ?? '',
  );
  const language = Math.max(0, index.languages.indexOf(guessed) < 0 ? usual : index.languages.indexOf(guessed));
  /** Words that no page has as they are written here. */
  const own: string[] = [];
  const out = byteWriter();
  for (const { kind, forms, flags } of read)
    packBlock(out, {
      kind,
      flags,
      forms: forms.map((form) => {
        const known = index.formNumber(form, language);
        return known >= 0 ? known : index.forms + own.push(form) - 1;
      }),
    });
  const bytes = out.take();
  return {
    ...index,
    forms: index.forms + own.length,
    formText: (form) => (form < index.forms ? index.formText(form) : own[form - index.forms]),
    stemOfForm: longer(
      index.stemOfForm,
      own.map((word) => index.stemOf(word, language)),
    ),
    isSmall: longer(
      index.isSmall,
      own.map((word) => Number(isSmallWord(word, index.languages[language]))),
    ),
    languageNumber: (one) => (one === page ? language : index.languageNumber(one)),
    read: (one, into) => {
      if (one !== page) return index.read(one, into);
      Object.assign(into, { page, language });
      unpackWords(bytes, 0, bytes.length, into);
      return true;
    },
  };
}
