/**
 * `./edgemap bench bodies [--minutes N] [--only answers|uploads] [--seed N]`: answers and uploads composed of kinds,
 * lengths, codings and breaks. Each is read or refused with a reason, within a time; nothing else may come of it. One
 * minute each when nothing is said.
 */
import { isMainThread, parentPort, Worker, workerData } from 'node:worker_threads';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { brotliCompressSync, deflateRawSync, deflateSync, gzipSync } from 'node:zlib';
import { strToU8, zipSync } from 'fflate';
import { isError } from '../src/core/errors';
import { corpus } from '../src/core/html/testing/corpus';
import { readHtml } from '../src/core/html';
import { chance } from '../src/core/numbers';
import { parseRobots, robotsMatcher } from '../src/core/robots';
import { settingsSchema } from '../src/core/settings';
import { decodeBody } from '../src/crawl/body';
import { unzipped } from '../src/crawl/gunzip';
import { sitemapParser } from '../src/crawl/sitemapParser';
import { readUpload } from '../src/server/imports/upload';

const HERE = 'https://museum.example/trams/';
/** As a crawl that reads 2 MiB of a body. */
const LIMIT = 2 << 20;
const MAX_BYTES = 8 << 20;
/** An input that takes longer hangs. */
const MAX_SECONDS = 20;

type Next = ReturnType<typeof chance>;
const any = <T>(list: readonly T[], next: Next): T => list[next(list.length)];

const rows = (n: number, row: (i: number) => string) => Array.from({ length: n }, (_, i) => row(i)).join('');
const cell = (i: number) => `<row r="${i + 1}"><c r="A${i + 1}" t="str"><v>/tram/${i}</v></c></row>`;
const spreadsheet = (sheet: string) =>
  Buffer.from(
    zipSync({
      'xl/workbook.xml': strToU8('<workbook><sheets><sheet name="a" sheetId="1" r:id="rId1"/></sheets></workbook>'),
      'xl/_rels/workbook.xml.rels': strToU8(
        '<Relationships><Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet" Target="worksheets/sheet1.xml"/></Relationships>',
      ),
      'xl/worksheets/sheet1.xml': strToU8(`<worksheet><sheetData>${sheet}</sheetData></worksheet>`),
    }),
  );

