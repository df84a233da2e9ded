/** All phrases that name a page: what its links, title, headings, address and place on the site call it. */
import { blockKinds } from '../html';
import { addressAt, textAt } from '../snapshot';
import { IN_CODE, IS_APART, pageWords } from '../textIndex';
import type { TextIndex } from '../textIndex';
import { addressParts } from '../url';
import { codeForms, codeName, numbering, ownNames, phraseReader, WEIGHTS } from './phrases';
import type { Phrase } from './phrases';
import type { Site } from './site';

/** A single word of a name is as rare as this to name it. */
const RARE = 0.4;
/** And names it so much less surely than several. */
const LONE = 0.6;
const MOST_HEADINGS = 300;
const MOST_ANCHORS = 200;

/** The words of the last piece of an address: `/stories/lantern-lane_roof.html` → lantern lane roof. */
function addressWords(address: string): string {
  const pieces = addressParts(address).path.split('/').filter(Boolean);
  const last = (pieces[pieces.length - 1] ?? '').replace(/\.\w{1,5}$/, '');
  const name = /^(?:index|default)?$/i.test(last) ? (pieces[pieces.length - 2] ?? '') : last;
  try {
    return decodeURIComponent(name).replace(/[-_+.]+/g, ' ');
  } catch {
    return name.replace(/[-_+.]+/g, ' ');
  }
}

/** The headings within a page, as far as its text is kept. */
function headingPhrases(index: TextIndex, page: number): Phrase[] {
  const words = pageWords();
  if (!index.read(page, words)) return [];
  const read = phraseReader(index, words.language);
  const found: Phrase[] = [];
  for (let block = 0; block < words.blocks && found.length < MOST_HEADINGS; block++) {
    if (blockKinds[words.kind[block]] !== 'heading') continue;
    const [from, to] = [words.first[block], words.first[block + 1]];
    if (index.recurs(words.form, from, to)) continue;
    // Its first piece: what follows a bracket or comma are parameters and remarks.
    const first: string[] = [];
    for (let i = from; i < to && (i === from || !(words.flags[i] & IS_APART)); i++)
      first.push(index.formText(words.form[i]));
    const isCode = (words.flags[from] & IN_CODE) !== 0;
    for (const phrase of read(
      first.join(' ').replace(numbering, ''),
      'heading',
      WEIGHTS.heading + (isCode ? 0.1 : 0),
    )) {
      // One ordinary word of a heading names what it is about, and much else.
      const isOrdinary = phrase.stems.length === 1 && !isCode && !phrase.inCapitals[0] && !codeName.test(phrase.text);
      found.push(isOrdinary ? { ...phrase, weight: LONE * phrase.weight } : phrase);
    }
  }
  return found;
}

/** Names of code that a page begins with, as far as few others do so. */
function codeNames({ index, pagesOfCode }: Site, page: number, language: number): Phrase[] {
  const read = phraseReader(index, language);
  // What it is about comes first; others are what it takes and gives.
  return [...codeForms(index, page)].flatMap((form, i) =>
    read(index.formText(form), 'code', WEIGHTS.code / Math.sqrt(pagesOfCode(form)) / (1 + 0.03 * Math.min(i, 20))),
  );
}

/** Parts of a longer name, which may name it too. */
function partsOf(
  { text, stems, inCapitals, isNumber, small, weight }: Phrase,
  rarity: (stem: number) => number,
): Phrase[] {
  const found: Phrase[] = [];
  const whole = stems.reduce((sum, stem) => sum + rarity(stem), 0);
  for (let length = stems.length - 1; length >= 1; length--)
    for (let from = 0; from + length <= stems.length; from++) {
      const some = stems.slice(from, from + length);
      if (length === 1 && rarity(some[0]) < RARE && !inCapitals[from]) continue;
      const numbers = isNumber.slice(from, from + length);
      if (!numbers.includes(false)) continue;
      const part = some.reduce((sum, stem) => sum + rarity(stem), 0) / whole;
      found.push({
        text,
        stems: some,
        inCapitals: inCapitals.slice(from, from + length),
        isNumber: numbers,
        small,
        source: 'part',
        weight: WEIGHTS.part * weight * (0.5 + part) * (length === 1 && !inCapitals[from] ? LONE : 1),
      });
    }
  return found;
}

/** The phrases that name a page, each once, the surest first. */
export function keyPhrases(site: Site, page: number): Phrase[] {
  const { view, index, anchors, isGeneric, rarity } = site;
  const language = site.languageOf(page);
  const read = phraseReader(index, language);
  const names = ownNames(view, index, site.names, page, language);
  const said = [...(anchors.get(page) ?? [])]
    .filter(([anchor]) => !isGeneric(anchor))
    .sort(([, a], [, b]) => b - a)
    .slice(0, MOST_ANCHORS);
  const crumb = (textAt(view, 'breadcrumb', page) ?? '').split(' › ').pop() ?? '';
  const all = [
    ...said.flatMap(([anchor]) => read(anchor.replace(numbering, ''), 'anchor', WEIGHTS.anchor)),
    ...names,
    ...headingPhrases(index, page),
    ...codeNames(site, page, language),
    ...read(crumb, 'breadcrumb', WEIGHTS.breadcrumb),
    ...read(addressWords(addressAt(view, page)), 'address', WEIGHTS.address),
    ...names.flatMap((name) => partsOf(name, rarity)),
  ];
  const best = new Map<string, Phrase>();
  for (const phrase of all) {
    const key = phrase.stems.join();
    const known = best.get(key);
    if (!known || known.weight < phrase.weight) best.set(key, phrase);
  }
  return [...best.values()].sort((a, b) => b.weight - a.weight);
}
