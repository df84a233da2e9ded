/** What a draft hands over to those who change the website. */
import { editText } from '../draft';
import type { Edit } from '../draft';
import { csvPieces } from './csv';

/** Edits by the page that is edited, in the order in which pages come first. */
function bySource(edits: readonly Edit[]): Map<string, Edit[]> {
  const pages = new Map<string, Edit[]>();
  for (const edit of edits) pages.set(edit.source, [...(pages.get(edit.source) ?? []), edit]);
  return pages;
}

/** What Markdown would take for markup in a line of text. */
const plain = (text: string) => text.replace(/[\\`*_[\]<>]/g, '\\$&').replace(/\s+/g, ' ');

/** A list of work by page, to tick off. */
export function handOverMarkdown(edits: readonly Edit[], name: string): string {
  const pages = [...bySource(edits)].map(([source, own]) => {
    const items = own.map((edit) => {
      const file = edit.op === 'robots' ? `\n\n\`\`\`\n${edit.value.trimEnd()}\n\`\`\`\n` : '';
      return `- [ ] ${plain(editText(edit))}${file}`;
    });
    return `## ${source === '*' ? 'On every page' : plain(source)}\n\n${items.join('\n')}\n`;
  });
  return `# ${plain(name)}\n\n${pages.join('\n')}`;
}

export const handOverCsv = (edits: readonly Edit[]): Generator<string> =>
  csvPieces([
    ['page', 'what to do', 'words', 'target', 'placement'],
    ...[...bySource(edits).values()]
      .flat()
      .map((edit) => [
        edit.source,
        editText(edit),
        edit.op === 'reword_link' ? edit.value : edit.anchor,
        edit.op === 'retarget_link' ? edit.value : edit.target,
        edit.placement,
      ]),
  ]);

export interface Redirect {
  from: string;
  to: string;
}

/** The redirects among edits; of a pattern none, as it names no address. */
export const redirectsOf = (edits: readonly Edit[]): Redirect[] =>
  edits.flatMap((edit) => {
    const to =
      edit.op === 'redirect' || edit.op === 'move_page'
        ? edit.target
        : edit.op === 'remove_page' && !/^\d*$/.test(edit.value)
          ? edit.value
          : '';
    if (!to || !URL.canParse(edit.source)) return [];
    return [{ from: edit.source, to: URL.canParse(to, edit.source) ? new URL(to, edit.source).href : to }];
  });

export const redirectsCsv = (redirects: readonly Redirect[]): Generator<string> =>
  csvPieces([['from', 'to'], ...redirects.map(({ from, to }) => [from, to])]);

const inQuotes = (text: string) => `"${text.replace(/["\\$]/g, '\\$&')}"`;

/** For nginx: a map by path and query, and the line of a server block that uses it. */
export function redirectsNginx(redirects: readonly Redirect[]): string {
  const rows = redirects.map(({ from, to }) => {
    const { pathname, search } = new URL(from);
    return `  ${inQuotes(pathname + search)} ${inQuotes(to)};`;
  });
  return [
    '# In the http block:',
    'map $request_uri $moved_to {',
    ...rows,
    '}',
    '# In the server block:',
    'if ($moved_to) { return 301 $moved_to; }',
    '',
  ].join('\n');
}

function decoded(path: string): string {
  try {
    return decodeURIComponent(path);
  } catch {
    return path;
  }
}

/** For Apache: rules of mod_rewrite, which compares paths without their escapes. */
export function redirectsApache(redirects: readonly Redirect[]): string {
  const escaped = (text: string) => text.replace(/["\\%]/g, '\\$&');
  const rules = redirects.map(({ from, to }) => {
    const { pathname, search } = new URL(from);
    return [
      `RewriteCond %{REQUEST_URI} "=${escaped(decoded(pathname))}"`,
      `RewriteCond %{QUERY_STRING} "=${escaped(search.slice(1))}"`,
      `RewriteRule ^ "${escaped(to)}" [R=301,L,NE,QSD]`,
    ].join('\n');
  });
  return `RewriteEngine On\n${rules.join('\n')}\n`;
}
