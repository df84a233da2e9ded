import { counted, number } from '../shell/words';

export const planTexts = {
  heading: 'Plan for me',
  goal: 'What the plan is to reach',
  goals: {
    within: { label: 'Bring pages within', unit: 'clicks from the start', select: 'indexable and not paging' },
    text: {
      label: 'Links from running text, at least',
      unit: 'pages',
      select: 'indexable and (not reached or key)',
    },
    share: { label: 'Share of at least', unit: '× an even share', select: 'indexable and key' },
    links: { label: 'Links on a page, at most', unit: 'links', select: 'indexable' },
  },
  pages: 'For the pages',
  without: 'But not for',
  withoutExample: 'path starts "/news/"',
  links: 'New links on a page, at most',
  budget: 'Edits in all, at most',
  sections: 'only within sections',
  alike: 'only between pages alike in words',
  alikeMeans:
    'The page that gets the link has at least half of the words that name its target, the rare ones counting most',
  sentences: 'only where a sentence names the page',
  sentencesMeans: 'Each link comes with the sentence of running text that it is to stand in, and with its words',
  any: 'any',
  everyPage: 'every page',
  find: 'Find the fewest edits',
  finding: 'Looking for the fewest edits …',
  failed: 'The plan did not arrive. Is Edge Map still running?',
  nothing: 'Every page that the plan is about is as it should be already.',
  found: (n: number, pages: number) =>
    `${counted(n, 'edit')} for ${counted(pages, 'page')} that ${pages === 1 ? 'falls' : 'fall'} short`,
  fewest: (n: number) => `; no plan needs fewer than ${number(n)}`,
  missed: (n: number) => ` ${counted(n, 'page')} cannot be brought there within these limits.`,
  more: (n: number) => `and ${counted(n, 'edit')} more`,
  take: 'Take',
  takeAll: (n: number) => `Take all ${number(n)}`,
};
