import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';

/** The programs of threads lie beside the one that was started, once Edge Map has been built. */
const built = (name: string) => join(dirname(process.argv[1] ?? ''), `${name}.cjs`);

/**
 * The programs of threads; from its sources, threads' work is done in place. Each holds no more than it runs: a crawl
 * waits for its parsers to start.
 */
export const parserThread = built('parserThread');
export const baseThread = built('baseThread');
export const analysisThread = built('analysisThread');
export const zstdThread = built('zstdThread');
export const watchdogThread = built('watchdogThread');
export const importThread = built('importThread');
export const isBuilt = (file: string) => existsSync(file);
