/** Words that say nothing about what a link leads to, and how words are compared. */

const lists = {
  en: 'here|click here|click|this|this page|this link|link|more|read more|learn more|find out more|see more|show more|view more|more info|more information|info|details|see details|view|view all|see all|show all|all|go|open|continue|continue reading|read on|read|website|page|download|discover more|get started|see here|full story',
  fr: "ici|cliquez ici|cliquer ici|lien|ce lien|cette page|plus|en savoir plus|lire la suite|lire plus|voir|voir plus|voir tout|tout voir|suite|détails|découvrir|télécharger|continuer|plus d’infos|plus d'infos|plus d’informations|consulter",
  de: 'hier|hier klicken|klicken sie hier|klick|link|dieser link|diese seite|mehr|mehr erfahren|mehr lesen|mehr infos|weiterlesen|lesen sie mehr|alle|alle anzeigen|alle ansehen|ansehen|anzeigen|details|zum artikel|jetzt entdecken|entdecken|herunterladen|weiter lesen',
  es: 'aquí|haga clic aquí|haz clic aquí|clic aquí|enlace|este enlace|esta página|más|leer más|ver más|saber más|más información|ver|detalles|seguir leyendo|descubrir|descargar',
  it: 'qui|clicca qui|link|questo link|questa pagina|altro|leggi|leggi tutto|leggi di più|scopri|scopri di più|vedi|vedi tutto|dettagli|continua|continua a leggere|scarica|maggiori informazioni',
  nl: 'hier|klik hier|link|deze link|deze pagina|meer|lees meer|meer lezen|meer info|meer informatie|bekijk|bekijk alles|alles|lees verder|details|ontdek|download',
  pt: 'aqui|clique aqui|link|este link|esta página|mais|leia mais|ler mais|ver mais|saiba mais|mais informações|ver|ver tudo|detalhes|continuar lendo|descubra|baixar',
} satisfies Record<string, string>;

const generic = new Set(Object.values(lists).flatMap((list) => list.split('|')));

/** Through a series, to the start, and to the same page in another language. */
const wayfinding = new Set(
  'next|previous|prev|first|last|back|suivant|précédent|retour|weiter|zurück|siguiente|anterior|avanti|indietro|volgende|vorige|próximo|seguinte|home|start|homepage|accueil|startseite|inicio|início|english|français|deutsch|español|italiano|nederlands|português|polski|svenska|dansk|norsk|suomi|čeština|magyar|türkçe|русский|українська|日本語|中文|한국어|العربية|cymraeg|gaeilge|català|euskara|en|fr|de|es|it|nl|pt'.split(
    '|',
  ),
);

/** Lower case, without signs around and spaces between counted once: how words of anchors are compared. */
export const plainWords = (text: string) =>
  text
    .toLowerCase()
    .replace(/^[^\p{L}\p{N}]+|[^\p{L}\p{N}]+$/gu, '')
    .replace(/\s+/g, ' ');

/** Whether words, as {@link plainWords} gives them, would fit any link. */
export const isGeneric = (words: string) => generic.has(words);

/** Whether they show the way rather than name a page: next, home, a language, or digits alone. */
export const isWayfinding = (words: string) => wayfinding.has(words) || (words !== '' && !/\p{L}/u.test(words));

const STEM = 5;

const MIN_WORD = 3;
const isAscii = (text: string) => /^[\0-\x7f]*$/.test(text);

/** The beginnings of the words of a text that have some meaning; what two texts share of them they have in common. */
export function stems(text: string): Set<string> {
  const lower = text.toLowerCase();
  return isAscii(lower) ? asciiStems(lower) : allStems(lower);
}

function allStems(lower: string): Set<string> {
  const found = new Set<string>();
  for (const [word] of lower.matchAll(/[\p{L}\p{N}]{3,}|[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}]/gu))
    found.add(word.normalize('NFD').replace(/\p{M}/gu, '').slice(0, STEM));
  return found;
}

/** As {@link allStems}, for the many texts that need no tables of letters. */
function asciiStems(lower: string): Set<string> {
  const found = new Set<string>();
  let from = 0;
  for (let at = 0; at <= lower.length; at++) {
    const code = lower.charCodeAt(at);
    if ((code >= 97 && code <= 122) || (code >= 48 && code <= 57)) continue;
    if (at - from >= MIN_WORD) found.add(lower.slice(from, Math.min(at, from + STEM)));
    from = at + 1;
  }
  return found;
}

export function haveCommon(a: ReadonlySet<string>, b: ReadonlySet<string>): boolean {
  const [few, many] = a.size < b.size ? [a, b] : [b, a];
  for (const one of few) if (many.has(one)) return true;
  return false;
}
