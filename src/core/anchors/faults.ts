/** Faults of links (docs/MEANINGS.md, "Anchors" and "Verdict"), a bit each. */
import { BARE_IMAGE, faultBit, linkKinds, relSaysNofollow } from '../links';
import { textAt } from '../snapshot/snapshot';
import type { IncomingLinks, Snapshot } from '../snapshot';
import { haveCommon, isGeneric, isWayfinding, plainWords, stems } from './words';

const MAX_ANCHOR = 100;
const CLICK_KIND = linkKinds.indexOf('click');
const HREFLANG = linkKinds.indexOf('hreflang');
const bareAddress = /^(https?:\/\/|www\.)\S+$|^[\w-]+(\.[\w-]+)*\.[a-z]{2,}(\/\S*)?$/i;
/** BCP 47: language, script, region, as hreflang takes them; or x-default. */
const languageCode = /^(x-default|[a-z]{2,3}(-[a-z]{4})?(-([a-z]{2}|\d{3}))?)$/i;

/** What the words of an anchor are by themselves. */
function faultsOfWords(text: string): number {
  let faults = 0;
  if (isGeneric(plainWords(text))) faults |= faultBit('generic');
  if (bareAddress.test(text)) faults |= faultBit('address');
  if ([...text.slice(0, 3 * MAX_ANCHOR)].length > MAX_ANCHOR) faults |= faultBit('overlong');
  return faults;
}

/**
 * Marks the faults of all links.
 * @param settled where redirects and canonicals end (`settle`), so that two ways to one page are no conflict
 * @returns one entry a link, the bits of {@link linkFaults}; `fragment` is left to whoever knows the ids
 */
