import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

/** The program of threads, which is there once Edge Map has been built; from its sources, threads' work is done in place. */
export const threadFile = join(dirname(fileURLToPath(import.meta.url)), 'thread.cjs');
export const hasThreads = (file = threadFile) => existsSync(file);

/** Bytes that can be given away: a view of memory that others use is copied first. */
export const ownBytes = (bytes: Uint8Array): Uint8Array =>
  bytes.byteLength === bytes.buffer.byteLength ? bytes : Uint8Array.from(bytes);
