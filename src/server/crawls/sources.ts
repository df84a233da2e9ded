/** How the HTML of pages is kept: compressed, rather quickly than small, since pages come by the hundred a second. */
import { promisify } from 'node:util';
import { brotliCompressSync, brotliDecompress, constants, inflateRaw } from 'node:zlib';

/** By the names of HTTP content codings; sources from before there was a choice are bare deflate. */
export type SourceCoding = 'deflate' | 'br';
export const SOURCE_CODING: SourceCoding = 'br';

const QUICK = { chunkSize: 1 << 17, params: { [constants.BROTLI_PARAM_QUALITY]: 1 } };
const undo: Record<SourceCoding, (data: Buffer) => Promise<Buffer>> = {
  deflate: promisify(inflateRaw),
  br: promisify(brotliDecompress),
};

/** Compresses a source by {@link SOURCE_CODING}. */
export const compressSource = (body: Uint8Array): Buffer => brotliCompressSync(body, QUICK);

export const readSource = (coding: SourceCoding, data: Buffer): Promise<Buffer> => undo[coding](data);
