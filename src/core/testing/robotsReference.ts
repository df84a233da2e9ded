/**
 * RFC 9309 read slowly and by itself, to hold the parser and the matcher of src/core/robots to: every rule is a regular
 * expression that is tried on the whole address.
 */
interface Rule {
  allows: boolean;
  pattern: string;
}

const unreserved = /^[A-Za-z0-9\-._~]$/;

/** The octets of a pattern or path in one form: §2.2.2. */
function octets(text: string): string {
  const escaped = [...text]
    .map((char) => {
      const code = char.codePointAt(0)!;
      return code > 0x7e || code < 0x21
        ? [...new TextEncoder().encode(char)].map((byte) => `%${byte.toString(16).padStart(2, '0')}`).join('')
        : char;
    })
    .join('');
  return escaped.replace(/%([0-9a-f]{2})/gi, (whole, hex: string) => {
    const char = String.fromCharCode(parseInt(hex, 16));
    return unreserved.test(char) ? char : whole.toUpperCase();
  });
}

/** The rules for a crawler: §2.2.1. */
function rulesFor(text: string, token: string): Rule[] {
  const groups: { agents: string[]; rules: Rule[] }[] = [];
  let isOpen = false;
  for (const line of text.split(/\r\n|\r|\n/)) {
    const found = /^\s*([^:#]+?)\s*:\s*([^#]*?)\s*(#.*)?$/.exec(line);
    if (!found) continue;
    const [key, value] = [found[1].toLowerCase(), found[2]];
    if (key === 'user-agent') {
      if (!isOpen) groups.push({ agents: [], rules: [] });
      isOpen = true;
      groups.at(-1)!.agents.push(value.toLowerCase());
    } else if (key === 'allow' || key === 'disallow') {
      isOpen = false;
      if (value !== '') groups.at(-1)?.rules.push({ allows: key === 'allow', pattern: octets(value) });
    }
  }
  const of = (name: string) => groups.filter(({ agents }) => agents.includes(name));
  const named = of(token.toLowerCase());
  return (named.length ? named : of('*')).flatMap(({ rules }) => rules);
}

function matches(pattern: string, path: string): boolean {
  const ends = pattern.endsWith('$');
  const body = ends ? pattern.slice(0, -1) : pattern;
  const source = [...body]
    .map((char) => (char === '*' ? '[^]*' : char.replace(/[\\^$.*+?()[\]{}|/]/g, '\\$&')))
    .join('');
  return new RegExp(`^${source}${ends ? '$' : ''}`).test(path);
}

/** Whether a path with its query is open to a crawler: §2.2.2, the most octets win, allow wins a tie. */
export function referenceAllows(text: string, token: string, path: string): boolean {
  if (path === '/robots.txt') return true;
  const octetsOfPath = octets(path);
  const found = rulesFor(text, token).filter(({ pattern }) => matches(pattern, octetsOfPath));
  const longest = Math.max(0, ...found.map(({ pattern }) => pattern.length));
  const winners = found.filter(({ pattern }) => pattern.length === longest);
  return winners.length === 0 || winners.some(({ allows }) => allows);
}
