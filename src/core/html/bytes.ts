/**
 * Markup is parsed as a string with one character per byte, so that every index of the parser is a position in the
 * bytes as received. Only the texts that are kept are decoded, here.
 */
import { decodeHTML, decodeHTMLAttribute } from 'entities';

const PIECE = 0x4000;

type Latin1 = {
  from: ((buffer: ArrayBufferLike, at: number, length: number) => { latin1Slice: () => string }) &
    ((binary: string, encoding: 'latin1') => Uint8Array);
};
/** Node turns a byte into a character and back natively; elsewhere it is done by hand. */
const native = (globalThis as unknown as { Buffer?: Latin1 }).Buffer;

/** One character (U+0000 to U+00FF) for each byte. */
export function binaryString(bytes: Uint8Array): string {
  if (native) return native.from(bytes.buffer, bytes.byteOffset, bytes.length).latin1Slice();
  let text = '';
  for (let at = 0; at < bytes.length; at += PIECE)
    text += String.fromCharCode.apply(null, bytes.subarray(at, at + PIECE) as unknown as number[]);
  return text;
}

function bytesOf(binary: string): Uint8Array {
  if (native) return native.from(binary, 'latin1');
  const bytes = new Uint8Array(binary.length);
  for (let i = 0; i < bytes.length; i++) bytes[i] = binary.charCodeAt(i);
  return bytes;
}

/** The encodings in which a byte below 0x80 may be something else than its ASCII character. */
const notAsciiCompatible = new Set(['utf-16le', 'utf-16be', 'iso-2022-jp', 'replacement']);

function knownEncoding(label: string | undefined): string | null {
  if (!label) return null;
  try {
    return new TextDecoder(label.trim()).encoding;
  } catch {
    return null;
  }
}

function isUtf8(bytes: Uint8Array): boolean {
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    return true;
  } catch {
    return false;
  }
}

/** The charset that a `<meta>` within the first 1024 bytes declares (HTML, "prescan a byte stream"). */
function declaredCharset(bytes: Uint8Array): string | undefined {
  const head = binaryString(bytes.subarray(0, 1024)).replace(/<!--[\s\S]*?-->/g, '');
  return /<meta\s[^>]*?charset\s*=\s*["']?\s*([^\s"'/>;]+)/i.exec(head)?.[1];
}

export interface Markup {
  /** One character per byte. */
  binary: string;
  /** Decodes a piece of `binary`, without resolving character references. */
  decode: (binary: string) => string;
  /** Whether the document was received in UTF-8. */
  isUtf8: boolean;
}

/**
 * Finds the encoding of an HTML document: byte order mark, then HTTP header, then meta, then UTF-8 if the bytes are
 * valid UTF-8, else windows-1252. Documents in an encoding that is not ASCII-compatible are first turned into UTF-8.
 * @param httpCharset the charset parameter of the Content-Type header
 */
export function readMarkup(bytes: Uint8Array, httpCharset?: string): Markup {
  let encoding: string | null = null;
  if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf) encoding = 'utf-8';
  else if (bytes[0] === 0xff && bytes[1] === 0xfe) encoding = 'utf-16le';
  else if (bytes[0] === 0xfe && bytes[1] === 0xff) encoding = 'utf-16be';
  encoding ??= knownEncoding(httpCharset);
  if (!encoding) {
    encoding = knownEncoding(declaredCharset(bytes));
    // A meta that could be read as ASCII cannot be right about UTF-16 (HTML, same section).
    if (encoding?.startsWith('utf-16')) encoding = 'utf-8';
  }
  encoding ??= isUtf8(bytes) ? 'utf-8' : 'windows-1252';
  const inUtf8 = encoding === 'utf-8';
  if (notAsciiCompatible.has(encoding)) {
    bytes = new TextEncoder().encode(new TextDecoder(encoding).decode(bytes));
    encoding = 'utf-8';
  }
  const binary = binaryString(bytes);
  const decode = decoderFor(encoding);
  return {
    binary,
    decode: isAscii(binary) ? (text) => text : (text) => (isAscii(text) ? text : decode(text)),
    isUtf8: inUtf8,
  };
}

// eslint-disable-next-line no-control-regex -- control characters are ASCII too
const isAscii = (text: string) => /^[\x00-\x7f]*$/.test(text);

/** windows-1252 above ISO 8859-1 (Encoding Standard, index-windows-1252), from 0x80 to 0x9F. */
const windows1252 = '€\x81‚ƒ„…†‡ˆ‰Š‹Œ\x8dŽ\x8f\x90‘’“”•–—˜™š›œ\x9džŸ';

function decoderFor(encoding: string): (binary: string) => string {
  // Node's own decoder leaves these out (https://encoding.spec.whatwg.org/#legacy-single-byte-encodings).
  if (encoding === 'windows-1252')
    return (binary) => binary.replace(/[\x80-\x9f]/g, (char) => windows1252[char.charCodeAt(0) - 0x80]);
  const decoder = new TextDecoder(encoding);
  return (binary) => decoder.decode(bytesOf(binary));
}

/** White space (HTML's and no-break spaces) folded to single spaces, none at the ends. */
export const fold = (text: string) => text.replace(/\s+/g, ' ').trim();

/** The longest text that is kept where nothing else is said. */
const MAX_TEXT = 1000;

/** The beginning of a text, never with half a character at its end. */
export function clip(text: string, most = MAX_TEXT): string {
  if (text.length <= most) return text;
  const torn = (text.charCodeAt(most - 1) & 0xfc00) === 0xd800;
  return text.slice(0, torn ? most - 1 : most);
}

export const resolveReferences = (text: string) => (text.includes('&') ? decodeHTML(text) : text);
export const resolveAttributeReferences = (text: string) => (text.includes('&') ? decodeHTMLAttribute(text) : text);

/**
 * Turns ascending byte positions into 1-based lines and columns. LF, CR and CRLF each end a line.
 * @param positions ascending indexes into `binary`
 */
export function linesAndColumns(
  binary: string,
  positions: readonly number[],
): { lines: Uint32Array; columns: Uint32Array } {
  const lines = new Uint32Array(positions.length);
  const columns = new Uint32Array(positions.length);
  let line = 1;
  let lineStart = 0;
  // Where the next LF and CR stand; finding them natively is many times faster than looking at every byte.
  let lf = -1;
  let cr = -1;
  const endOf = (mark: string, from: number) => {
    const found = binary.indexOf(mark, from);
    return found < 0 ? Infinity : found;
  };
  positions.forEach((position, i) => {
    for (;;) {
      if (lf < lineStart) lf = endOf('\n', lineStart);
      if (cr < lineStart) cr = endOf('\r', lineStart);
      // A CR before an LF ends no line by itself.
      const end = cr + 1 === lf ? lf : Math.min(lf, cr);
      if (end >= position) break;
      line++;
      lineStart = end + 1;
    }
    lines[i] = line;
    columns[i] = position - lineStart + 1;
  });
  return { lines, columns };
}
