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

type Language = keyof typeof lists;
const languages = Object.keys(lists) as Language[];
/** A bit for each language whose readers know a phrase as one that fits any link. */
const generic = new Map<string, number>();
languages.forEach((language, bit) => {
  for (const phrase of lists[language].split('|')) generic.set(phrase, (generic.get(phrase) ?? 0) | (1 << bit));
});
const ENGLISH = 1 << languages.indexOf('en');
const ANY = (1 << languages.length) - 1;

/** In which languages words, as {@link plainWords} gives them, would fit any link: a bit each; 0 for none. */
export const genericIn = (words: string): number => generic.get(words) ?? 0;
/**
 * The languages whose phrases count on a page: its own and English; all of them where it does not say which it is in.
 */
export function countedLanguages(code: string | null): number {
  const language = code?.toLowerCase().split('-')[0] as Language | undefined;
  if (!language) return ANY;
  const bit = languages.indexOf(language);
  return ENGLISH | (bit < 0 ? 0 : 1 << bit);
}

/** Through a series or a page, to the start, and to the same page in another language. */
const wayfinding = new Set(
  'next|previous|prev|first|last|back|up|top|to top|back to top|contents|table of contents|toc|index|menu|skip to content|skip to main content|print|print version|print this page|drucken|imprimer|imprimir|stampa|suivant|précédent|retour|haut de page|sommaire|weiter|zurück|nach oben|inhalt|inhaltsverzeichnis|siguiente|anterior|avanti|indietro|volgende|vorige|próximo|seguinte|home|start|homepage|accueil|startseite|inicio|início|english|français|deutsch|español|italiano|nederlands|português|polski|svenska|dansk|norsk|suomi|čeština|magyar|türkçe|русский|українська|日本語|中文|한국어|العربية|cymraeg|gaeilge|català|euskara|en|fr|de|es|it|nl|pt'.split(
    '|',
  ),
);

/** To the next or earlier part of something that goes on: `Older articles`, `Month before`. */
const paging =
  /^(?:(?:next|previous|prev|older|newer|earlier|later|more|all|load more|show more)(?: (?:page|month|week|day|year|article|post|entrie|entry|item|result|stor(?:y|ie)|chapter|section|topic|new|comment|event)s?)?|(?:page|month|week|day|year) (?:before|after))$/;

/** Lower case, without signs around and spaces between counted once: how words of anchors are compared. */
export const plainWords = (text: string) =>
  text
    .toLowerCase()
    .replace(/^[^\p{L}\p{N}]+|[^\p{L}\p{N}]+$/gu, '')
    .replace(/\s+/g, ' ');

/** Whether they show the way rather than name a page: next, home, a language, or digits alone. */
export const isWayfinding = (words: string) =>
  wayfinding.has(words) || paging.test(words) || (words !== '' && !/\p{L}/u.test(words));

const referenceWord =
  'section|sect|sec|chapter|chap|table|figure|fig|example|appendix|annex|part|page|step|note|footnote|equation|eq|clause|item|listing|volume|vol|issue|version|release|rfc|line|abschnitt|kapitel|tabelle|abbildung|abb|anhang|seite|chapitre|tableau|annexe|partie|sección|capítulo|tabla|figura|anexo|página|sezione|capitolo|tabella|pagina|hoofdstuk|tabel|figuur|bijlage|secção|tabela';
const reference = new RegExp(
  `^(?:(?:${referenceWord})s?\\.?|§|no\\.?|nr\\.?|#)\\s*[\\divxlc][\\divxlc.:–-]*[a-z]?$`,
  'u',
);
/** Whether they refer to a numbered part of a document, as “Table 9.88” does. */
export const isReference = (words: string) => reference.test(words);

/**
 * Whether a text is a name of code or of a file: `open()`, `tkinter.ttk`, `maxAge`, `--depth`, `READ_ONLY`,
 * `setup.cfg`.
 */
export function isName(text: string): boolean {
  const one = text.trim();
  if (/\w::\w/.test(one) || /^[\w~]+ ?<.*>$/.test(one)) return true;
  if (one === '' || /\s/.test(one)) return /^[\w.:$]+\(.*\)$/.test(one);
  if (/^--?\w/.test(one) || /[a-z][A-Z]/.test(one) || /\w[._:/\\$=<>(){}[\]&*|+]|[_:$=<>(){}[\]&*|+]\w/.test(one))
    return true;
  return /^[A-Z][A-Z0-9]{2,}$/.test(one);
}
