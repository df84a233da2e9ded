import { fetchErrors, redirectStates, unreadableReasons, unvisitedReasons, verdicts } from '../facts';
import type { RobotsRule } from '../facts';
import type { Message } from '../messages';
import { numberAt, textAt } from '../snapshot';
import type { Snapshot } from '../snapshot';

/** The robots.txt rule that closes a page; null when none does. */
export function robotsRuleAt(snapshot: Snapshot, page: number): RobotsRule | null {
  const text = textAt(snapshot, 'robots_rule', page);
  if (text === null) return null;
  const group = textAt(snapshot, 'robots_group', page) ?? '';
  const line = numberAt(snapshot, 'robots_line', page) ?? 0;
  if (text === 'unreadable') return { line, directive: text, path: '', group };
  return { line, directive: text.startsWith('Allow') ? 'allow' : 'disallow', path: text.replace(/^\w+: /, ''), group };
}

function redirectReason(snapshot: Snapshot, page: number): Message {
  const state = snapshot.column('redirect_state');
  const hops = snapshot.column('redirect_hops');
  const status = snapshot.column('status');
  switch (redirectStates[state[page]]) {
    case 'nowhere':
      return { code: 'redirect_nowhere', status: status[page] };
    case 'loop':
      return { code: 'redirect_loop', hops: hops[page] };
    default:
      return { code: 'redirect_end', address: textAt(snapshot, 'redirect_end', page) ?? '', hops: hops[page] };
  }
}

/** The evidence for the verdict on a page, as a code with parameters: the fact `verdict_reason`. */
export function verdictReason(snapshot: Snapshot, page: number): Message {
  const { column } = snapshot;
  const tries = Math.max(1, column('tries')[page]);
  switch (verdicts[column('verdict')[page]]) {
    case 'unvisited':
      return { code: 'unvisited', reason: unvisitedReasons[column('unvisited_reason')[page]] };
    case 'blocked': {
      const rule = robotsRuleAt(snapshot, page)!;
      return rule.directive === 'unreadable' ? { code: 'robots_unreadable' } : { code: 'blocked', rule };
    }
    case 'unanswered': {
      const unreadable = unreadableReasons[column('unreadable_reason')[page]];
      if (unreadable) return { code: 'unreadable', reason: unreadable };
      return { code: 'error', error: fetchErrors[column('error')[page]] ?? 'network', tries };
    }
    case 'failing':
    case 'broken':
      return { code: 'status', status: column('status')[page], tries };
    case 'redirect':
      return redirectReason(snapshot, page);
    case 'not_html': {
      const type = textAt(snapshot, 'content_type', page);
      return type === null
        ? { code: 'no_content_type', status: column('status')[page] }
        : { code: 'content_type', type };
    }
    case 'noindex':
      return { code: 'directives', robots: textAt(snapshot, 'robots', page) ?? '' };
    case 'canonicalised':
      return { code: 'canonical', address: textAt(snapshot, 'canonical', page) ?? '' };
    case 'indexable':
      return { code: 'nothing' };
  }
}
