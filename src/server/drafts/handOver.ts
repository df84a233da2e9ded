/** The edits of a draft beside the sources of their pages, for those who make them on the website. */
import type { DraftEdit } from '$core/draft';
import { asksForSource, editingAddress } from '$core/editingAddress';
import { bySource, editSource } from '$core/handOver';
import type { EditedFile, HandOverPage } from '$core/handOver';
import { patternTest, scopeOf } from '$core/scope';
import type { Scope } from '$core/scope';
import type { CrawlSettings } from '$core/settings';
import { addressAt, factAt, pageOf } from '$core/snapshot';
import type { View } from '$core/view';
import { storedSource } from '../crawls';
import type { Database } from '../database';

/** Bytes of sources that are read for the sentences of edits; pages after them are told without, as somebody waits. */
const MOST_READ = 20 << 20;
/** Files that a diff changes, and bytes that are read for it. */
export const MOST_FILES = 2000;
const MOST_OF_FILES = 100 << 20;

export interface HandOver {
  crawl: { id: number; siteId: number };
  /** The crawl as it was crawled. */
  view: View;
  settings: CrawlSettings;
  edits: readonly DraftEdit[];
  notes: ReadonlyMap<string, string>;
  /** The editing address that the site has set. */
  editing: string;
}

/** The pages that a source of edits names. */
function* pagesNamed(view: View, scope: Scope, source: string): Generator<string> {
  const address = scope.identify(source)?.address;
  if (address !== undefined && pageOf(view, address) >= 0) return yield address;
  if (!source.includes('*')) return;
  const matches = patternTest(source);
  for (let page = 0; page < view.count; page++) {
    const at = addressAt(view, page);
    if (factAt(view, 'html', page) === true && matches(at)) yield at;
  }
}

const utf8 = new TextDecoder();

/** What is to be done, page by page. */
export async function handOverPages(db: Database, { crawl, view, settings, edits, notes, editing }: HandOver) {
  const scope = scopeOf(settings);
  const pages: HandOverPage<DraftEdit>[] = [];
  let read = 0;
  for (const [source, own] of bySource(edits)) {
    const isPattern = source.includes('*');
    const [address] = pagesNamed(view, scope, source);
    const stored = address && read < MOST_READ ? await storedSource(db, crawl, address) : null;
    read += stored?.bytes.length ?? 0;
    const found = stored ? editSource({ address, ...stored }, own, scope).edits : [];
    const markup = stored && asksForSource(editing) ? utf8.decode(stored.bytes) : null;
    pages.push({
      source,
      example: isPattern ? (address ?? null) : null,
      editAt: address && !isPattern ? editingAddress(editing, address, markup) : null,
      note: notes.get(source) ?? '',
      edits: own.map((edit, i) => ({ ...edit, ...found[i] })),
    });
  }
  return pages;
}

/** The sources that edits change, before and after; null where they are more than {@link MOST_FILES}, or too large. */
export async function editedFiles(
  db: Database,
  { crawl, view, settings, edits }: Omit<HandOver, 'editing' | 'notes'>,
): Promise<EditedFile[] | null> {
  const scope = scopeOf(settings);
  const ofPage = new Map<string, DraftEdit[]>();
  for (const edit of edits)
    for (const address of pagesNamed(view, scope, edit.source))
      ofPage.set(address, [...(ofPage.get(address) ?? []), edit]);
  if (ofPage.size > MOST_FILES) return null;
  const files: EditedFile[] = [];
  let read = 0;
  for (const [address, own] of ofPage) {
    const stored = await storedSource(db, crawl, address);
    read += stored?.bytes.length ?? 0;
    if (read > MOST_OF_FILES) return null;
    const { source } = stored ? editSource({ address, ...stored }, own, scope) : { source: null };
    if (source) files.push({ address, ...source });
  }
  return files;
}
