export interface HeaderLink {
  href: string;
  rel: string[];
  params: Record<string, string>;
}

/**
 * Parses a Link header field (RFC 8288 §3). What does not follow the grammar ends the reading; what came before counts.
 */
export function parseLinkHeader(value: string): HeaderLink[] {
  const links: HeaderLink[] = [];
  const target = /\s*,*\s*<([^>]*)>/y;
  const param = /\s*;\s*([^\s=;,<>"]+)\s*(?:=\s*(?:"((?:[^"\\]|\\.)*)"|([^\s;,"]*)))?/y;
  let at = 0;
  for (;;) {
    target.lastIndex = at;
    const found = target.exec(value);
    if (!found) return links;
    at = target.lastIndex;
    const params: Record<string, string> = Object.create(null);
    for (;;) {
      param.lastIndex = at;
      const next = param.exec(value);
      if (!next) break;
      at = param.lastIndex;
      const name = next[1].toLowerCase();
      // Only the first occurrence of a parameter counts (§3.3).
      params[name] ??= next[2]?.replace(/\\(.)/g, '$1') ?? next[3] ?? '';
    }
    links.push({ href: found[1].trim(), rel: (params.rel ?? '').toLowerCase().split(/\s+/).filter(Boolean), params });
  }
}
