import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { draftOf, readEdits } from '$core/draft';
import type { Edit } from '$core/draft';
import { failure } from '$core/errors';
import { draftCsv, editsCsv, summarize } from '$core/formats';
import { sentence } from '$core/messages';
import type { Message } from '$core/messages';
import { thousands } from '$core/numbers';
import { planFor } from '$core/plan';
import { settingsSchema } from '$core/settings';
import type { ShareModel } from '$core/share';
import { withPlainShare } from '$core/view';
import type { View } from '$core/view';
import type { Database } from '$server/index';
import { makeFolder, selected, writePieces } from './export';
import { crawlFor, finishedCrawl } from './finished';
import type { ViewOptions } from './options';

export interface DraftCall {
  crawl: number;
  /** File of edits. */
  file: string;
  out: string;
  shareModel: ShareModel;
}

/** @throws usage which says every line that cannot be applied, the first of them at least */
function refuse(file: string, faults: readonly { line: number; fault: Message }[]): void {
  const told = faults.slice(0, MOST_TOLD).map(({ line, fault }) => `${file}, line ${line}: ${sentence(fault)}`);
  const more = faults.length - told.length;
  if (told.length)
    throw failure('usage', `${told.join('\n')}${more ? `\n${thousands(more)} more.` : ''}`, 'Nothing was written.');
}
const MOST_TOLD = 20;

async function editsIn(file: string) {
  const text = await readFile(file, 'utf8').catch((error: Error) => {
    throw failure('usage', `The edits cannot be read: ${error.message}`);
  });
  const { edits, faults } = readEdits(text);
  refuse(file, faults);
  return edits;
}

const byModel = (view: View, model: ShareModel) => (model === 'plain' ? withPlainShare(view).view : view);

/** `edgemap draft`: writes what edits would change of a crawl. */
export async function draftCommand(db: Database, { crawl, file, out, shareModel }: DraftCall): Promise<number> {
  const given = await editsIn(file);
  const { row, snapshot } = await finishedCrawl(db, crawl, 'words');
  const edits: Edit[] = given.map(({ edit }) => edit);
  const drafted = draftOf(snapshot, edits, settingsSchema.parse(row.settings));
  refuse(
    file,
    drafted.refusals.flatMap((fault, i) => (fault ? [{ line: given[i].line, fault }] : [])),
  );
  await makeFolder(out);
  const [before, after] = [byModel(snapshot, shareModel), byModel(drafted.view, shareModel)];
  await writePieces(join(out, 'draft.csv'), draftCsv(before, after));
  const summary = {
    crawl,
    start: row.settings.start,
    share_model: shareModel,
    edits: edits.length,
    before: summarize(before),
    after: summarize(after),
  };
  await writeFile(join(out, 'summary.json'), `${JSON.stringify(summary, null, 2)}\n`);
  console.error(
    `${thousands(edits.length)} ${edits.length === 1 ? 'edit' : 'edits'} applied to crawl ${crawl}. Written to ${out}.`,
  );
  return 0;
}

export interface PlanCommandCall {
  crawl: number;
  /** Clicks from the start. */
  within: number;
  /** How many new links a page may get; null for as many as it takes. */
  maxNewLinks: number | null;
  select: ViewOptions['select'];
  /** File for the edits. */
  out: string;
}

const links = (n: number) => `${thousands(n)} new ${n === 1 ? 'link' : 'links'}`;
const pages = (n: number, are: string, is: string) => `${thousands(n)} ${n === 1 ? `page ${is}` : `pages ${are}`}`;

/** `edgemap plan`: writes the fewest new links that bring pages within some clicks of the start. */
export async function planCommand(db: Database, call: PlanCommandCall): Promise<number> {
  const { row, view } = await crawlFor(db, call.crawl, call, 'words');
  const wanted = selected(view, call.select);
  const asked = { goal: 'within', amount: call.within, wanted, newLinks: call.maxNewLinks ?? undefined } as const;
  const plan = planFor(view, asked, row.settings);
  await writePieces(call.out, editsCsv(plan.proposals.map(({ edit }) => edit))).catch((error: Error) => {
    throw failure('usage', `--out: the file cannot be written: ${error.message}`);
  });
  const told = [`${pages(plan.short, 'are', 'is')} too deep. ${links(plan.proposals.length)} written to ${call.out}.`];
  if (plan.fewest) told.push(`No plan needs fewer than ${thousands(plan.fewest)}.`);
  if (plan.missed) told.push(`${pages(plan.missed, 'cannot', 'cannot')} be brought near enough within these limits.`);
  console.error(told.join(' '));
  return 0;
}
