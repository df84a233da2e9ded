/** Crawls with the edits of a draft, kept open beside the crawls themselves. */
import { comparePages } from '$core/compare';
import { draftOfCrawl } from '$core/draft';
import type { DraftedCrawl, EditState } from '$core/draft';
import { describeFindings } from '$core/findings';
import { reportOf } from '$core/report';
import type { PageFindings } from '$core/report';
import { layerBytes, once } from '$core/snapshot';
import { withComparison } from '$core/view';
import type { ComparedView, View } from '$core/view';
import { listBytes } from '../lists/cache';
import { keepBeside } from '../snapshots';
import type { OpenReport } from '../snapshots';
import type { Draft } from './drafts';

export interface OpenDraft {
  view: View;
  /** The same beside the crawl as it is. */
  difference: () => ComparedView;
  /** What has become of each edit. */
  states: EditState[];
  report: () => { report: OpenReport; pages: PageFindings };
}

/** Drafts that are kept with a crawl: two, so that one can be set beside another. */
const MOST_KEPT = 2;
const kept = new WeakMap<View, { key: string; open: OpenDraft }[]>();

/**
 * A crawl with the edits of a draft; the last ones are kept.
 * @param crawl with its links and words
 */
export function openDraft(crawl: DraftedCrawl, { id, version, edits }: Draft): OpenDraft {
  const { view, settings } = crawl;
  const key = `${id}@${version} ${edits.length}`;
  const known = kept.get(view) ?? [];
  const found = known.find((one) => one.key === key);
  if (found) return found.open;
  const drafted = draftOfCrawl(crawl, edits);
  const open: OpenDraft = {
    ...drafted,
    difference: once(() => withComparison(drafted.view, comparePages(view, drafted.view))),
    report: once(() => {
      const { report, pages } = reportOf(drafted.view, settings);
      return { report: { ...report, findings: describeFindings(report.findings) }, pages };
    }),
  };
  kept.set(view, [{ key, open }, ...known].slice(0, MOST_KEPT));
  // What is shared with the crawl below is counted twice, and so less is kept than could be.
  keepBeside(view, 'draft', () => {
    const views = (kept.get(view) ?? []).map((one) => one.open.view).filter((one) => one !== view);
    return views.reduce((sum, one) => sum + layerBytes(one) + listBytes(one), 0);
  });
  return open;
}

const compared = new WeakMap<View, ComparedView>();

/** A view beside another one, such as what a draft predicted of it; the last one is kept. */
export function besideView(view: View, old: View): ComparedView {
  const known = compared.get(view);
  if (known?.comparison.old === old) return known;
  const made = withComparison(view, comparePages(old, view));
  compared.set(view, made);
  return made;
}
