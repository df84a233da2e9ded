/** What runs in the thread that reads a crawl. */
import { workerData } from 'node:worker_threads';
import type { UnvisitedReason } from '$core/facts';
import { encodeBase } from '$core/snapshot';
import type { SnapshotParts } from '$core/snapshot';
import { closeDatabase, isConnectionLoss, openDatabase, readBase, retryOutage } from '$server/index';
import type { Crawl } from '$server/index';
import { standBack } from './priority';
import type { ThreadData } from './priority';
import { shareParts } from './transfer';

if ((workerData as ThreadData).isBeside) standBack();

export interface ReadTask {
  /** Of the database. */
  url: string;
  row: Crawl;
  left: UnvisitedReason;
}

/** The parts of a base; or why the database could not be reached: of an error, only its text would come through. */
export type ReadAnswer = { parts: SnapshotParts } | { lost: string };

/** Reads the base of a crawl from its rows. */
export async function read({ url, row, left }: ReadTask): Promise<ReadAnswer> {
  const db = openDatabase(url);
  try {
    return { parts: shareParts(encodeBase(await retryOutage(() => readBase(db, row, left)))) };
  } catch (error) {
    if (isConnectionLoss(error)) return { lost: (error as Error).message };
    throw error;
  } finally {
    await closeDatabase(db).catch(() => {});
  }
}
