/**
 * A crawl as it was crawled, with the edits of the current draft, with what those change, or beside what those of an
 * earlier day predicted of it.
 */
export const versions = ['crawled', 'drafted', 'difference', 'predicted'] as const;
export type Version = (typeof versions)[number];

/** Where the screens of a crawl are. */
export const crawlPath = (site: number, crawl: number, version: Version = 'crawled') =>
  `/sites/${site}/crawls/${crawl}${version === 'crawled' ? '' : `-${version}`}`;

/** Reads how an address names a crawl, as `12` or `12-drafted`; null when it names none. */
export function readCrawlName(text: string): { id: number; version: Version } | null {
  const [, id, version = 'crawled'] = /^([1-9]\d{0,14})(?:-(drafted|difference|predicted))?$/.exec(text) ?? [];
  return id ? { id: Number(id), version: version as Version } : null;
}

interface Question {
  path: string;
  name: string;
  question: string;
  /** The first is shown when the address names none. */
  pictures: readonly { picture: string; label: string }[];
  /** Whether its screen has no list, in which the rows of a finding would stand. */
  withoutList?: true;
}

const reachPictures = [
  { picture: '', label: 'Depth' },
  { picture: 'no-route', label: 'No route' },
  { picture: 'gates', label: 'Gates' },
  { picture: 'traps', label: 'Traps' },
  { picture: 'readers', label: 'Readers' },
  { picture: 'meant', label: 'As meant' },
];
const flowPictures = [
  { picture: '', label: 'Share' },
  { picture: 'findings', label: 'Problems' },
  { picture: 'leaks', label: 'Leaks' },
  { picture: 'links', label: 'Section × section' },
  { picture: 'carried', label: 'Share between sections' },
];

const wordsPictures = [
  { picture: '', label: 'Anchor texts' },
  { picture: 'sections', label: 'Sections' },
  { picture: 'moves', label: 'Links to move' },
  { picture: 'places', label: 'Places to link from' },
  { picture: 'from', label: 'Links to add' },
  { picture: 'given', label: 'Your text' },
  { picture: 'search', label: 'Find words' },
];

const rollCallPictures = [
  { picture: '', label: 'Agreement' },
  { picture: 'folders', label: 'By folder' },
  { picture: 'sitemaps', label: 'Sitemaps' },
];

const rulesPictures = [
  { picture: '', label: 'Verdicts' },
  { picture: 'robots', label: 'robots.txt' },
  { picture: 'page-rules', label: 'Page rules' },
  { picture: 'canonicals', label: 'Canonicals' },
  { picture: 'variants', label: 'Variants' },
  { picture: 'hreflang', label: 'hreflang' },
  { picture: 'answers', label: 'Answer sheet' },
];

const changePictures = [
  { picture: '', label: 'Then and now' },
  { picture: 'pages', label: 'Pages' },
  { picture: 'links', label: 'Links' },
  { picture: 'findings', label: 'Findings' },
  { picture: 'timeline', label: 'Timeline' },
];

const mapsPictures = [
  { picture: '', label: 'Bands' },
  { picture: 'routes', label: 'Routes' },
  { picture: 'folders', label: 'Folders' },
  { picture: 'links', label: 'Links' },
];

/** The questions that are built, in the order of their keys. */
export const questions: readonly Question[] = [
  { path: 'overview', name: 'Overview', question: 'The site at a glance', pictures: [] },
  { path: 'reach', name: 'Reach', question: 'Can all be reached?', pictures: reachPictures },
  { path: 'roll-call', name: 'Roll call', question: 'Do the sources agree?', pictures: rollCallPictures },
  { path: 'rules', name: 'Rules', question: 'What may be indexed?', pictures: rulesPictures },
  { path: 'flow', name: 'Flow', question: 'Where does share go?', pictures: flowPictures },
  { path: 'words', name: 'Words', question: 'What do the links say?', pictures: wordsPictures, withoutList: true },
  { path: 'maps', name: 'Maps', question: 'What does it look like?', pictures: mapsPictures },
  { path: 'change', name: 'Change', question: 'What moved since?', pictures: changePictures },
  { path: 'draft', name: 'Draft', question: 'What if we changed it?', pictures: [] },
];

/** The pictures of a question. */
export const picturesOf = (path: string) => questions.find((question) => question.path === path)?.pictures ?? [];

interface FindingPlace {
  question: string;
  over: 'pages' | 'links' | 'files';
  select: string;
}

/** The screen on which a finding is looked at: that of its question, as far as it is built and has a list. */
export const screenOf = ({ question, over }: Pick<FindingPlace, 'question' | 'over'>) =>
  over === 'files'
    ? 'overview'
    : (questions.find(({ name, withoutList }) => name === question && !withoutList)?.path ??
      (over === 'links' ? 'flow' : 'reach'));

/** Where a finding is looked at: its selection, links by the edit that mends them. */
export function findingHref(base: string, finding: FindingPlace): string {
  const screen = screenOf(finding);
  if (finding.over === 'files') return `${base}/${screen}#files`;
  const query = new URLSearchParams({ ...(finding.over === 'links' ? { list: 'edits' } : {}), select: finding.select });
  return `${base}/${screen}?${query}`;
}
