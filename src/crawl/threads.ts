import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const built = (name: string) => join(dirname(fileURLToPath(import.meta.url)), `${name}.cjs`);

/**
 * The programs of threads, which are there once Edge Map has been built; from its sources, threads' work is done in
 * place. Each holds no more than it runs: a crawl waits for its parsers to start.
 */
export const parserThread = built('parserThread');
export const baseThread = built('baseThread');
export const analysisThread = built('analysisThread');
export const isBuilt = (file: string) => existsSync(file);