export function findLinkFaults(snapshot: Snapshot, incoming: IncomingLinks, settled: Int32Array): Uint16Array {
  const { count, links, phrases, columns } = snapshot;
  const faults = new Uint16Array(links.target.length);
  const wordFaults = Uint16Array.from(phrases, faultsOfWords);
  const nofollowRel = Uint8Array.from(phrases, (text) => Number(relSaysNofollow(text)));
  const pageNofollow = columns.page_nofollow as Int32Array;
  const endOf = (page: number) => (settled[page] >= 0 ? settled[page] : page);

  // Equal words may be written differently; words that fit anything, or number a series, tell nothing apart.
  const wordNumbers = new Map<string, number>();
  const wordsOf = Int32Array.from(phrases, (text) => {
    const words = plainWords(text);
    if (words === '' || isGeneric(words) || isWayfinding(words)) return -1;
    if (!wordNumbers.has(words)) wordNumbers.set(words, wordNumbers.size);
    return wordNumbers.get(words)!;
  });
  const NOTHING = -1;
  const SEVERAL = -2;
  const leadsTo = new Int32Array(wordNumbers.size).fill(NOTHING);
  const secure = addressBits(snapshot, 'https:');
  const plain = addressBits(snapshot, 'http:');

  for (let page = 0; page < count; page++)
    for (let link = links.offsets[page]; link < links.offsets[page + 1]; link++) {
      const target = links.target[link];
      const kind = links.kind[link];
      if (kind === HREFLANG && !languageCode.test(phrases[links.anchor[link]])) faults[link] |= faultBit('bad_code');
      if (kind !== CLICK_KIND) continue;
      if (secure[page] && plain[target]) faults[link] |= faultBit('insecure');
      const bare = (links.marks[link] & BARE_IMAGE) !== 0;
      if (links.anchor[link] === 0) faults[link] |= faultBit(bare ? 'image_no_alt' : 'empty');
      else faults[link] |= wordFaults[links.anchor[link]];
      const words = wordsOf[links.anchor[link]];
      if (words < 0 || target >= count || target === page) continue;
      const end = endOf(target);
      if (leadsTo[words] === NOTHING) leadsTo[words] = end;
      else if (leadsTo[words] !== end) leadsTo[words] = SEVERAL;
    }

  const stemsOfPhrase = new Map<number, Set<string>>();
  const stemsOf = (phrase: number) => {
    let found = stemsOfPhrase.get(phrase);
    if (!found) stemsOfPhrase.set(phrase, (found = stems(phrases[phrase])));
    return found;
  };
  for (let page = 0; page < count; page++) markTarget(page);
  return faults;

  /** What shows only when all links to one page are looked at. */
  function markTarget(page: number): void {
    const anchors = new Map<number, number>();
    let followed = 0;
    let withheld = 0;
    const each = (visit: (link: number) => void) => {
      for (let i = incoming.offsets[page]; i < incoming.offsets[page + 1]; i++) {
        const link = incoming.links[i];
        if (links.kind[link] === CLICK_KIND && incoming.source[link] !== page) visit(link);
      }
    };
    const isWithheld = (link: number) =>
      nofollowRel[links.rel[link]] === 1 || pageNofollow[incoming.source[link]] === 1;
    each((link) => {
      if (isWithheld(link)) withheld++;
      else followed++;
      if (wordsOf[links.anchor[link]] >= 0) anchors.set(links.anchor[link], (anchors.get(links.anchor[link]) ?? 0) + 1);
    });
    // The words that most links use say what the page is called; others should have something in common with them.
    let usual = -1;
    for (const [phrase, times] of anchors) if (usual < 0 || times > anchors.get(usual)!) usual = phrase;
    const marks = new Map<number, number>();
    const topic = anchors.size ? topicOf(snapshot, page) : null;
    for (const phrase of anchors.keys()) {
      let mark = 0;
      if (leadsTo[wordsOf[phrase]] === SEVERAL) mark |= faultBit('conflict');
      if (
        topic &&
        !(wordFaults[phrase] & faultBit('address')) &&
        stemsOf(phrase).size &&
        !haveCommon(stemsOf(phrase), topic)
      )
        mark |= faultBit('off_topic');
      if (anchors.size > 1 && stemsOf(phrase).size && !haveCommon(stemsOf(phrase), stemsOf(usual)) && phrase !== usual)
        mark |= faultBit('split');
      marks.set(phrase, mark);
    }
    each((link) => {
      faults[link] |= marks.get(links.anchor[link]) ?? 0;
      if (followed && withheld && isWithheld(link)) faults[link] |= faultBit('nofollow_mix');
    });
    for (let i = incoming.offsets[page]; i < incoming.offsets[page + 1]; i++) {
      const link = incoming.links[i];
      if (links.kind[link] === HREFLANG && !returns(page, incoming.source[link])) faults[link] |= faultBit('no_return');
    }
  }

  /** Whether a page names another one as an edition of itself. */
  function returns(page: number, other: number): boolean {
    if (page === other) return true;
    for (let link = links.offsets[page]; link < links.offsets[page + 1]; link++)
      if (links.kind[link] === HREFLANG && links.target[link] === other) return true;
    return false;
  }
}

/** What a page is about, as far as its title, headings and address say; null when it says nothing. */
function topicOf(snapshot: Snapshot, page: number): Set<string> | null {
  const title = textAt(snapshot, 'title', page);
  if (!title) return null;
  return stems(
    `${title} ${textAt(snapshot, 'h1', page) ?? ''} ${textAt(snapshot, 'path', page)!.replace(/[^a-z0-9]+/gi, ' ')}`,
  );
}

/** Which addresses, of pages and then of outside targets, begin so. */
function addressBits({ count, columns, outside }: Snapshot, scheme: string): Uint8Array {
  const bits = new Uint8Array(count + outside.length);
  const url = columns.url as { codes: Uint32Array; values: string[] };
  for (let page = 0; page < count; page++) bits[page] = Number(url.values[url.codes[page]].startsWith(scheme));
  outside.forEach((address, i) => (bits[count + i] = Number(address.startsWith(scheme))));
  return bits;
}
