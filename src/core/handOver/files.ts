/** What a draft hands over to those who change the website. */
import { editText, isFolder } from '../draft';
import type { Edit } from '../draft';
import type { Block } from '../html';
import { csvPieces } from '../formats';
import type { SourceEdit } from './source';

/** What is to be done on one page, or on all that a pattern matches. */
export interface HandOverPage<E extends Edit = Edit> {
  source: string;
  /** Of a pattern a page that it matches, on which the sentences stand. */
  example: string | null;
  /** Where the page is edited; null where that is not known. */
  editAt: string | null;
  /** On the page. */
  note: string;
  edits: (E & Partial<SourceEdit>)[];
}

/** Edits by the page that is edited, in the order in which pages come first. */
export function bySource<E extends Edit>(edits: readonly E[]): Map<string, E[]> {
  const pages = new Map<string, E[]>();
  for (const edit of edits) {
    const own = pages.get(edit.source);
    if (own) own.push(edit);
    else pages.set(edit.source, [edit]);
  }
  return pages;
}

/** What Markdown would take for markup in a line of text. */
const plain = (text: string) => text.replace(/[\\`*_[\]<>]/g, '\\$&').replace(/\s+/g, ' ');

const sentenceOf = ({ before, words, after }: Block) => `${plain(before)}**${plain(words)}**${plain(after)}`;

/** A list of work by page, to tick off; words of links are bold. */
export function handOverMarkdown(pages: readonly HandOverPage[], name: string): string {
  const sections = pages.map(({ source, editAt, note, edits }) => {
    const items = edits.map((edit) => {
      const file = edit.op === 'robots' ? `\n\n\`\`\`\n${edit.value.trimEnd()}\n\`\`\`\n` : '';
      const blocks = [
        ...(edit.before ? [`\n  - before: ${sentenceOf(edit.before)}`] : []),
        ...(edit.after ? [`\n  - after: ${sentenceOf(edit.after)}`] : []),
      ];
      return `- [ ] ${plain(editText(edit))}${blocks.join('')}${file}`;
    });
    const heading = source === '*' ? 'On every page' : plain(source);
    return `## ${heading}\n\n${editAt ? `Edit: <${editAt}>\n\n` : ''}${note ? `${plain(note)}\n\n` : ''}${items.join('\n')}\n`;
  });
  return `# ${plain(name)}\n\n${sections.join('\n')}`;
}

const inHtml = (text: string) =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');
const linkTo = (address: string, words: string) =>
  /^https?:/.test(address) ? `<a href="${inHtml(address)}">${inHtml(words)}</a>` : inHtml(words);
const sentenceHtml = ({ before, words, after }: Block) => `${inHtml(before)}<b>${inHtml(words)}</b>${inHtml(after)}`;

/** The same as formatted text, for a mail or a document. */
export function handOverHtml(pages: readonly HandOverPage[], name: string): string {
  const sections = pages.map(({ source, editAt, note, edits }) => {
    const items = edits.map(
      (edit) =>
        `<li>${inHtml(editText(edit))}` +
        (edit.before ? `<br>before: ${sentenceHtml(edit.before)}` : '') +
        (edit.after ? `<br>after: ${sentenceHtml(edit.after)}` : '') +
        (edit.op === 'robots' ? `<pre>${inHtml(edit.value)}</pre>` : '') +
        '</li>',
    );
    const heading = source === '*' ? 'On every page' : linkTo(source, source);
    const edit = editAt ? ` (${linkTo(editAt, 'edit')})` : '';
    return `<h2>${heading}${edit}</h2>${note ? `<p>${inHtml(note)}</p>` : ''}<ul>${items.join('')}</ul>`;
  });
  return `<h1>${inHtml(name)}</h1>${sections.join('')}`;
}

const block = (text: Block | null | undefined) => (text ? text.before + text.words + text.after : '');

export const handOverCsv = (pages: readonly HandOverPage[]): Generator<string> =>
  csvPieces([
    ['page', 'edit at', 'what to do', 'words', 'target', 'placement', 'before', 'after'],
    ...pages.flatMap(({ source, editAt, edits }) =>
      edits.map((edit) => [
        source,
        editAt ?? '',
        editText(edit),
        edit.op === 'reword_link' ? edit.value : edit.anchor,
        edit.op === 'retarget_link' ? edit.value : edit.target,
        edit.placement,
        block(edit.before),
        block(edit.after),
      ]),
    ),
  ]);

/** A redirect; of a folder both end with `*`, for all that is below it. */
export interface Redirect {
  from: string;
  to: string;
}

/** The redirects among edits; of other patterns none, as they name no address. */
export const redirectsOf = (edits: readonly Edit[]): Redirect[] =>
  edits.flatMap((edit) => {
    const to =
      edit.op === 'redirect' || edit.op === 'move_page'
        ? edit.target
        : edit.op === 'remove_page' && !/^\d*$/.test(edit.value)
          ? edit.value
          : '';
    const isMoved = edit.op === 'move_page' && isFolder(edit.source);
    if (!to || !URL.canParse(edit.source) || (edit.source.includes('*') && !isMoved)) return [];
    return [{ from: edit.source, to: URL.canParse(to, edit.source) ? new URL(to, edit.source).href : to }];
  });

export const redirectsCsv = (redirects: readonly Redirect[]): Generator<string> =>
  csvPieces([['from', 'to'], ...redirects.map(({ from, to }) => [from, to])]);

const inQuotes = (text: string) => `"${text.replace(/["\\$]/g, '\\$&')}"`;

const forPattern = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/** For nginx: a map by path and query, and the line of a server block that uses it. */
export function redirectsNginx(redirects: readonly Redirect[]): string {
  const rows = redirects.map(({ from, to }) => {
    const { pathname, search } = new URL(from);
    return isFolder(from)
      ? `  "~^${forPattern(pathname.slice(0, -1))}(?<rest>.*)$" "${to.slice(0, -1).replace(/["\\$]/g, '\\$&')}$rest";`
      : `  ${inQuotes(pathname + search)} ${inQuotes(to)};`;
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
    if (isFolder(from))
      return [
        `RewriteCond %{REQUEST_URI} "^${forPattern(decoded(pathname.slice(0, -1))).replace(/"/g, '\\"')}(.*)$"`,
        `RewriteRule ^ "${escaped(to.slice(0, -1))}%1" [R=301,L,NE]`,
      ].join('\n');
    return [
      `RewriteCond %{REQUEST_URI} "=${escaped(decoded(pathname))}"`,
      `RewriteCond %{QUERY_STRING} "=${escaped(search.slice(1))}"`,
      `RewriteRule ^ "${escaped(to)}" [R=301,L,NE,QSD]`,
    ].join('\n');
  });
  return `RewriteEngine On\n${rules.join('\n')}\n`;
}
