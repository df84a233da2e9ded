/**
 * What an edit of a draft takes: `draft FOLDER` reads a generated site as the server does (bench/change.ts makes it),
 * makes an edit of each kind, and plans new links. A whole analysis beside it.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { analyse } from '../src/core/analysis';
import { draftOf, editOf } from '../src/core/draft';
import type { Edit } from '../src/core/draft';
import { planFor } from '../src/core/plan';
import type { PlanCall } from '../src/core/plan';
import { evaluate, parseSelection } from '../src/core/selection';
import { settingsSchema } from '../src/core/settings';
import { addressAt, decodeSnapshot, REPORT_PART } from '../src/core/snapshot';
import { viewOf } from '../src/core/view';
import type { View } from '../src/core/view';

const [folder] = process.argv.slice(2);
const names = readdirSync(folder).filter((name) => name !== REPORT_PART);
const read = () => decodeSnapshot(new Map(names.map((name) => [name, readFileSync(join(folder, name))])), names);
const view = viewOf(read());
const at = (page: number) => addressAt(view, page);
const settings = settingsSchema.parse({ start: at(view.starts[0]) });

/** Best of some times, in seconds. */
function timed<T>(run: () => T, times = 3): { value: T; seconds: number } {
  let best = Infinity;
  let value: T | undefined;
  for (let i = 0; i < times; i++) {
    const start = performance.now();
    value = run();
    best = Math.min(best, (performance.now() - start) / 1000);
  }
  return { value: value!, seconds: best };
}

const n = (value: number) => value.toLocaleString('en');
console.log(`${n(view.count)} pages, ${n(view.links.target.length)} links`);
const whole = timed(() => analyse(view, settings), 1).seconds;
console.log(`  whole analysis ${whole.toFixed(2)} s`);

/** What is repainted first. */
function numbers(drafted: View): number {
  const columns = (['depth', 'reach', 'verdict', 'pages_linking', 'links_in'] as const).map(drafted.column);
  return columns.reduce((sum, column) => sum + column[drafted.count - 1], 0);
}

const edits: Record<string, Edit> = {
  'add a link': editOf('add_link', at(5), { target: at(view.count - 1), anchor: 'Trams' }),
  'remove a link': editOf('remove_link', at(view.starts[0]), {
    target: at(view.links.target[view.links.offsets[view.starts[0]]]),
  }),
  noindex: editOf('noindex', at(7)),
  redirect: editOf('redirect', at(9), { target: at(11) }),
  'remove a page': editOf('remove_page', at(13), { value: '410' }),
  'add a page': editOf('add_page', `${at(5)}-new`, { value: 'New' }),
  'remove a link of every page': editOf('remove_link', '*', { target: at(1), placement: 'footer' }),
};
for (const [name, edit] of Object.entries(edits)) {
  const first = timed(() => {
    const drafted = draftOf(view, [edit], settings);
    numbers(drafted.view);
    return drafted;
  });
  const rest = timed(() => first.value.view.column('share')[0], 1).seconds;
  console.log(
    `  ${name.padEnd(28)} numbers ${first.seconds.toFixed(3)} s, ${(first.seconds / whole).toFixed(2)} of a whole analysis; share ${rest.toFixed(3)} s more${first.value.refusals[0] ? `; refused: ${first.value.refusals[0].code}` : ''}`,
  );
}

const wanted = parseSelection('indexable');
const calls: Omit<PlanCall, 'wanted'>[] = [
  { goal: 'within', amount: 3 },
  { goal: 'within', amount: 3, newLinks: 5 },
  { goal: 'text', amount: 3, newLinks: 5 },
  { goal: 'share', amount: 0.5, newLinks: 5 },
  { goal: 'links', amount: 100 },
];
if (wanted.ok)
  for (const call of calls) {
    const plan = timed(() => planFor(view, { ...call, wanted: evaluate(view, wanted.selection) }, settings), 1);
    const { proposals, short, missed, fewest } = plan.value;
    const limit = call.newLinks ? `, ${call.newLinks} new links a page` : '';
    console.log(
      `  plan ${call.goal} ${call.amount}${limit}: ${n(proposals.length)} edits for ${n(short)} pages, ` +
        `at least ${n(fewest)}, ${n(missed)} missed, in ${plan.seconds.toFixed(2)} s`,
    );
  }
