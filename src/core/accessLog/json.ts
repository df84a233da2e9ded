/** Access logs with a JSON object a line: the names that servers commonly give to what is in it. */
import { requestTarget, wholeTarget } from './request';
import type { LogLine } from './request';
import { parseTime } from './time';

type Fields = Record<string, unknown>;

const names = {
  request: ['request', 'request_line'],
  target: ['request_uri', 'uri', 'url', 'path', 'target', 'request_path'],
  method: ['method', 'request_method', 'verb'],
  host: ['host', 'http_host', 'server_name', 'vhost', 'request_host'],
  status: ['status', 'status_code', 'response_code', 'code'],
  time: ['time', 'timestamp', '@timestamp', 'ts', 'time_iso8601', 'time_local', 'date', 'msec'],
  agent: ['user_agent', 'http_user_agent', 'useragent', 'user-agent', 'agent'],
  client: ['remote_addr', 'client_ip', 'remote_ip', 'ip', 'client'],
} as const;

const isFields = (value: unknown): value is Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Fields by lower-case name; those of a nested request and of its headers too, where no outer field has the name. */
function flat(line: Fields): Map<string, unknown> {
  const found = new Map<string, unknown>();
  const put = (fields: Fields) => {
    for (const [name, value] of Object.entries(fields)) {
      const key = name.toLowerCase();
      if (isFields(value) && (key === 'request' || key === 'response' || key === 'headers')) continue;
      if (!found.has(key)) found.set(key, Array.isArray(value) ? (value as unknown[])[0] : value);
    }
    for (const [name, value] of Object.entries(fields))
      if (isFields(value) && /^(request|response|headers)$/i.test(name)) put(value);
  };
  put(line);
  return found;
}

const textOf = (value: unknown) => (typeof value === 'string' || typeof value === 'number' ? String(value) : '');

/** A host of the web; many logs name the machine that answered instead, as `web-01` or an IP address. */
const webHost = (text: string) => (text.includes('.') && /[a-z]/i.test(text) ? text : null);

/** Reads one line. @returns null when it is no JSON object, or names no request */
export function jsonHit(line: string): LogLine | null {
  let parsed: unknown;
  try {
    parsed = JSON.parse(line);
  } catch {
    return null;
  }
  if (!isFields(parsed)) return null;
  const fields = flat(parsed);
  const value = (name: keyof typeof names) => {
    for (const key of names[name]) {
      const text = textOf(fields.get(key));
      if (text !== '') return text;
    }
    return '';
  };
  const [request, asked] = [value('request'), value('target')];
  if (!request && !asked) return null;
  const target = request ? requestTarget(request) : wholeTarget(asked, value('method') || 'GET');
  if (typeof target !== 'string') return target;
  return {
    ok: true,
    hit: {
      target,
      host: webHost(value('host')),
      status: Number(value('status')) || null,
      time: parseTime(value('time')),
      agent: value('agent'),
      client: value('client'),
    },
  };
}
