import { createReadStream, createWriteStream } from 'node:fs';
import { readFile, stat } from 'node:fs/promises';
import { basename } from 'node:path';
import { sentence } from '$core/messages';
import type { ImportKind } from '$core/imports';
import { settingsSchema } from '$core/settings';
import type { CrawlSettings } from '$core/settings';
import { csvPieces } from '$core/formats';
import { getSite, importFile, saveSite, siteByStart } from '$server/index';
import type { Database, ImportOutcome, Reject } from '$server/index';
import { failure, isError } from '$core/errors';

export interface ImportCall {
  start: string;
  file: string;
  kind: ImportKind;
  name: string | null;
  column: string | null;
  /** File for the lines that are left out. */
  rejects: string | null;
  /** File with the addresses of search crawlers. */
  crawlers: string | null;
}

/** What a source is called when it is given no name: its file without endings. */
export const nameOfFile = (file: string): string =>
  basename(file)
    .replace(/(\.(gz|zst|zstd|csv|tsv|txt|log|json|jsonl|ndjson|xlsx))+$/i, '')
    .slice(0, 80) || 'Import';

/** Writes rejected lines as they come. */
function rejectsWriter(file: string) {
  const out = createWriteStream(file);
  const write = (cells: (string | number)[]) => {
    for (const piece of csvPieces([cells])) out.write(piece);
  };
  write(['line', 'reason']);
  return {
    add: ({ line, reason }: Reject) => write([line, sentence(reason)]),
    end: () => new Promise<void>((done, failed) => out.once('error', failed).end(done)),
  };
}

const said = ({ lines, addresses, matched, fresh, rejected }: ImportOutcome) =>
  `${lines} lines, ${addresses} addresses, ${matched} matched, ${fresh} new, ${rejected} rejected`;

/** The addresses of search crawlers: those of the file, else those of the settings; null when neither names any. */
function crawlersOf(file: string | null, { crawlerAddresses }: CrawlSettings): string[] | null {
  if (file !== null) return file.split(/\s+/).filter(Boolean);
  return crawlerAddresses.length ? crawlerAddresses : null;
}

/** `edgemap import`: imports a list or an access log into a site. @returns the exit code: 0 imported, 1 nothing was */
export async function importCommand(db: Database, call: ImportCall): Promise<number> {
  const found = await stat(call.file).catch((error: Error) => {
    throw failure('usage', `The file cannot be read: ${error.message}`);
  });
  if (!found.isFile()) throw failure('usage', `${call.file} is not a file.`);
  const crawlers =
    call.crawlers === null
      ? null
      : await readFile(call.crawlers, 'utf8').catch((error: Error) => {
          throw failure('usage', `--crawlers: ${error.message}`);
        });
  const known = await siteByStart(db, call.start);
  const id = known?.id ?? (await saveSite(db, settingsSchema.parse({ start: call.start })));
  const settings = settingsSchema.parse((await getSite(db, id))!.settings);
  const rejects = call.rejects === null ? null : rejectsWriter(call.rejects);
  const isTerminal = process.stderr.isTTY;
  try {
    const outcome = await importFile(
      db,
      { id, settings },
      {
        kind: call.kind,
        name: call.name ?? nameOfFile(call.file),
        file: basename(call.file),
        bytes: createReadStream(call.file, { highWaterMark: 1 << 18 }),
        list: { column: call.column },
        crawlerAddresses: crawlersOf(crawlers, settings),
        onProgress: (lines) => isTerminal && process.stderr.write(`\r${lines.toLocaleString('en')} lines …`),
        onReject: rejects?.add,
      },
    );
    if (isTerminal) process.stderr.write('\r');
    if (outcome.before)
      console.error(
        `This file was imported before, as ${outcome.before.kind} “${outcome.before.name}” on ${outcome.before.createdAt.toISOString().slice(0, 10)}.` +
          (outcome.before.id === outcome.id ? ' Nothing has changed.' : ' It now counts twice.'),
      );
    process.stdout.write(`${said(outcome)}\n`);
    return 0;
  } catch (error) {
    if (!isError(error, 'import')) throw error;
    console.error(`edgemap: ${error.message}`);
    return 1;
  } finally {
    await rejects?.end();
  }
}
