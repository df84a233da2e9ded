/** What runs in the thread that reads a crawl. */
import { workerData } from 'node:worker_threads';
import type { UnvisitedReason } from '$core/facts';
import { encodeBase } from '$core/snapshot';
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

/** Reads the base of a crawl from its rows. @throws Error, of which only the message comes through to who asked */
export async function read({ url, row, left }: ReadTask) {
  const db = openDatabase(url);
  try {
    return shareParts(encodeBase(await retryOutage(() => readBase(db, row, left))));
  } catch (error) {
    throw isConnectionLoss(error) ? new Error(`Connection lost: ${(error as Error).message}`) : error;
  } finally {
    await closeDatabase(db).catch(() => {});
  }
}
