/** The disk of the private database: crawls pause before it is full. */
import { statfs } from 'node:fs/promises';
import type { Message } from '$core/messages';

/** Below this crawls pause; what is under way still has to be stored. */
const LEAST_FREE_MB = 200;

/** What `./edgemap` names the folder of its database; unset when the database is another server's. */
const databaseFolder = () => process.env.EDGEMAP_DATABASE_FOLDER;

/**
 * Whether the disk of the database is nearly full; null when it is not, or when that cannot be known.
 * @param free gives the free bytes of the disk of a folder
 */
export async function diskTrouble(
  folder = databaseFolder(),
  free: (folder: string) => Promise<number> = freeBytes,
): Promise<Message | null> {
  if (!folder) return null;
  try {
    const megabytes = Math.floor((await free(folder)) / 1e6);
    return megabytes < LEAST_FREE_MB ? { code: 'disk_full', megabytes, needed: LEAST_FREE_MB } : null;
  } catch {
    return null;
  }
}

async function freeBytes(folder: string): Promise<number> {
  const { bavail, bsize } = await statfs(folder);
  return bavail * bsize;
}
