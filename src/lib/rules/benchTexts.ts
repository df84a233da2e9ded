/** The texts of the robots bench. */
import type { RobotsExplanation } from '$core/robots';
import { ruleText } from '$core/messages';
import { counted, number, unanswered } from '../shell/words';

const group = ({ group, groupLines }: RobotsExplanation) =>
  group === null ? 'no group holds for this crawler' : `the group “${group}” holds (line ${groupLines.join(', ')})`;

export const benchTexts = {
  answered: (status: number | null, size: string, redirects: number) =>
    status === null
      ? 'No answer'
      : status < 300
        ? `Answered ${status}, ${size}${redirects ? `, after ${counted(redirects, 'redirect')}` : ''}`
        : `Answered ${status}: there are no rules, and everything is open`,
  fetchAgain: 'Fetch again',
  fetching: 'Fetching …',
  liveIsDraft: 'The live file is what you have drafted.',
  liveIsSame: 'The live file is still the one of this crawl.',
  liveIsOther: 'The live file has changed since this crawl.',
  loadLive: 'Load it into the draft',
  crawler: 'Crawler',
  fetched: 'As it was fetched',
  fetchedName: 'robots.txt as it was fetched',
  draft: 'Draft',
  reset: 'Start anew',
  download: 'Download',
  parts: 'What the draft changes',
  part: { change: 'What changes', line: 'This rule', test: 'Test and compose', versions: 'Versions' },
  notLoaded:
    'The addresses of the crawl could not be loaded. Load the page again; the draft can be saved under Versions.',
  notJudged: 'The draft could not be judged. Load the page again; the draft can be saved under Versions.',
  notWorkedOut: 'What the draft costs in routes and share could not be worked out. Load the page again.',
  judging: 'Judging the addresses of the crawl …',
  workingOut: 'Working out routes and share …',
  changes: { closed: 'Newly closed', opened: 'Newly opened', still: 'Still closed' },
  costs: {
    indexable_lost: 'Indexable pages lost',
    indexable_won: 'Indexable pages won',
    routes_lost: 'Open pages that lose their route',
    listed_closed: 'Listed in sitemaps, then closed',
    share_lost: 'Share that indexable pages lose',
  },
  bySection: 'By section',
  closedOpened: (closed: number, opened: number) =>
    [closed && `−${number(closed)}`, opened && `+${number(opened)}`].filter(Boolean).join(' '),
  lists: { closed: 'Newly closed', opened: 'Newly opened', routes: 'Lose their route' },
  showFirst: (addresses: number) => `Show ${number(addresses)}`,
  andMore: (more: number) => `and ${number(more)} more`,
  putTheCursor: 'Put the cursor on a rule of the draft to see the addresses it decides.',
  decides: (line: number, addresses: number) =>
    addresses
      ? `Line ${line} decides ${counted(addresses, 'address', 'addresses')}:`
      : `Line ${line} decides no address that this crawl knows.`,
  addresses: 'Addresses or paths to test, one per line',
  takeSelected: 'Take the pages selected below',
  takePicked: (picked: number) => `Take the ${counted(picked, 'row', 'rows')} picked below`,
  takeMeans: (most: number) => `At most ${most} of the list below the picture; rows are picked by their boxes`,
  tookFirst: (taken: number, of: number) => `The first ${taken} of ${number(of)} pages were taken.`,
  notTaken: 'The selected pages could not be read. Correct the selection, then try again.',
  compose: 'Compose a rule that closes them',
  choice: {
    picked: (addresses: number) => `${counted(addresses, 'address', 'addresses')}, as given`,
    kind: (addresses: number) => `${counted(addresses, 'address', 'addresses')}: all that differ in numbers only`,
    folders: (addresses: number) => `${counted(addresses, 'address', 'addresses')}: all that is in these folders`,
  },
  nothingToCompose: 'None of these addresses is on this host.',
  disallow: (path: string) => `Disallow: ${path}`,
  composedCloses: (closes: number, also: number) =>
    `closes ${number(closes)} of them${also ? ` and ${counted(also, 'other address', 'other addresses')}` : ' and nothing else'}`,
  addToDraft: 'Add to the draft',
  noAddress: 'This is not a valid address.',
  open: 'Open:',
  closed: 'Closed:',
  why: (found: RobotsExplanation): string => {
    const [first, second] = found.matching;
    switch (found.why) {
      case 'robots_file':
        return 'robots.txt itself is always open.';
      case 'no_group':
        return `${group(found)}.`;
      case 'no_rule':
        return `${group(found)}, and none of its ${counted(found.rules, 'rule')} matches.`;
      case 'only':
        return `${group(found)}, and one rule matches: ${ruleText(first.rule)}.`;
      case 'tie':
        return `${group(found)}; ${ruleText(first.rule)} and ${ruleText(second.rule)} are equally long, and allow wins.`;
      case 'longest':
        return `${group(found)}; the longest of ${found.matching.length} rules that match wins: ${ruleText(first.rule)}.`;
    }
  },
  alsoMatch: (lines: readonly number[]) => `Also matched by line ${lines.join(', ')}.`,
  versionName: 'Name of the version',
  versionNote: 'Note (optional)',
  tryInDraft: 'Try in the draft',
  tryInDraftTitle: 'Puts this file into the draft, so that all screens can be read with it',
  saveVersion: 'Save this version',
  saved: (name: string) => `“${name}” is saved for everybody who works on this site.`,
  notSaved: unanswered('The version could not be saved.'),
  notOpened: unanswered('The version could not be opened.'),
  removed: (name: string) => `“${name}” is deleted.`,
  notRemoved: unanswered('The version could not be deleted.'),
  openVersion: 'Open',
  compareVersion: 'Compare with the draft',
  removeVersion: 'Delete',
  noVersions: 'No version is saved yet.',
  compareWithFetched: 'Compare with the fetched one',
  differenceTo: (name: string) => `Draft against ${name}`,
  noDifference: 'Both are the same.',
  saveDifference: 'Save as a unified diff',
};
