/**
 * Lines in Common or Combined Log Format as servers nearly always write them, read byte by byte: many millions of them are
 * told without making a text of each.
 */
import { dayStart } from './time';

/** What a line says, as places in its bytes. */
export interface PlainHit {
  clientFrom: number;
  clientTo: number;
  targetFrom: number;
  targetTo: number;
  /** Empty when no agent is logged. */
  agentFrom: number;
  agentTo: number;
  status: number;
  /** Seconds since 1970. */
  time: number;
}

export const noPlainHit = (): PlainHit => ({
  clientFrom: 0,
  clientTo: 0,
  targetFrom: 0,
  targetTo: 0,
  agentFrom: 0,
  agentTo: 0,
  status: 0,
  time: 0,
});

const [SPACE, QUOTE, HASH, MINUS, SLASH, COLON] = Array.from(' "#-/:', (sign) => sign.charCodeAt(0));
const [C, OPEN, BACKSLASH, CLOSE, BRACE] = Array.from('C[\\]{', (sign) => sign.charCodeAt(0));
const HTTP = Array.from('HTTP/', (sign) => sign.charCodeAt(0));
const isDigit = (byte: number) => byte >= 48 && byte <= 57;

/** How a date is written: a digit where there is a 0, a letter where there is an x, and signs. */
const DATE = Uint8Array.from('00/xxx/0000:00:00:00 +0000', (sign) => sign.charCodeAt(0));
const [DIGIT, LETTER] = [48, 120];

function isDate(bytes: Uint8Array, from: number): boolean {
  for (let i = 0; i < DATE.length; i++) {
    const byte = bytes[from + i];
    if (DATE[i] === DIGIT ? !isDigit(byte) : DATE[i] !== LETTER && DATE[i] !== byte && (i !== ZONE || byte !== MINUS))
      return false;
  }
  return true;
}
/** Where the sign of the zone is in a date. */
const ZONE = 21;

const two = (bytes: Uint8Array, at: number) => 10 * bytes[at] + bytes[at + 1] - 528;

/** Where a quoted field ends; −1 when it does not, or holds an escape. */
function closingQuote(bytes: Uint8Array, from: number, to: number): number {
  for (let at = from; at < to; at++) {
    if (bytes[at] === QUOTE) return at;
    if (bytes[at] === BACKSLASH) return -1;
  }
  return -1;
}

/**
 * Makes a reader of plain lines.
 * @returns a function that puts what a line says into `hit`, and gives false when it is not plain: then it says nothing of it
 */
export function plainReader(): (bytes: Uint8Array, from: number, to: number, hit: PlainHit) => boolean {
  /** The last day and its beginning: lines of one day follow each other. */
  let day = -1;
  let midnight = NaN;
  const timeAt = (bytes: Uint8Array, from: number): number => {
    const month = (bytes[from + 3] << 16) | (bytes[from + 4] << 8) | bytes[from + 5];
    const year = 100 * two(bytes, from + 7) + two(bytes, from + 9);
    const own = (month * 10_000 + year) * 100 + two(bytes, from);
    if (own !== day) {
      day = own;
      midnight = dayStart(String.fromCharCode(...bytes.subarray(from, from + 11)));
    }
    const zone = two(bytes, from + 22) * 3600 + two(bytes, from + 24) * 60;
    const seconds = two(bytes, from + 12) * 3600 + two(bytes, from + 15) * 60 + two(bytes, from + 18);
    return midnight + seconds + (bytes[from + ZONE] === MINUS ? zone : -zone);
  };

  return (bytes, from, to, hit) => {
    if (bytes[from] === HASH || bytes[from] === BRACE) return false;
    let at = from;
    let colons = 0;
    for (; at < to && bytes[at] !== SPACE; at++) if (bytes[at] === COLON) colons++;
    // One may be that of a host and its port.
    if (colons === 1 || at === from) return false;
    hit.clientFrom = from;
    hit.clientTo = at;
    while (at + 1 < to && (bytes[at] !== SPACE || bytes[at + 1] !== OPEN)) at++;
    const date = at + 2;
    const request = date + DATE.length + 3;
    if (request >= to || bytes[request - 3] !== CLOSE || bytes[request - 2] !== SPACE || bytes[request - 1] !== QUOTE)
      return false;
    if (!isDate(bytes, date) || bytes[request] === C) return false;
    hit.time = timeAt(bytes, date);
    const end = closingQuote(bytes, request, to);
    if (end < 0 || Number.isNaN(hit.time)) return false;
    let first = request;
    while (first < end && bytes[first] !== SPACE) first++;
    let last = end - 1;
    while (last > first && bytes[last] !== SPACE) last--;
    if (first === request || last <= first || bytes[first + 1] !== SLASH) return false;
    for (let i = 0; i < HTTP.length; i++) if (bytes[last + 1 + i] !== HTTP[i]) return false;
    hit.targetFrom = first + 1;
    hit.targetTo = last;
    if (end + 5 > to || bytes[end + 2] === 48) return false;
    for (let i = end + 2; i < end + 5; i++) if (!isDigit(bytes[i])) return false;
    hit.status = 100 * bytes[end + 2] + two(bytes, end + 3) - 4800;
    return readAgent(bytes, end + 1, to, hit);
  };
}

/** The second of the quoted fields behind status and size. */
function readAgent(bytes: Uint8Array, from: number, to: number, hit: PlainHit): boolean {
  hit.agentFrom = hit.agentTo = to;
  let referer = from;
  while (referer + 1 < to && (bytes[referer] !== SPACE || bytes[referer + 1] !== QUOTE)) referer++;
  if (referer + 1 >= to) return true;
  const refererEnd = closingQuote(bytes, referer + 2, to);
  if (refererEnd < 0 || refererEnd + 2 >= to) return false;
  if (bytes[refererEnd + 2] !== QUOTE) return true;
  const end = closingQuote(bytes, refererEnd + 3, to);
  if (end < 0) return false;
  hit.agentFrom = refererEnd + 3;
  hit.agentTo = end;
  return true;
}
