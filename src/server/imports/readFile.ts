/** Imports a file: reads it as it comes, and stores all of it or nothing. */
import { failure, isError } from '$core/errors';
import type { ScopeSettings } from '$core/scope';
import { pagesOfAddresses } from '$core/snapshot';
import type { Database } from '../database';
import { requestAnalysis } from '../jobs';
import { readFacts } from '../snapshots';
import { newestEnded, saveImport } from './imports';
import type { Reject, UrlImport } from './imports';
import type { ListPreview } from './readList';
import type { ListChoices } from './reading';
import type { Bytes, UploadTask } from './upload';
import { previewBeside, readBeside } from './uploadThread';

export interface FileToImport extends Omit<UploadTask, 'settings'> {
  /** What the source is called. */
  name: string;
  /** The name of the file. */
  file: string;
  bytes: Bytes;
  /** Told how many lines have been read, now and then. */
  onProgress?: (lines: number) => void;
  /** Told of each line that is left out. */
  onReject?: (reject: Reject) => void;
  signal?: AbortSignal;
}

export interface ImportOutcome {
  id: number;
  lines: number;
  /** Distinct addresses of the site. */
  addresses: number;
  /** How many of them the newest crawl knows, and how many it does not. */
  matched: number;
  fresh: number;
  rejected: number;
  /** The import of the same file that there was; when it has the number `id`, nothing has changed. */
  before: UrlImport | null;
}

/** What counts how many of some addresses the newest crawl of a site knows. */
async function matching(db: Database, siteId: number): Promise<(addresses: readonly string[]) => number> {
  const newest = await newestEnded(db, siteId);
  if (!newest) return () => 0;
  const snapshot = await readFacts(db, newest).catch(async (error: unknown) => {
    if (!isError(error, 'snapshot_version')) throw error;
    await requestAnalysis(db, newest.id);
    throw failure(
      'import',
      `Crawl ${newest.id} was analysed by another version of Edge Map and is analysed anew. Import the file when that is done; nothing was imported.`,
    );
  });
  if (!snapshot) return () => 0;
  return (addresses) => pagesOfAddresses(snapshot, addresses).reduce((n, page) => n + Number(page >= 0), 0);
}

/**
 * Imports a list or an access log into a site. It counts for the newest crawl at once, and for later ones.
 * @throws import when the file cannot be read; whatever ends the stream; then nothing is stored
 */
export async function importFile(
  db: Database,
  site: { id: number; settings: ScopeSettings },
  { kind, name, file, bytes, list, crawlerAddresses, onProgress, onReject, signal }: FileToImport,
): Promise<ImportOutcome> {
  // Before anything is read: a crawl that cannot be opened is told, and leaves nothing.
  const countMatched = await matching(db, site.id);
  let matched = 0;
  const sink = {
    onProgress: (lines: number) => onProgress?.(lines),
    onRejects: (rejects: readonly Reject[]) => rejects.forEach((reject) => onReject?.(reject)),
    onAddresses: (addresses: readonly string[]) => void (matched += countMatched(addresses)),
  };
  const task = { kind, settings: site.settings, list, crawlerAddresses };
  const read = await readBeside(task, bytes, sink, signal);
  signal?.throwIfAborted();
  const { id, before } = await saveImport(db, site.id, { kind, name, file: file.slice(0, 255), ...read }, true);
  const { lines, urls: addresses, rejected } = read;
  return { id, lines, addresses, matched, fresh: addresses - matched, rejected, before };
}

/** Says how a list would be imported, by its beginning. @throws import */
export const previewFile = (settings: ScopeSettings, bytes: Bytes, list: ListChoices): Promise<ListPreview> =>
  previewBeside({ kind: 'list', settings, list, crawlerAddresses: null }, bytes);
