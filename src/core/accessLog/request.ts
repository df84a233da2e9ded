/** What a line of a log says of one request. */
import type { Message } from '../messages';

export interface LogHit {
  /** What was asked for, as in the request: a path with its query, or a whole URL. */
  target: string;
  /** The virtual host, where the log names it. */
  host: string | null;
  status: number | null;
  /** Seconds since 1970; null when the line has no time that can be read. */
  time: number | null;
  /** The User-Agent header; '' when it is not logged. */
  agent: string;
  /** The IP address that asked. */
  client: string;
}

export type LogLine = { ok: true; hit: LogHit } | { ok: false; reason: Message };

const reject = (reason: Message): LogLine => ({ ok: false, reason });
export const notLog = reject({ code: 'not_a_log_line' });
const noRequest = reject({ code: 'no_request' });
const noAddress = reject({ code: 'no_address_asked' });

/** A request line (RFC 9112 §3) as a target. `OPTIONS *` and `CONNECT host` ask for no address. */
export function requestTarget(request: string): string | LogLine {
  const from = request.indexOf(' ') + 1;
  if (from < 2) return noRequest;
  const last = request.lastIndexOf(' ');
  const to = last >= from && request.startsWith('HTTP/', last + 1) ? last : request.length;
  const target = request.slice(from, to);
  return target.charCodeAt(0) === 47 && !request.startsWith('CONNECT ')
    ? target
    : wholeTarget(target, request.slice(0, from - 1));
}

/** @returns the target, if it can be asked for with the method */
export function wholeTarget(target: string, method = 'GET'): string | LogLine {
  if (target === '*' || method === 'CONNECT') return noAddress;
  if (target.startsWith('/') || /^https?:\/\//i.test(target)) return target;
  return noRequest;
}