/** What a body holds, some of each kind, of a length up to `n` rows. */
const kinds: ((n: number, next: Next) => Buffer)[] = [
  (n, next) => Buffer.from(any(corpus, next)[1].repeat(1 + (n >> 6))),
  (n) => Buffer.from(`<title>Trams</title>${rows(n, (i) => `<p><a href="/tram/${i}">Tram ${i}</a>`)}`),
  (n) => Buffer.from(`User-agent: *\n${rows(n, (i) => `Disallow: /*a${i}*b${i % 7}\n`)}`),
  (n) => Buffer.from(`<urlset>${rows(n, (i) => `<url><loc>${HERE}${i}</loc></url>\n`)}</urlset>`),
  (n) => Buffer.from(`<sitemapindex>${rows(n, (i) => `<sitemap><loc>${HERE}${i}.xml</loc></sitemap>`)}</sitemapindex>`),
  (n) => Buffer.from(`url;visits;day\n${rows(n, (i) => `/tram/${i};1.${i};2026-10-0${i % 9}\n`)}`),
  (n) => Buffer.from(rows(n, (i) => `{"url":"/tram/${i}","visits":${i}}\n`)),
  (n) =>
    Buffer.from(
      rows(n, (i) => `203.0.113.9 - - [10/Oct/2026:13:55:36 +0000] "GET /tram/${i} HTTP/1.1" 200 1 "-" "-"\n`),
    ),
  (n) => spreadsheet(rows(n, cell)),
  (n, next) => spreadsheet(`${cell(0)}${cell(next(1_048_576))}<row r="${n}"><c r="XFD${n}"><v>1</v></c></row>`),
  (n) => Buffer.alloc(n * 64, 0),
  (n) => Buffer.alloc(n * 64, '<'),
];

/**
 * Windows of 256 KiB and 1 MiB, and one that is refused: fzstd moves the whole of it for each block, and a thread that
 * goes on for too long is ended.
 */
const windows = [0x40, 0x50, 0xff];

/** A frame of Zstandard: raw blocks, runs, and blocks of nothing (RFC 8878). */
function zstd(bytes: Buffer, next: Next): Buffer {
  const block = (type: number, size: number, isLast: boolean) => {
    const head = (size << 3) | (type << 1) | Number(isLast);
    return Buffer.from([head & 255, (head >> 8) & 255, (head >> 16) & 255]);
  };
  const blocks: Buffer[] = [Buffer.from([0x28, 0xb5, 0x2f, 0xfd, next(8) ? 0x00 : 0x20, any(windows, next)])];
  for (let at = 0; at < bytes.length; at += 65_536) {
    const piece = bytes.subarray(at, at + 65_536);
    blocks.push(block(0, piece.length, false), piece);
    if (!next(4)) blocks.push(Buffer.alloc(3 * next(100_000)));
    if (!next(4)) for (let runs = next(2000); runs > 0; runs--) blocks.push(block(1, 131_072, false), Buffer.from('a'));
  }
  return Buffer.concat([...blocks, block(0, 0, true)]);
}

const codings: Record<string, (bytes: Buffer, next: Next) => Buffer> = {
  gzip: (bytes) => gzipSync(bytes, { level: 1 }),
  deflate: (bytes, next) => (next(2) ? deflateSync(bytes) : deflateRawSync(bytes)),
  br: (bytes) => brotliCompressSync(bytes.subarray(0, 1 << 18)),
  zstd,
  identity: (bytes) => bytes,
};

/** What goes wrong on the way. */
const breaks: ((bytes: Buffer, next: Next) => Buffer)[] = [
  (bytes) => bytes,
  (bytes, next) => bytes.subarray(0, next(bytes.length + 1)),
  (bytes, next) => {
    const copy = Buffer.from(bytes);
    for (let times = 1 + next(8); times > 0 && copy.length; times--) copy[next(copy.length)] = next(256);
    return copy;
  },
  (bytes, next) => Buffer.concat([bytes, Buffer.alloc(next(100_000), next(256))]),
  (bytes, next) => Buffer.concat([bytes, bytes.subarray(0, next(bytes.length + 1))]),
  (bytes, next) => Buffer.concat([bytes.subarray(0, next(bytes.length + 1)), Buffer.alloc(1 + next(64)), bytes]),
];

/** A body, and the codings that it says it has: mostly those that it has. */
function compose(next: Next): { bytes: Buffer; said: string } {
  let bytes = any(kinds, next)(1 << next(15), next).subarray(0, MAX_BYTES);
  const names: string[] = [];
  for (let layers = next(4); layers > 0; layers--) {
    const name = any(Object.keys(codings), next);
    bytes = codings[name](bytes, next).subarray(0, MAX_BYTES);
    names.push(name);
    if (!next(6)) bytes = any(breaks, next)(bytes, next);
  }
  bytes = any(breaks, next)(bytes, next);
  return { bytes, said: (next(8) ? names : [any(Object.keys(codings), next)]).join(', ') };
}

async function* pieces(bytes: Buffer, next: Next): AsyncGenerator<Buffer> {
  const size = 256 << next(11);
  for (let at = 0; at < bytes.length; at += size) yield bytes.subarray(at, at + size);
}

const isRefusal = (error: unknown) => /^(Z_|ERR_|ERR__)/.test((error as { code?: string }).code ?? '');

const targets: Record<string, (next: Next) => Promise<void>> = {
  answers: async (next) => {
    const { bytes, said } = compose(next);
    try {
      // No more of a body is taken in.
      const body = { bytes: bytes.subarray(0, LIMIT), truncated: bytes.length > LIMIT };
      const decoded = await decodeBody(body, said, LIMIT);
      if (decoded.bytes.length > LIMIT) throw new Error('A body is longer than what is read.');
      readHtml(decoded.bytes, HERE);
      robotsMatcher(
        parseRobots(decoded.bytes.subarray(0, 512 << 10).toString()),
        'edgemap',
      )(`${HERE}a1/b1?${'a'.repeat(8000)}`);
      const read = sitemapParser();
      let size = 0;
      for await (const piece of unzipped(pieces(bytes, next))) {
        size += piece.length;
        if (size > LIMIT || read(piece.toString()).fault) break;
      }
    } catch (error) {
      if (!isRefusal(error)) throw error;
    }
  },
  uploads: async (next) => {
    const { bytes } = compose(next);
    const task = {
      kind: next(3) ? ('list' as const) : ('log' as const),
      settings: settingsSchema.parse({ start: 'https://museum.example/' }),
      list: { column: next(4) ? null : 'url' },
      crawlerAddresses: null,
    };
    const nothing = () => {};
    const sink = { onProgress: nothing, onRejects: nothing, onAddresses: nothing };
    try {
      await readUpload(task, pieces(bytes, next), sink);
    } catch (error) {
      if (!isError(error, 'import')) throw error;
    }
  },
};

/** Runs inputs one after the other, in a thread that is ended by whoever waits for one of them for too long. */
async function run({ name, first }: { name: string; first: number }): Promise<void> {
  for (let seed = first; ; seed++) {
    parentPort!.postMessage({ seed });
    try {
      await targets[name](chance(seed));
    } catch (error) {
      parentPort!.postMessage({
        seed,
        fault: String((error as Error).stack)
          .split('\n')
          .slice(0, 3)
          .join(' '),
      });
    }
  }
}

/** @returns how many inputs were read, and what went wrong with them */
async function watch(name: string, first: number, ms: number): Promise<{ inputs: number; faults: string[] }> {
  const until = performance.now() + ms;
  const faults: string[] = [];
  let inputs = 0;
  for (let from = first; performance.now() < until && faults.length < 20;) {
    const thread = new Worker(fileURLToPath(import.meta.url), { workerData: { name, first: from } });
    await new Promise<void>((ended) => {
      let [seed, since] = [from, performance.now()];
      const end = (fault?: string) => {
        clearInterval(timer);
        if (fault) faults.push(`${name}, seed ${seed}: ${fault}`);
        from = seed + 1;
        void thread.terminate().then(() => ended());
      };
      const timer = setInterval(() => {
        if (performance.now() >= until) end();
        else if (performance.now() - since > MAX_SECONDS * 1000) end(`It took more than ${MAX_SECONDS} s.`);
      }, 500);
      thread.on('message', (said: { seed: number; fault?: string }) => {
        if (said.fault) return void faults.push(`${name}, seed ${said.seed}: ${said.fault}`);
        [seed, since] = [said.seed, performance.now()];
        inputs++;
      });
      thread.on('error', (error) => end(error.message));
    });
  }
  return { inputs, faults };
}

if (isMainThread) {
  const { values } = parseArgs({
    allowPositionals: true,
    options: {
      minutes: { type: 'string', default: '1' },
      only: { type: 'string' },
      seed: { type: 'string', default: '1' },
    },
  });
  let broken = 0;
  for (const name of Object.keys(targets).filter((one) => !values.only || one === values.only)) {
    const { inputs, faults } = await watch(name, Number(values.seed), Number(values.minutes) * 60_000);
    broken += faults.length;
    console.log(`${name.padEnd(10)} ${String(inputs).padStart(9)} inputs in ${values.minutes} min`);
    for (const fault of faults) console.log(`  ${fault}`);
  }
  const memory = Math.round(process.resourceUsage().maxRSS / 1024);
  console.log(`${broken ? `${broken} inputs broke something.` : 'Nothing broke.'} ${memory} MiB at most.`);
  process.exitCode = broken ? 1 : 0;
} else await run(workerData as { name: string; first: number });
