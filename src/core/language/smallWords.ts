/**
 * Words that stand between others in any text of a language and name nothing: articles, prepositions, conjunctions,
 * pronouns, forms of to be and to have.
 */
const lists = {
  en: 'a about after all also an and any are as at be been before being between both but by can could did do does during each for from had has have he her here him his how i if in into is it its just may me might more most must my no nor not of off on one only onto or other our out over own per same she should since so some such than that the their them then there these they this those through to too under until up upon us very via was we were what when where which while who whom whose why will with within without would you your s t',
  fr: 'a à au aux avec c ce ceci cela ces cet cette ceux chez comme d dans de des donc du elle elles en entre est et étaient était être eu eux il ils j je l la le les leur leurs lui m mais me même mes moi mon n ne ni nos notre nous on ont ou où par pas plus pour qu que qui s sa sans se sera ses si son sont sous sur t ta te tes toi ton tous tout toute très tu un une vers vos votre vous y été',
  de: 'aber alle als am an auch auf aus bei beim bin bis da dann das dass dem den der des die dies diese diesem diesen dieser dieses doch du durch ein eine einem einen einer eines er es für hat haben hatte hier ich ihr ihre ihrem ihren ihrer im in ins ist ja kann kein keine können man mehr mit nach nicht noch nur ob oder ohne sehr sein seine seinem seinen seiner sich sie sind so über um und uns unser unter vom von vor war waren was wenn wer werden wie wir wird wo wurde wurden zu zum zur zwischen',
  es: 'a al algo ante antes aquí así aunque bajo cada como con contra cual cuando de del desde donde dos el él ella ellas ellos en entre era eran es esa ese eso esta está están este esto estos fue fueron ha hasta hay la las le les lo los más me mi mientras muy ni no nos nosotros o otra otro para pero por porque puede que qué quien se según ser si sí sido sin sobre son su sus también tan tiene todos tu un una uno unos y ya yo',
  it: 'a ad ai al alla alle allo anche c che chi ci come con cui d da dai dal dalla dalle degli dei del dell della delle dello di dove e è ed era erano essere fu gli ha hanno i il in io l la le lei li lo loro lui ma mi mia mio ne nei nel nella nelle nello noi non nostro o ogni per perché però più può quando quello questa questo qui se si sia sono sopra sotto su sua sue sui sul sulla suo tra tu tutti tutto un una uno',
  nl: 'aan achter al alle als bij binnen dan dat de deze die dit door een en er geen had hebben heeft het hier hij hoe hun ik in is je kan kunnen maar me meer men met mijn na naar niet nog nu of om onder ons onze ook op over te tegen tijdens toch toen tot tussen u uit van veel voor waar was wat we wel werd werden wie wij wordt worden ze zich zij zijn zo zonder zou',
  pt: 'a à ao aos as até às cada com como da das de dela dele do dos e é ela elas ele eles em entre era eram essa esse esta está estão este eu foi foram há isso isto já lhe mais mas me mesmo meu muito na não nas nem no nos nós o onde os ou para pela pelas pelo pelos por porque qual quando que quem se sem ser será seu seus só sobre sua suas também te tem todos tudo um uma você',
  sv: 'alla allt än är att av både bara blev bli blir de dem den denna deras dess det detta dig din du där efter ej eller en ett finns från för få genom ha hade han hans har hon hur här i in inte jag kan kom man med mellan men mig min mot mycket men ni nu när och om oss på sedan sig sin sina ska som så till under upp ut utan vad var varit vi vid vilken vår över',
} as const satisfies Record<string, string>;

/** Languages of which more is known than their signs. */
type Language = keyof typeof lists;
const languages = Object.keys(lists) as Language[];

/** Those that may come or go within a name and leave it the same. */
const links = new Set(
  'the a an of le la les l un une de du des d der die das den dem ein eine von vom el los las del il lo i gli di della het een van o os as do da dos das av'.split(
    ' ',
  ),
);
export const isLinkWord = (word: string) => links.has(word.toLowerCase());

const sets = new Map<string, ReadonlySet<string>>();
const none: ReadonlySet<string> = new Set();

/** The small words of a language; none of one that is not known. */
export function smallWords(language: string): ReadonlySet<string> {
  if (!(language in lists)) return none;
  let words = sets.get(language);
  if (!words) sets.set(language, (words = new Set(lists[language as Language].split(' '))));
  return words;
}

const capitals = /^\p{Lu}[\p{Lu}\p{N}]+$/u;
/** Whether a word is all in capitals, as names and orders to a machine are. */
export const isInCapitals = (word: string) => capitals.test(word);

/** Whether a word of a text is a small one of its language; in capitals it names something: WITHOUT ROWID. */
export const isSmallWord = (word: string, language: string) =>
  smallWords(language).has(word.toLowerCase()) && !isInCapitals(word);

/** So many of the words of a text are small ones, at least, in the language that it is in. */
const CERTAIN = 0.15;
const ENOUGH = 20;
/** Another language than the expected one has so many times as many. */
const CLEARLY = 1.5;

/**
 * The language whose small words a text has most of; what is expected where that does not tell.
 * @param words in lower case
 */
export function guessLanguage(words: readonly string[], expected = ''): string {
  if (words.length < ENOUGH) return expected;
  const counts = (language: string) => {
    const small = smallWords(language);
    return words.reduce((sum, word) => sum + Number(small.has(word)), 0);
  };
  let best = expected;
  let most = Math.max(CERTAIN * words.length, expected ? CLEARLY * counts(expected) : 0);
  for (const language of languages) {
    const count = counts(language);
    if (count > most) [best, most] = [language, count];
  }
  return best;
}

/** The language that a tag (BCP 47) names, without region and script; '' for none. */
export const languageOf = (tag: string | null | undefined) =>
  /^[a-z]{2,3}(?=-|$)/.exec((tag ?? '').trim().toLowerCase())?.[0] ?? '';
