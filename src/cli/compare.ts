import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { compareFindings, compareLinks, comparePages, compareSettings, pageClasses } from '$core/compare';
import type { AddressMap } from '$core/compare';
import { changesCsv, findingChangesCsv, linkChangesCsv } from '$core/formats';
import { thousands } from '$core/numbers';
import { settingsSchema } from '$core/settings';
import { addressParts } from '$core/url';
import type { Crawl, Database } from '$server/index';
import { finishedCrawl, makeFolder, writePieces } from './export';

export interface CompareCall {
  old: number;
  fresh: number;
  out: string;
  /** Hosts that count as others. */
  hosts: ReadonlyMap<string, string>;
}

/** Puts another host in place of that of an address; its scheme stays. */
function hostMap(hosts: ReadonlyMap<string, string>): AddressMap {
  if (hosts.size === 0) return (address) => address;
  return (address) => {
    const { host } = addressParts(address);
    const other = hosts.get(host);
    return other === undefined ? address : address.replace(`://${host}`, `://${other}`);
  };
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
export async function compareCommand(db: Database, { old, fresh, out, hosts }: CompareCall): Promise<number> {
  const [before, after] = [await finishedCrawl(db, old), await finishedCrawl(db, fresh)];
  await makeFolder(out);
  const map = hostMap(hosts);
  const pages = comparePages(before.snapshot, after.snapshot, map);
  const links = compareLinks(before.snapshot, after.snapshot, pages, map);
  const options = [before, after].map(({ row }) => settingsSchema.parse(row.settings));
  const findings = compareFindings(before.snapshot, after.snapshot, pages, [options[0], options[1]], map);
  await writePieces(join(out, 'changes.csv'), changesCsv(before.snapshot, after.snapshot, pages));
  await writePieces(join(out, 'link_changes.csv'), linkChangesCsv(links));
  await writePieces(join(out, 'finding_changes.csv'), findingChangesCsv(findings));
  const count = (change: string) => pages.filter((page) => page.change === change).length;
  const sum = (of: 'new' | 'solved' | 'remaining' | 'gone') => findings.reduce((all, one) => all + one[of], 0);
  const summary = {
    old: described(before.row),
    new: described(after.row),
    pages: Object.fromEntries(pageClasses.map((change) => [change, count(change)])),
    links: {
      added: links.filter(({ change }) => change === 'added').length,
      removed: links.filter(({ change }) => change === 'removed').length,
      edits: new Set(links.map(({ edit }) => edit)).size,
    },
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
    .map((change) => `${thousands(count(change))} ${change}`);
  console.error(`${told.join(', ')}. Written to ${out}.`);
  return 0;
}
