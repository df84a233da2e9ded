/** Page-level rules for crawlers: meta robots, agent-named meta, X-Robots-Tag. */

export interface Directive {
  /** Product token it is meant for, in lower case; '' when meant for every crawler. */
  agent: string;
  /** Comma-separated directives as written. */
  content: string;
  /** Line of the meta that says it; null in a header. */
  line: number | null;
}

export interface PageRules {
  /** Everything that applies, folded to lower case, joined by `, `; '' when nothing was said. */
  robots: string;
  noindex: boolean;
  nofollow: boolean;
}

/** The directives that may hold a colon of their own and so must not be taken for an agent's name. */
const valued = /^(unavailable_after|max-snippet|max-image-preview|max-video-preview)$/;

/** Reads one X-Robots-Tag field value, which may begin with the name of the agent it is meant for. */
export function readRobotsHeader(value: string): Directive {
  const named = /^\s*([a-z0-9_*-]+)\s*:(.*)$/is.exec(value);
  if (named && !valued.test(named[1].toLowerCase()))
    return { agent: named[1] === '*' ? '' : named[1].toLowerCase(), content: named[2], line: null };
  return { agent: '', content: value, line: null };
}

/**
 * The rules that hold for one crawler. The most restrictive wins: one `noindex` anywhere is enough.
 * @param token the crawler's product token
 */
export function pageRules(directives: readonly Directive[], token: string): PageRules {
  const said = directives
    .filter(({ agent }) => agent === '' || agent === token.toLowerCase())
    .flatMap(({ content }) => content.toLowerCase().split(','))
    .map((part) => part.trim())
    .filter(Boolean);
  const has = (name: string) => said.includes(name) || said.includes('none');
  return { robots: [...new Set(said)].join(', '), noindex: has('noindex'), nofollow: has('nofollow') };
}

const known =
  /^(all|index|noindex|follow|nofollow|none|noarchive|nocache|nosnippet|noimageindex|notranslate|indexifembedded|noodp|noydir|(unavailable_after|max-snippet|max-image-preview|max-video-preview)\s*:.*)$/;

/** Whether the content of a meta is made of rules for crawlers, so that its name must be that of an agent. */
export const isRobotsContent = (content: string) =>
  content.trim() !== '' &&
  content
    .toLowerCase()
    .split(',')
    .every((part) => known.test(part.trim()));

/** All page-level rules with where they stand, as evidence: `meta robots: noindex (line 4); X-Robots-Tag: none`. */
export const describeDirectives = (directives: readonly Directive[]): string =>
  directives
    .map(({ agent, content, line }) =>
      line === null
        ? `X-Robots-Tag: ${agent && `${agent}: `}${content.trim()}`
        : `meta ${agent || 'robots'}: ${content.trim()} (line ${line})`,
    )
    .join('; ');

/** The reverse of {@link describeDirectives}, as far as a text can be taken apart. */
export function readDirectives(text: string): Directive[] {
  return text.split(/; (?=meta [^:]+: |X-Robots-Tag: )/).flatMap((part): Directive[] => {
    const meta = /^meta ([^:]+): (.*) \(line (\d+)\)$/s.exec(part);
    if (meta) return [{ agent: meta[1] === 'robots' ? '' : meta[1], content: meta[2], line: Number(meta[3]) }];
    return part.startsWith('X-Robots-Tag: ') ? [readRobotsHeader(part.slice(14))] : [];
  });
}
