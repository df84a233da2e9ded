/**
 * One line of an access log, in the formats that servers write: Common and Combined Log Format (with or without the
 * virtual host before it), W3C extended (https://www.w3.org/TR/WD-logfile.html) and JSON lines. Which one it is shows
 * in each line.
 */
import { jsonHit } from './json';
import { notLog, requestTarget, wholeTarget } from './request';
import type { LogLine } from './request';
import { parseTime } from './time';

/** Where a quoted field that begins at `from` ends: the first quote with no odd number of backslashes before it; −1. */
function quoteEnd(line: string, from: number): number {
  for (let at = line.indexOf('"', from); at >= 0; at = line.indexOf('"', at + 1)) {
    let slashes = 0;
    while (line.charCodeAt(at - 1 - slashes) === 92) slashes++;
    if (slashes % 2 === 0) return at;
  }
  return -1;
}

/**
 * Undoes the escapes of servers: `\"`, `\\` and `\xhh`, the last as a percent-escape where it is part of an address.
 */
const unescaped = (text: string, hex: string) =>
  text.includes('\\') ? text.replace(/\\x([0-9a-f]{2})/gi, hex).replace(/\\(["\\])/g, '$1') : text;

/**
 * Whether a line begins with `host:port` before the address of the client. An address itself ends in no port: an IPv6
 * one has other colons.
 */
function isHostFirst(line: string, space: number): boolean {
  const colon = line.indexOf(':');
  if (colon < 0 || colon > space || line.lastIndexOf(':', space) !== colon) return false;
  return (
    /^\d+$/.test(line.slice(colon + 1, space)) && /^(?:[\d.]+|[^ ]*:[^ ]*) /.test(line.slice(space + 1, space + 60))
  );
}

/** A line in Common or Combined Log Format. */
function commonLine(line: string): LogLine {
  const timeAt = line.indexOf(' [');
  const timeEnd = line.indexOf('] "', timeAt);
  if (timeAt < 0 || timeEnd < 0) return notLog;
  const end = quoteEnd(line, timeEnd + 3);
  if (end < 0) return notLog;
  const space = line.indexOf(' ');
  const isHost = space > 0 && isHostFirst(line, space);
  const second = isHost ? line.indexOf(' ', space + 1) : -1;
  const status = Number(line.slice(end + 2, end + 5));
  if (!(status >= 100 && status < 1000)) return notLog;
  const target = requestTarget(unescaped(line.slice(timeEnd + 3, end), '%$1'));
  if (typeof target !== 'string') return target;
  return {
    ok: true,
    hit: {
      target,
      host: isHost ? line.slice(0, space) : null,
      status,
      time: parseTime(line.slice(timeAt + 2, timeEnd)),
      agent: agentAfter(line, end + 1),
      client: isHost ? line.slice(space + 1, second) : line.slice(0, space),
    },
  };
}

/** The second of the quoted fields behind status and size. */
function agentAfter(line: string, from: number): string {
  const referer = line.indexOf(' "', from);
  if (referer < 0) return '';
  const refererEnd = quoteEnd(line, referer + 2);
  if (refererEnd < 0 || line.charCodeAt(refererEnd + 2) !== 34) return '';
  const end = quoteEnd(line, refererEnd + 3);
  return end < 0 ? '' : unescaped(line.slice(refererEnd + 3, end), '\\x$1');
}

/** The values of a line of the W3C format: separated by spaces or tabs, quoted where they hold any. */
const w3cValues = (line: string) => line.match(/"(?:[^"]|"")*"|[^\s]+/g) ?? [];

/** A reader of lines by the fields that a `#Fields:` directive names. */
function w3cLine(fields: readonly string[]) {
  const place = (...names: string[]) => fields.findIndex((field) => names.includes(field));
  const [stem, query, whole] = [place('cs-uri-stem'), place('cs-uri-query'), place('cs-uri')];
  const [date, time, method] = [place('date'), place('time'), place('cs-method')];
  const [status, agent] = [place('sc-status'), place('cs(user-agent)')];
  const [host, client] = [place('cs-host', 'cs(host)'), place('c-ip')];
  return (line: string): LogLine => {
    const values = w3cValues(line);
    if (values.length < fields.length || (stem < 0 && whole < 0)) return notLog;
    const value = (at: number) => {
      const text = at < 0 ? '-' : values[at];
      return text === '-' ? '' : text.startsWith('"') ? text.slice(1, -1).replaceAll('""', '"') : text;
    };
    const asked = value(query);
    const target = wholeTarget(value(whole) || value(stem) + (asked && `?${asked}`), value(method) || 'GET');
    if (typeof target !== 'string') return target;
    return {
      ok: true,
      hit: {
        target,
        host: value(host) || null,
        status: Number(value(status)) || null,
        // The format has times in UTC.
        time: parseTime(`${value(date)}T${value(time)}Z`),
        agent: value(agent).replaceAll('+', ' '),
        client: value(client),
      },
    };
  };
}

/**
 * Makes a reader of the lines of one log, whose first lines may say how it is written.
 * @returns a function that gives null for lines that hold no request: empty ones and directives
 */
export function logReader(): (line: string) => LogLine | null {
  let w3c: ((line: string) => LogLine) | null = null;
  return (line) => {
    const first = line.charCodeAt(0);
    if (first === 35) {
      const fields = /^#Fields:\s*(.*)/i.exec(line);
      if (fields) w3c = w3cLine(fields[1].trim().toLowerCase().split(/\s+/));
      return null;
    }
    if (first === 123) return jsonHit(line) ?? notLog;
    const found = w3c ? w3c(line) : commonLine(line);
    return !found.ok && line.trim() === '' ? null : found;
  };
}
