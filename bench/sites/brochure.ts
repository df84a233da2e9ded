/** A brochure in four languages, with hreflang, teasers and a language switch. */
import { a, html, list, moved, plain, sitemap, writer } from './site';
import type { GeneratedSite } from './site';

const HOST = 'www.alder-clinic.example';
const START = `https://${HOST}/`;
type Language = 'en' | 'de' | 'fr' | 'it';
const languages: Record<Language, { label: string; more: string; home: string }> = {
  en: { label: 'English', more: 'Read more', home: 'Welcome' },
  de: { label: 'Deutsch', more: 'Mehr erfahren', home: 'Willkommen' },
  fr: { label: 'Français', more: 'En savoir plus', home: 'Bienvenue' },
  it: { label: 'Italiano', more: 'Scopri di più', home: 'Benvenuti' },
};
const topics: Record<string, Record<Language, [slug: string, title: string]>> = {
  treatments: {
    en: ['treatments', 'Treatments'],
    de: ['behandlungen', 'Behandlungen'],
    fr: ['soins', 'Soins'],
    it: ['cure', 'Cure'],
  },
  knee: {
    en: ['treatments/knee', 'Knee pain'],
    de: ['behandlungen/knie', 'Knieschmerzen'],
    fr: ['soins/genou', 'Douleurs du genou'],
    it: ['cure/ginocchio', 'Dolori al ginocchio'],
  },
  back: {
    en: ['treatments/back', 'Back pain'],
    de: ['behandlungen/ruecken', 'Rückenschmerzen'],
    fr: ['soins/dos', 'Mal de dos'],
    it: ['cure/schiena', 'Mal di schiena'],
  },
  sleep: {
    en: ['treatments/sleep', 'Sleep'],
    de: ['behandlungen/schlaf', 'Schlaf'],
    fr: ['soins/sommeil', 'Sommeil'],
    it: ['cure/sonno', 'Sonno'],
  },
  team: {
    en: ['team', 'Our team'],
    de: ['team', 'Unser Team'],
    fr: ['equipe', 'Notre équipe'],
    it: ['squadra', 'La nostra squadra'],
  },
  house: { en: ['house', 'The house'], de: ['haus', 'Das Haus'], fr: ['maison', 'La maison'], it: ['casa', 'La casa'] },
  prices: { en: ['prices', 'Prices'], de: ['preise', 'Preise'], fr: ['tarifs', 'Tarifs'], it: ['prezzi', 'Prezzi'] },
  way: {
    en: ['how-to-get-here', 'How to get here'],
    de: ['anfahrt', 'Anfahrt'],
    fr: ['acces', 'Accès'],
    it: ['come-arrivare', 'Come arrivare'],
  },
  contact: {
    en: ['contact', 'Contact'],
    de: ['kontakt', 'Kontakt'],
    fr: ['contact', 'Contact'],
    it: ['contatti', 'Contatti'],
  },
};
const menu = ['treatments', 'team', 'house', 'prices', 'contact'];

const writers: Record<Language, ReturnType<typeof writer>> = {
  en: writer(
    1,
    [
      'Our clinic lies above the lake, ten minutes from {place}.',
      'The first talk takes {time} and is free.',
      'Please bring {thing} when you come.',
      'Behind the house a path leads to {place}.',
      'Most guests stay for {time}.',
      'We cook with what {place} gives.',
      'The rooms look out on {place}.',
    ].map((text) => text.replace('Please bring', 'Bring')),
    {
      place: ['the station', 'the alder wood', 'the old mill', 'the shore'],
      time: ['half an hour', 'two weeks', 'a weekend', 'nine days'],
      thing: ['your papers', 'firm shoes', 'a list of your medicines'],
    },
  ),
  de: writer(
    2,
    [
      'Unser Haus liegt über dem See, zehn Minuten von {place} entfernt.',
      'Das erste Gespräch dauert {time} und kostet nichts.',
      'Bringen Sie {thing} mit.',
      'Hinter dem Haus führt ein Weg zu {place}.',
      'Die meisten Gäste bleiben {time}.',
      'Die Zimmer blicken auf {place}.',
    ],
    {
      place: ['dem Bahnhof', 'dem Erlenwald', 'der alten Mühle'],
      time: ['eine halbe Stunde', 'zwei Wochen', 'neun Tage'],
      thing: ['Ihre Unterlagen', 'feste Schuhe'],
    },
  ),
  fr: writer(
    3,
    [
      'Notre maison domine le lac, à dix minutes de {place}.',
      'Le premier entretien dure {time} et ne coûte rien.',
      'Apportez {thing}.',
      'Derrière la maison, un sentier mène vers {place}.',
      'La plupart des hôtes restent {time}.',
      'Les chambres donnent sur {place}.',
    ],
    {
      place: ['la gare', 'la forêt d’aulnes', 'le vieux moulin'],
      time: ['une demi-heure', 'deux semaines', 'neuf jours'],
      thing: ['vos papiers', 'de bonnes chaussures'],
    },
  ),
  it: writer(
    4,
    [
      'La nostra casa domina il lago, a dieci minuti da {place}.',
      'Il primo colloquio dura {time} e non costa nulla.',
      'Porti con sé {thing}.',
      'Dietro la casa un sentiero porta verso {place}.',
      'La maggior parte degli ospiti resta {time}.',
      'Le camere guardano su {place}.',
    ],
    {
      place: ['la stazione', 'il bosco di ontani', 'il vecchio mulino'],
      time: ['mezz’ora', 'due settimane', 'nove giorni'],
      thing: ['i suoi documenti', 'scarpe robuste'],
    },
  ),
};

