/**
 * The structure of a site as people write it down: an outline whose lines are indented, or a table of addresses with
 * their parents.
 */
import { parse } from 'csv-parse/sync';
import type { Message } from '../messages';
import { identify } from '../url';

/** A page that is meant to be. */
export interface OutlinePage {
  address: string;
  /** '' where none was given. */
  title: string;
  /** Place of its parent among the pages; −1 for a page at the top. */
  parent: number;
  /** Clicks from the start as they were meant: 0 for the start, 1 for other pages at the top. */
  level: number;
  /** From 1. */
  line: number;
}

export interface Outline {
  pages: OutlinePage[];
  faults: { line: number; message: Message }[];
}

/** More than this is no outline that a person has written. */
const MOST_PAGES = 20_000;
const MOST_OF_LINE = 4000;

const TAB = 4;
const bullet = /^(?:[-*+•–]|\d{1,3}(?:\.\d{1,3})*[.)]?|#{1,6})\s+/;
const place = /(?:^|[\s(<[])((?:https?:\/\/|\/)[^\s)>\]]*)[)>\]]?/i;

/** What a title makes of an address, below that of its parent. */
const slugOf = (title: string) =>
  title
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-|-$/g, '');

const folderOf = (address: string) => (address.endsWith('/') ? address : `${address.split(/[?#]/)[0]}/`);

/** Gathers pages, each address once. */
function gatherer(start: string) {
  const pages: OutlinePage[] = [];
  const faults: Outline['faults'] = [];
  const places = new Map<string, number>();
  let isToldFull = false;
  return {
    pages,
    faults,
    fault: (line: number, message: Message) => void faults.push({ line, message }),
    /** Whether no more pages are taken, which is told once. */
    isFull(line: number): boolean {
      if (pages.length < MOST_PAGES) return false;
      if (!isToldFull) faults.push({ line, message: { code: 'outline_long', most: MOST_PAGES } });
      return (isToldFull = true);
    },
    /** @returns the place of the page; −1 where there is none */
    add(line: number, { text, title, parent }: { text: string; title: string; parent: number }): number {
      const above = parent < 0 ? start : pages[parent].address;
      const slug = slugOf(title);
      const address = identify(text || (slug === '' ? '' : folderOf(above) + slug), above)?.address;
      if (!address || (!text && slug === '')) {
        faults.push({ line, message: { code: 'outline_no_address', text: text || title } });
        return -1;
      }
      if (places.has(address)) {
        faults.push({ line, message: { code: 'outline_twice', address, first: pages[places.get(address)!].line } });
        return places.get(address)!;
      }
      places.set(address, pages.length);
      return (
        pages.push({
          address,
          title,
          parent,
          level: parent < 0 ? Number(address !== start) : pages[parent].level + 1,
          line,
        }) - 1
      );
    },
  };
}

function indentOf(line: string): number {
  let width = 0;
  for (const char of line) {
    if (char === '\t') width += TAB - (width % TAB);
    else if (char === ' ') width++;
    else break;
  }
  return width;
}

function readIndented(text: string, start: string): Outline {
  const gathered = gatherer(start);
  /** The pages above, with how far each is indented. */
  const above: { indent: number; page: number }[] = [];
  text.split(/\r\n|\r|\n/).forEach((written, i) => {
    if (written.trim() === '') return;
    if (gathered.isFull(i + 1)) return;
    const [marks] = bullet.exec(written.trim()) ?? [''];
    // Headings of Markdown say by their number of marks how deep they are.
    const indent = marks.startsWith('#') ? marks.trim().length : indentOf(written);
    const content = written.trim().slice(marks.length, MOST_OF_LINE).replace(/\s+/g, ' ');
    const found = place.exec(content);
    const title = (found ? content.replace(found[0], ' ') : content)
      .replace(/\s+/g, ' ')
      .replace(/^[\s:–-]+/, '')
      .replace(/[:–-]? ?$/, '')
      .trim();
    while (above.length && above[above.length - 1].indent >= indent) above.pop();
    const parent = above.at(-1)?.page ?? -1;
    const page = gathered.add(i + 1, { text: found?.[1] ?? '', title, parent });
    if (page >= 0) above.push({ indent, page });
  });
  return gathered;
}

const addressColumn = /^(url|address|page|path|loc)$/i;
const parentColumn = /^(parent|parent[ _-]?url|above|up)$/i;
const titleColumn = /^(title|name|label)$/i;

interface Row {
  line: number;
  text: string;
  /** Its parent as written; '' for a page at the top. */
  above: string;
  title: string;
}

function readTable(text: string, start: string, delimiter: string): Outline {
  const gathered = gatherer(start);
  let records: { record: string[]; info: { lines: number } }[] = [];
  try {
    const options = { delimiter, info: true, relax_column_count: true, skip_empty_lines: true, trim: true, bom: true };
    records = parse(text, options) as unknown as typeof records;
  } catch (error) {
    gathered.fault(1, { code: 'outline_table', detail: error instanceof Error ? error.message : String(error) });
    return gathered;
  }
  const [head, ...rows] = records;
  const at = (pattern: RegExp) => head.record.findIndex((name) => pattern.test(name));
  const [address, parent, title] = [at(addressColumn), at(parentColumn), at(titleColumn)];
  const nameOf = (text: string) => identify(text, start)?.address ?? text;
  /** The rows below each parent, as parents may come after their children. */
  const below = new Map<string, Row[]>();
  for (const { record, info } of rows) {
    const row = {
      line: info.lines,
      text: record[address] ?? '',
      above: record[parent] ?? '',
      title: record[title] ?? '',
    };
    const key = row.above && nameOf(row.above);
    const others = below.get(key);
    if (others) others.push(row);
    else below.set(key, [row]);
  }
  const open = (below.get('') ?? []).map((row) => ({ row, page: -1 })).reverse();
  below.delete('');
  for (let next = open.pop(); next; next = open.pop()) {
    const { row, page: above } = next;
    if (gathered.isFull(row.line)) return gathered;
    const page = gathered.add(row.line, { text: row.text, title: row.title, parent: above });
    const key = page < 0 ? '' : gathered.pages[page].address;
    for (const child of (below.get(key) ?? []).reverse()) open.push({ row: child, page });
    below.delete(key);
  }
  const left = [...below.values()].flat().sort((a, b) => a.line - b.line);
  for (const { line, above } of left) gathered.fault(line, { code: 'outline_no_parent', text: above });
  return gathered;
}

/**
 * Reads an outline: a table, when its first line names a column of addresses and one of parents, else lines that are
 * indented, each with a title, an address or both. A page without an address gets one from its title, below its parent.
 * @param start the address of the start page, which paths belong to
 */
export function readOutline(text: string, start: string): Outline {
  const [head] = text.trimStart().split(/\r\n|\r|\n/, 1);
  const delimiter = [',', ';', '\t'].find((one) => {
    const names = head.split(one).map((name) => name.replace(/^"|"$/g, '').trim());
    return names.some((name) => addressColumn.test(name)) && names.some((name) => parentColumn.test(name));
  });
  return delimiter ? readTable(text, start, delimiter) : readIndented(text, start);
}
