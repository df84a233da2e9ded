/** What the HTML Standard says of single elements (§13.1.2 "Elements", §13.2.6 "Tree construction"). */

/**
 * The elements that any set names have numbers from 1, all others share 0: to ask a set, as is done several times for
 * every tag of a document, is then to read one byte. Sets are made when modules are loaded, before anything is read.
 */
const numbers = new Map<string, number>();
export const ELEMENT_NUMBERS = 256;

/** The number of an element by its name in lower case; 0 for one that no set names. */
export const elementNumber = (name: string): number => numbers.get(name) ?? 0;

function numbered(name: string): number {
  let number = numbers.get(name);
  if (number === undefined) {
    if (numbers.size + 1 >= ELEMENT_NUMBERS) throw new Error(`All numbers of elements are taken; ${name} has none.`);
    numbers.set(name, (number = numbers.size + 1));
  }
  return number;
}

/** Elements by their numbers: 1 for each of those named. */
export type ElementSet = Uint8Array;

/** @param names separated by spaces */
export function elementSet(names: string): ElementSet {
  const set = new Uint8Array(ELEMENT_NUMBERS);
  for (const name of names.split(' ')) set[numbered(name)] = 1;
  return set;
}

/** What is said of some elements, by their numbers. */
export function elementTable<T>(said: Readonly<Record<string, T>>): (T | undefined)[] {
  const table = new Array<T | undefined>(ELEMENT_NUMBERS).fill(undefined);
  for (const [name, value] of Object.entries(said)) table[numbered(name)] = value;
  return table;
}

/** Elements without content and end tag; the last ones are obsolete and parsed so. */
export const voidElements = elementSet(
  'area base br col embed hr img input link meta source track wbr param basefont bgsound frame keygen',
);

/** Elements whose content is text up to their end tag, whatever stands in it; `plaintext` has no end tag. */
export const textElements = elementSet('script style title textarea xmp iframe noembed noframes plaintext');

/** Where the content of another vocabulary holds HTML again. */
export const htmlInForeign = elementSet('foreignobject desc title annotation-xml');

/** Which open elements a start tag ends, and the elements beyond which it ends none. */
interface Closing {
  ends: readonly number[];
  within: ElementSet;
}

const block =
  'address article aside blockquote center details dialog dir div dl fieldset figcaption figure footer form h1 h2 h3 h4 h5 h6 header hgroup hr listing main menu nav ol p plaintext pre search section summary table ul xmp';
const scope = 'table td th caption button object template html applet marquee svg math';

const NONE: readonly Closing[] = [];
/** By the number of the element that begins. */
export const closings = new Array<readonly Closing[]>(ELEMENT_NUMBERS).fill(NONE);
const add = (names: string, ends: string, within: string) => {
  const closing = { ends: ends.split(' ').map(numbered), within: elementSet(within) };
  for (const number of names.split(' ').map(numbered)) closings[number] = [...closings[number], closing];
};
add(block, 'p', scope);
add('li', 'li', `${scope} ul ol menu`);
add('dd dt', 'dd dt', `${scope} dl`);
add('li dd dt', 'p', `${scope} ul ol menu dl`);
add('option', 'option', 'select datalist optgroup');
add('optgroup', 'option optgroup', 'select');
add('rt rp', 'rt rp', 'ruby rtc');
add('button', 'button', 'table td th caption object template html');
add('td th', 'td th', 'table template html tr');
add('tr', 'tr', 'table template html');
add('tbody thead tfoot', 'tbody thead tfoot', 'table template html');
add('body', 'head', 'html');