const pathOf = (topic: string | null, language: Language) =>
  topic ? `/${language}/${topics[topic][language][0]}/` : `/${language}/`;
const all = Object.keys(languages) as Language[];

export function brochure(): GeneratedSite {
  const answers: GeneratedSite['answers'] = new Map();
  const put = (path: string, answer: ReturnType<typeof html>) => answers.set(HOST + path, answer);
  for (const language of all)
    for (const topic of [null, ...Object.keys(topics)]) {
      const { more, home } = languages[language];
      const title = topic ? topics[topic][language][1] : home;
      // The Italian page on sleep names no other edition.
      const named = topic === 'sleep' && language === 'it' ? [] : all;
      const declared = named
        .map(
          (other) =>
            `<link rel="alternate" hreflang="${topic === 'prices' && other === 'en' ? 'en-UK' : other}" href="${START.slice(0, -1)}${pathOf(topic, other)}">`,
        )
        .join('');
      const write = writers[language];
      const item = (key: string) => a(pathOf(key, language), topics[key][language][1]);
      const teaser = (key: string) =>
        `<div><h3>${topics[key][language][1]}</h3>${write(1)}${a(pathOf(key, language), more)}</div>`;
      const body =
        topic === null
          ? `${write(4)}${['knee', 'back', 'sleep', 'house'].map(teaser).join('\n')}<p>${a(pathOf('way', language), topics.way[language][1])}</p>`
          : topic === 'treatments'
            ? `${write(3)}${['knee', 'back', 'sleep'].map(teaser).join('\n')}`
            : topic === 'contact' && language === 'fr'
              ? `${write(4)}<p>${a(pathOf('prices', 'fr'), 'Nos recettes de cuisine')}</p>`
              : `${write(5)}${write(4)}<p>${item('contact')}</p>`;
      put(
        pathOf(topic, language),
        html(`<!doctype html><html lang="${language}"><head><meta charset="utf-8"><title>${title} – Alder Clinic</title>${declared}<link rel="canonical" href="${START.slice(0, -1)}${pathOf(topic, language)}"></head><body>
<header><a href="/${language}/"><img src="/logo.svg" alt="Alder Clinic"></a><nav>${list(menu.map(item))}</nav>
<ul class="languages">${all.map((other) => `<li>${a(pathOf(topic, other), languages[other].label)}</li>`).join('')}</ul></header>
<main><h1>${title}</h1>${body}</main><footer><p>${a('https://www.lake-region.example/', 'www.lake-region.example')} ${a('/en/imprint', 'Imprint')}</p></footer></body></html>`),
      );
    }
  put('/', moved('/en/', 302));
  put(
    '/en/imprint',
    html(
      '<!doctype html><html lang="en"><head><title>Imprint – Alder Clinic</title></head><body><main><h1>Imprint</h1><p>Alder Clinic, above the lake.</p></main></body></html>',
    ),
  );
  put('/robots.txt', plain(`User-agent: *\nDisallow:\n\nSitemap: ${START}sitemap.xml\n`));
  put(
    '/sitemap.xml',
    sitemap(
      all.flatMap((language) =>
        [null, ...Object.keys(topics)].map((topic) => START.slice(0, -1) + pathOf(topic, language)),
      ),
    ),
  );
  return { name: 'brochure', start: START, hosts: [HOST], answers };
}
