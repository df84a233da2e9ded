import { findings, sampleOf } from '$core/findings';
import type { Occurrence } from '$core/findings';
import { sentence } from '$core/messages';
import { thousands } from '$core/numbers';
import { settingsSchema } from '$core/settings';
import { linkBlock, pageSource } from '$server/index';
import type { Crawl, Database } from '$server/index';
import { finishedCrawl } from './finished';
import { failure } from '$core/errors';

export interface SampleCall {
  crawl: number;
  /** The id of a finding, as in summary.json. */
  finding: string;
  n: number;
  seed: number;
  json: boolean;
}

/** The line of source that a link stands on, folded around it; null when the source is not kept. */
async function sourceLine(db: Database, row: Crawl, occurrence: Occurrence): Promise<string | null> {
  if (occurrence.over !== 'links' || occurrence.line === 0) return null;
  const { address, line, column } = occurrence;
  const source = await pageSource(db, row, address, [{ line, column }], line, 1);
  const runs = source?.lines.find(({ number }) => number === line)?.runs ?? [];
  return (
    runs
      .map(({ text, left }) => (left ? ' … ' : text))
      .join('')
      .trim() || null
  );
}

const BLOCK_LENGTH = 400;

/** The text of the block in which a link stands, as far as it can be shown; null when the source is not kept. */
async function blockText(db: Database, row: Crawl, occurrence: Occurrence): Promise<string | null> {
  if (occurrence.over !== 'links' || occurrence.line === 0) return null;
  const { address, line, column } = occurrence;
  const text = await linkBlock(db, row, address, { line, column });
  return text && text.length > BLOCK_LENGTH ? `${text.slice(0, BLOCK_LENGTH)} …` : text;
}

const fields = (occurrence: Occurrence): [string, string | number | null][] => {
  switch (occurrence.over) {
    case 'pages':
      return [...Object.entries(occurrence.facts), ['why', evidenceText(occurrence.evidence)] as const].map(
        ([name, value]) => [name, value === null ? null : String(value)],
      );
    case 'files':
      return [['evidence', sentence(occurrence.evidence)]];
    case 'links': {
      const { target, fragment, words, placement, above, title, h1, reason } = occurrence;
      return [
        ['words', words],
        ['target', fragment ? `${target}#${fragment}` : target],
        ['its title', title],
        ['its headings', h1],
        ['stands in', `${placement}: ${above}`],
        ['why', reason && sentence(reason)],
      ];
    }
  }
};

const evidenceText = (evidence: Record<string, unknown>) =>
  Object.entries(evidence)
    .map(([name, value]) => `${name} ${value === null ? 'unknown' : String(value)}`)
    .join(', ');

/** `edgemap sample`: random occurrences of a finding, each with what a person needs in order to judge it. */
export async function sampleCommand(db: Database, { crawl, finding: id, n, seed, json }: SampleCall): Promise<number> {
  const { row, snapshot } = await finishedCrawl(db, crawl);
  const sample = sampleOf(snapshot, id, settingsSchema.parse(row.settings), n, seed);
  if (!sample)
    throw failure(
      'usage',
      `There is no finding “${id}”. The findings are: ${findings.map(({ id }) => id).join(', ')}.`,
    );
  const { finding, all, occurrences } = sample;
  const seen = [];
  for (const one of occurrences)
    seen.push({ ...one, block: await blockText(db, row, one), source: await sourceLine(db, row, one) });
  if (json) {
    const { id, name, rule } = finding;
    process.stdout.write(
      `${JSON.stringify({ crawl, finding: id, name, rule, all, seed, occurrences: seen }, null, 2)}\n`,
    );
    return 0;
  }
  const lines = [`${finding.name}: ${occurrences.length} of ${thousands(all)}`, `Rule: ${finding.rule}`];
  for (const [i, one] of seen.entries()) {
    const line = one.over === 'pages' || !one.line ? '' : `, line ${one.line}`;
    lines.push('', `${i + 1}. ${one.address}${line}`);
    for (const [name, value] of [...fields(one), ['block', one.block] as const, ['source', one.source] as const])
      if (value !== null && value !== '') lines.push(`   ${name}: ${value}`);
  }
  process.stdout.write(`${lines.join('\n')}\n`);
  return 0;
}
