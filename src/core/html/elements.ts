/** What the HTML Standard says of single elements (§13.1.2 "Elements", §13.2.6 "Tree construction"). */

const set = (names: string) => new Set(names.split(' '));

/** Elements without content and end tag; the last ones are obsolete and parsed so. */
export const voidElements = set('area base br col embed hr img input link meta source track wbr param basefont bgsound frame keygen'); // prettier-ignore

/** Elements whose content is text up to their end tag, whatever stands in it. */
export const textElements = set('script style title textarea xmp iframe noembed noframes');

/** Where the content of another vocabulary holds HTML again. */
export const htmlInForeign = set('foreignobject desc title annotation-xml');

/** Which open elements a start tag ends, and the elements beyond which it ends none. */
interface Closing {
  ends: readonly string[];
  within: ReadonlySet<string>;
}

const block = set('address article aside blockquote center details dialog dir div dl fieldset figcaption figure footer form h1 h2 h3 h4 h5 h6 header hgroup hr listing main menu nav ol p plaintext pre search section summary table ul xmp'); // prettier-ignore
const scope = 'table td th caption button object template html applet marquee svg math';
const endsParagraph: Closing = { ends: ['p'], within: set(scope) };
const inList = set(`${scope} ul ol menu`);
const rows = set('table template html');

export const closings = new Map<string, readonly Closing[]>();
for (const name of block) closings.set(name, [endsParagraph]);
const add = (names: string, ends: string, within: ReadonlySet<string>) => {
  for (const name of set(names)) closings.set(name, [...(closings.get(name) ?? []), { ends: ends.split(' '), within }]);
};
add('li', 'li', inList);
add('dd dt', 'dd dt', set(`${scope} dl`));
add('li dd dt', 'p', set(`${scope} ul ol menu dl`));
add('option', 'option', set('select datalist optgroup'));
add('optgroup', 'option optgroup', set('select'));
add('rt rp', 'rt rp', set('ruby rtc'));
add('button', 'button', set('table td th caption object template html'));
add('td th', 'td th', set('table template html tr'));
add('tr', 'tr', rows);
add('tbody thead tfoot', 'tbody thead tfoot', rows);
add('body', 'head', set('html'));
