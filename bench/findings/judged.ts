/** Findings that a person has judged (bench/judged/*.csv), and whether they are still reported. */
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { parse } from 'csv-parse/sync';
import { stringify } from 'csv-stringify/sync';
import { applies, faultsOfFiles, findings, linkAt, selected } from '../../src/core/findings';
import type { FindingOptions } from '../../src/core/findings';
import { hasBit } from '../../src/core/selection';
import type { Bits } from '../../src/core/selection';
import { pageOf } from '../../src/core/snapshot';
import type { View } from '../../src/core/view';

export const columns = ['site', 'finding', 'address', 'place', 'verdict', 'reported', 'why'] as const;
/**
 * One judged case. The address is without the origin of the start page, where it has that one; the place is
 * `line:column` of a link, the line of a file, or '' for a page. The verdict is `right` when an architect would want to
 * be told of it, else `wrong`; `reported` says whether it was when that was last accepted.
 */
export type Judged = Record<(typeof columns)[number], string>;

export const FOLDER = 'bench/judged';

/** All judged cases, by site. */
export function readJudged(folder = FOLDER): Map<string, Judged[]> {
  const bySite = new Map<string, Judged[]>();
  for (const file of readdirSync(folder)
    .filter((name) => name.endsWith('.csv'))
    .sort())
    bySite.set(file.replace(/\.csv$/, ''), parse<Judged>(readFileSync(join(folder, file), 'utf8'), { columns: true }));
  return bySite;
}

const order = ({ finding, address, place }: Judged) => `${finding} ${address} ${place.padStart(14)}`;

export function writeJudged(site: string, cases: readonly Judged[], folder = FOLDER): void {
  const rows = [...cases].sort((a, b) => (order(a) < order(b) ? -1 : 1));
  writeFileSync(join(folder, `${site}.csv`), stringify(rows, { header: true, columns: [...columns] }));
}

/** An address as judged cases name it. */
export const shortOf = (address: string, start: string): string => {
  const { origin } = new URL(start);
  return address.startsWith(`${origin}/`) ? address.slice(origin.length) : address;
};

/** Makes the test whether a judged case is reported now. */
export function reportedTest(snapshot: View, start: string, options: FindingOptions): (one: Judged) => boolean {
  const known = new Map<string, Bits>();
  const faults = faultsOfFiles(snapshot, options);
  return ({ finding: id, address: short, place }) => {
    const finding = findings.find((one) => one.id === id);
    if (!finding || !applies(snapshot, finding)) return false;
    const address = new URL(short, start).href;
    if (finding.over === 'files')
      return faults.some(({ fault, file, line }) => fault === id && file === address && String(line ?? '') === place);
    const bits = known.get(id) ?? selected(snapshot, finding.over, finding.select(options.thresholds));
    known.set(id, bits);
    const page = pageOf(snapshot, address);
    if (page < 0) return false;
    if (finding.over === 'pages') return hasBit(bits, page);
    const [line, column] = place.split(':').map(Number);
    const link = linkAt(snapshot, page, line, column);
    return link >= 0 && hasBit(bits, link);
  };
}

/** How many of the judged cases that are reported are right. */
export interface Precision {
  right: number;
  wrong: number;
  /** Right cases that are not reported. */
  missed: number;
}

/** Precision by finding, and the cases whose answer is another than when it was last accepted. */
export function compareJudged(cases: readonly Judged[], isReported: (one: Judged) => boolean) {
  const byFinding = new Map<string, Precision>();
  const changed: Judged[] = [];
  for (const one of cases) {
    const precision = byFinding.get(one.finding) ?? { right: 0, wrong: 0, missed: 0 };
    byFinding.set(one.finding, precision);
    const reported = isReported(one);
    if (reported !== (one.reported === 'yes')) changed.push(one);
    if (!reported) precision.missed += Number(one.verdict === 'right');
    else if (one.verdict === 'right') precision.right++;
    else precision.wrong++;
  }
  return { byFinding, changed };
}
