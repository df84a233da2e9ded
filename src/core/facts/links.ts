/** The one table of link facts: what a link can be asked, listed and grouped by. */
import { linkElements, linkFaults, linkKinds, placements } from '../links';
import { base, derived } from './fact';
import { verdicts } from './values';

export const linkFacts = {
  source: base.text('On page', 'The page that the link is on.', { as: 'address' }),
  target: base.text('Target', 'The address that the link leads to, without its fragment.', { as: 'address' }),
  anchor: base.text(
    'Anchor',
    'Anchor text: the text of the link, else of its image, else its aria-label, else its title.',
  ),
  placement: base.choice('Placement', 'The landmark that the link is in; "none" for a link in no landmark.', {
    values: placements,
  }),
  target_verdict: derived.choice(
    'Verdict of the target',
    'Verdict of the page that the link leads to; unknown off the site.',
    { values: verdicts, as: 'verdict' },
  ),
  target_status: base.number(
    'Status of the target',
    'HTTP status of what the link leads to, external addresses included if they were checked.',
  ),
  ends_at: derived.text('Ends at', 'Where redirects and canonicals of the target lead, if that is another page.', {
    as: 'address',
  }),
  faults: derived.set('Faults', 'What is wrong with the link.', { values: linkFaults }),
  kind: base.choice('Kind', 'A click link, a redirect, a declared relation such as canonical, or a resource.', {
    values: linkKinds,
  }),
  followed: base.flag('Followed', 'Whether a search crawler follows it: neither the link nor its page says nofollow.'),
  rel: base.text('Rel', 'The rel attribute in lower case.'),
  line: base.number('Line', 'Line of the link in the HTML as received; unknown for links that no document holds.', {
    sort: 'low',
  }),
  column: base.number('Column', 'Column of the link in its line, counted in bytes.', { sort: 'low' }),
  element: base.choice('Element', 'The element that the link is; http for the head of the answer.', {
    values: linkElements,
  }),
  above: base.text('Elements above', 'Names and classes of the elements around the link, outermost first.', {
    as: 'code',
  }),
  fragment: base.text('Fragment', 'The fragment of the href, without its #.'),
  external: base.flag('External', 'Whether the link leads off the site.'),
  self: base.flag('To its own page', 'Whether the link leads to the page it is on.'),
  relative: base.flag('Written without host', 'Whether a canonical is written without scheme and host.'),
  source_share: derived.ratio('Share of the page', 'Share of the page that the link is on.', { unit: '×' }),
};
export type LinkFactName = keyof typeof linkFacts;
