/** Early warnings: a site that is closed to its crawl is told from its first pages. */
import { thousands } from '../numbers';
import { isRedirectStatus } from '../verdict';
import type { FoundFacts } from '../snapshot';

type Outcome = Pick<FoundFacts, 'status' | 'error' | 'blockedBy' | 'html' | 'noindex' | 'fetchedAt'> & {
  redirectTo: string | null;
};

const loginPath = /\/[^/?#]*(log-?in|sign-?in|logon|signon|auth|sso|session)[^/?#]*(\/|$|\?)/i;
const isLogin = ({ status, redirectTo }: Outcome) =>
  status !== null && isRedirectStatus(status) && redirectTo !== null && loginPath.test(new URL(redirectTo).pathname);

/** Under which names the outcome of one address is counted. */
export function outcomesOf(page: Outcome): string[] {
  const kinds: string[] = [];
  if (page.blockedBy !== null) kinds.push('blocked');
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
  directives: string | null;
}

/** So many addresses must have been met before anything is said. */
const ENOUGH = 5;
/** The part that must have come out alike. */
const NEARLY_ALL = 0.9;

/**
 * Says in plain words when a site is closed to its crawl, with the file, line and rule at fault.
 * @param tallies how many addresses came out how, by the names of {@link outcomesOf}
 * @param done addresses done
 * @param examples some of them
 * @returns null while nothing is wrong, or too little is known
 */
export function closedSite(
  tallies: ReadonlyMap<string, number>,
  done: number,
  examples: readonly Example[],
): string | null {
  if (done < ENOUGH) return null;
  const of = (kind: string) => tallies.get(kind) ?? 0;
  const nearlyAll = (n: number, whole: number) => whole >= ENOUGH && n >= NEARLY_ALL * whole;
  // The start page itself had to be open for the crawl to begin.
  if (nearlyAll(of('blocked'), done - 1)) {
    const example = examples.find(({ blockedBy }) => blockedBy !== null);
    const where = example ? ` ${new URL(example.address).origin}/robots.txt says: ${example.blockedBy}.` : '';
    return `robots.txt closes ${thousands(of('blocked'))} of the ${thousands(done)} addresses met so far.${where} Have the rule changed, or look past robots rules.`;
  }
  if (nearlyAll(of('noindex'), of('html'))) {
    const example = examples.find(({ noindex }) => noindex);
    const where = example ? ` ${example.address} says: ${example.directives ?? 'noindex'}.` : '';
    return `${of('noindex') === of('html') ? 'Every page' : 'Nearly every page'} read so far says noindex: nothing of the site may be indexed.${where}`;
  }
  if (nearlyAll(of('login'), done - 1)) {
    const target = examples.find(isLogin)?.redirectTo;
    return `Nearly every address redirects to a login${target ? `, ${target}` : ''}. Give cookies, headers or a password in the settings.`;
  }
  for (const status of [401, 403, 429])
    if (nearlyAll(of(`status ${status}`), done - 1)) {
      const remedy =
        status === 429
          ? 'Ask fewer requests a second.'
          : status === 401
            ? 'Give a user and password in the settings.'
            : 'The server may refuse this crawler by name or address: try another agent string, or ask its operator.';
      return `Nearly every answer is ${status}. ${remedy}`;
    }
  return null;
}
