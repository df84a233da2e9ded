/**
 * The source of a page as a person reads it: some lines of it, with places marked and long lines folded around them.
 */
import { readMarkup } from './bytes';
import { sourceSpans } from './highlight';
import type { SourcePart, SourceSpan } from './highlight';

/** A place in the bytes as received, from 1. */
export interface Place {
  line: number;
  column: number;
}

export interface SourceLine {
  number: number;
  /** In runs of one kind; `left` stands for so many characters that are left out. */
  runs: { text: string; marked: boolean; part?: SourcePart; left?: number }[];
}

export interface SourceWindow {
  lines: SourceLine[];
  /** How many lines there are. */
  total: number;
}

/** Lines longer than this are folded. */
const LONG = 400;
/** What stays in sight around a mark, or at the beginning of a line without one. */
const AROUND = 140;

/** Where what begins at a place ends: the end of the link, or of its tag. */
function endOf(line: string, from: number): number {
  const tag = line.indexOf('>', from);
  if (!/^<a[\s>]/i.test(line.slice(from, from + 3))) return tag < 0 ? line.length : tag + 1;
  const close = line.toLowerCase().indexOf('</a>', from);
  return close < 0 ? line.length : close + 4;
}

/**
 * Reads lines of a page.
 * @param bytes the page as received
 * @param charset as its Content-Type names it
 * @param marks places of links, in any order
 * @param from the first line, from 1
 */
export function sourceLines(
  bytes: Uint8Array,
  charset: string | undefined,
  marks: readonly Place[],
  from: number,
  count: number,
): SourceWindow {
  const { binary, decode } = readMarkup(bytes, charset);
  const starts = lineStarts(binary);
  const first = Math.max(1, Math.min(from, starts.length - count + 1));
  const shown = starts.slice(first - 1, first - 1 + count);
  const lastEnd = starts[first - 1 + count] ?? binary.length;
  const parts = sourceSpans(binary, lastEnd);
  let part = 0;
  return {
    total: starts.length,
    lines: shown.map((start, i) => {
      const number = first + i;
      const line = binary.slice(start, starts[number] ?? binary.length).replace(/[\r\n]+$/, '');
      while (part < parts.length && parts[part].to <= start) part++;
      const own: SourceSpan[] = [];
      for (let p = part; p < parts.length && parts[p].from < start + line.length; p++)
        own.push({ ...parts[p], from: parts[p].from - start, to: parts[p].to - start });
      const places = marks.filter((mark) => mark.line === number).sort((a, b) => a.column - b.column);
      const spans: [number, number][] = [];
      for (const { column } of places) {
        const begin = column - 1;
        const before = spans[spans.length - 1];
        if (!before || begin >= before[1]) spans.push([begin, endOf(line, begin)]);
      }
      return { number, runs: runsOf(line, spans, own, decode) };
    }),
  };
}

/** Where the lines of a document begin. */
export function lineStarts(text: string): number[] {
  const starts = [0];
  for (const { index, 0: end } of text.matchAll(/\r\n|\r|\n/g)) starts.push(index + end.length);
  return starts;
}

function runsOf(
  line: string,
  spans: readonly [number, number][],
  parts: readonly SourceSpan[],
  decode: (binary: string) => string,
) {
  const runs: SourceLine['runs'] = [];
  const addOne = (from: number, to: number, marked: boolean, part?: SourcePart) => {
    if (to > from) runs.push({ text: decode(line.slice(from, to)), marked, ...(part && { part }) });
  };
  /** Adds a piece of the line, a run for each part of it. */
  const add = (from: number, to: number, marked: boolean) => {
    let at = from;
    for (const span of parts) {
      if (span.to <= at) continue;
      if (span.from >= to) break;
      addOne(at, span.from, marked);
      const begin = Math.max(at, span.from);
      at = Math.min(to, span.to);
      addOne(begin, at, marked, span.part);
    }
    addOne(at, to, marked);
  };
  const leave = (from: number, to: number) => {
    if (to > from) runs.push({ text: '', marked: false, left: to - from });
  };
  let at = 0;
  for (const [from, to] of spans) {
    plain(at, from, at > 0, true);
    add(from, Math.min(to, from + LONG), true);
    leave(Math.min(to, from + LONG), to);
    at = to;
  }
  plain(at, line.length, spans.length > 0, false);
  return runs;

  /** What is not marked: folded when it is long, but for what is next to a mark. */
  function plain(from: number, to: number, afterMark: boolean, beforeMark: boolean) {
    if (line.length <= LONG || to - from <= 2 * AROUND) return add(from, to, false);
    const head = afterMark || !beforeMark ? from + AROUND : from;
    const tail = beforeMark ? to - AROUND : to;
    add(from, head, false);
    leave(head, tail);
    add(tail, to, false);
  }
}
