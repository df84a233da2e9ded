import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { addressMap, classCounts, comparePages, compareSettings, linkChangesOf } from '$core/compare';
import type { MapRule } from '$core/compare';
import { pageClasses } from '$core/facts';
import { compareFindings } from '$core/findings';
import { changesCsv, findingChangesCsv, linkChangesCsv } from '$core/formats';
import { thousands } from '$core/numbers';
import { settingsSchema } from '$core/settings';
import { reportedIn } from '$server/index';
import type { Crawl, Database } from '$server/index';
import { makeFolder, writePieces } from './export';
import { finishedCrawl } from './finished';

export interface CompareCall {
  old: number;
  fresh: number;
  out: string;
  /** Hosts, or folders of them, that count as others. */
  map: readonly MapRule[];
}

const described = ({ id, settings, state, limited, startedAt, endedAt }: Crawl) => ({
  crawl: id,
  start: settings.start,
  state,
  limited,
  startedAt,
  endedAt,
});

/** `edgemap compare`: writes what moved from one crawl to another. */
export async function compareCommand(db: Database, { old, fresh, out, map }: CompareCall): Promise<number> {
  const [before, after] = [await finishedCrawl(db, old), await finishedCrawl(db, fresh)];
  await makeFolder(out);
  const comparison = comparePages(before.snapshot, after.snapshot, { map: addressMap(map) });
  const links = linkChangesOf(comparison);
  const options = [before, after].map(({ row }) => settingsSchema.parse(row.settings));
  const isReported = await reportedIn(db, [before.row, after.row]);
  const findings = compareFindings(comparison, [options[0], options[1]], isReported);
  await writePieces(join(out, 'changes.csv'), changesCsv(comparison));
  await writePieces(join(out, 'link_changes.csv'), linkChangesCsv(comparison, links));
  await writePieces(join(out, 'finding_changes.csv'), findingChangesCsv(findings));
  const counts = classCounts(comparison);
  const sum = (of: 'new' | 'solved' | 'remaining' | 'gone') => findings.reduce((all, one) => all + one[of], 0);
  const summary = {
    old: described(before.row),
    new: described(after.row),
    pages: counts,
    links: { added: links.added.length, removed: links.removed.length, edits: links.edits },
    findings: { new: sum('new'), solved: sum('solved'), remaining: sum('remaining'), gone: sum('gone') },
    settings: compareSettings(options[0], options[1]),
  };
  await writeFile(join(out, 'summary.json'), `${JSON.stringify(summary, null, 2)}\n`);
  const cut = [before, after].filter(({ row }) => row.limited).map(({ row }) => row.id);
  if (cut.length)
    console.error(
      `Crawl ${cut.join(' and crawl ')} ended at a limit: pages that only the other knows may only not have been fetched.`,
    );
  const told = pageClasses
    .filter((change) => change !== 'same')
    .map((change) => `${thousands(counts[change])} ${change}`);
  console.error(`${told.join(', ')}. Written to ${out}.`);
  return 0;
}
