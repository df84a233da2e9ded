/** Early warnings: a site that is closed to its crawl is told from its first pages. */
import type { Message } from '../messages';
import type { FoundFacts } from '../snapshot';
import { isRedirectStatus } from '../verdict';

type Outcome = Pick<FoundFacts, 'status' | 'error' | 'robotsRule' | 'html' | 'noindex' | 'fetchedAt'> & {
  redirectTo: string | null;
};

/** A path segment that names a login as a word of its own: /lessons/ and /authors/ name none. */
const loginSegment =
  /^(.+[-_.])?(log[-_]?in|log[-_]?on|sign[-_]?in|sign[-_]?on|auth|authenticate|oauth2?|sso)([-_.].+)?$/i;
const namesLogin = (address: string) =>
  new URL(address).pathname.split('/').some((segment) => loginSegment.test(segment));
const isLogin = ({ status, redirectTo }: Outcome) =>
  status !== null && isRedirectStatus(status) && redirectTo !== null && namesLogin(redirectTo);

/** Under which names the outcome of one address is counted. */
export function outcomesOf(page: Outcome): string[] {
  const kinds: string[] = [];
  if (page.robotsRule !== null) kinds.push('blocked');
  if (page.error) kinds.push(`error ${page.error}`);
  if (page.status !== null) kinds.push(`status ${page.status}`);
  if (page.html) kinds.push('html');
  if (page.html && page.noindex) kinds.push('noindex');
  if (isLogin(page)) kinds.push('login');
  return kinds.length ? kinds : ['other'];
}

/** One of the newest pages, as evidence. */
export interface Example extends Outcome {
  address: string;
  /** All page-level rules with where they stand. */
  pageRules: string | null;
}

/** So many addresses must have been met before anything is said. */
const ENOUGH = 5;
/** The part that must have come out alike. */
const NEARLY_ALL = 0.9;

/**
 * Says when a site is closed to its crawl, with the file, line and rule at fault.
 * @param tallies how many addresses came out how, by the names of {@link outcomesOf}
 * @param done addresses done
 * @param examples some of them
 * @returns null while nothing is wrong, or too little is known
 */
export function closedSite(
  tallies: ReadonlyMap<string, number>,
  done: number,
  examples: readonly Example[],
): Message | null {
  if (done < ENOUGH) return null;
  const of = (kind: string) => tallies.get(kind) ?? 0;
  const nearlyAll = (n: number, whole: number) => whole >= ENOUGH && n >= NEARLY_ALL * whole;
  // The start page itself had to be open for the crawl to begin.
  if (nearlyAll(of('blocked'), done - 1)) {
    const example = examples.find(({ robotsRule }) => robotsRule !== null);
    const origin = example ? new URL(example.address).origin : null;
    return { code: 'mostly_blocked', blocked: of('blocked'), done, origin, rule: example?.robotsRule ?? null };
  }
  if (nearlyAll(of('noindex'), of('html'))) {
    const example = examples.find(({ noindex }) => noindex);
    return {
      code: 'mostly_noindex',
      all: of('noindex') === of('html'),
      address: example?.address ?? null,
      rules: example?.pageRules ?? null,
    };
  }
  if (nearlyAll(of('login'), done - 1))
    return { code: 'mostly_login', target: examples.find(isLogin)?.redirectTo ?? null };
  const status = ([401, 403, 429] as const).find((status) => nearlyAll(of(`status ${status}`), done - 1));
  return status ? { code: 'mostly_status', status } : null;
}
