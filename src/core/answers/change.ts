/** What the screen Change says: what moved from one crawl to another, and from where to where. */
import { changedByLinks, changedInLinksOnly, classCounts, freshPageOf, oldPageOf } from '../compare';
import type { ComparedSnapshot, Comparison } from '../compare';
import { comparedFacts, pageClasses, reaches, verdicts } from '../facts';
import type { ComparedFact, PageClass } from '../facts';
import { findings } from '../findings';
import type { Thresholds } from '../findings';
import { thousands } from '../numbers';
import { evaluate, hasBit, parseSelection, quote } from '../selection';
import { isText, memoOf, pagesOfCodes } from '../snapshot';
import type { Snapshot } from '../snapshot';
import type { FlowCategory } from './flowCategories';
import { plural } from './pieces';
import type { AnswerPiece } from './pieces';

/** One of the values by which pages are told apart, and the selection of those that have it. */
export interface FlowValue {
  value: string;
  select: string;
  then: number;
  now: number;
}

/** The pages that went from one value to another; −1 for those that only one of the crawls knows. */
export interface Stream {
  from: number;
  to: number;
  pages: number;
  /** The selection of them. */
  select: string;
}

export interface ChangeFlow {
  values: FlowValue[];
  /** The largest first. */
  streams: Stream[];
}

const ADDED = pageClasses.indexOf('added');

/** Depths from here on are one value, and sections beyond so many. */
const DEEP = 7;
const MOST_SECTIONS = 11;

/** The values of a category, and the value of each page of both crawls. */
interface Told {
  values: (Omit<FlowValue, 'then' | 'now'> & {
    /** Whether the selection also holds pages of which nothing is known now. */
    holdsUnknown?: boolean;
  })[];
  then: (page: number) => number;
  now: (page: number) => number;
}

const ofChoice =
  (fact: 'verdict' | 'reach', names: readonly string[]) =>
  ({ old, fresh }: Comparison): Told => ({
    values: names.map((value) => ({ value, select: `${fact} = ${value}` })),
    then: (page) => old.columns[fact][page],
    now: (page) => fresh.columns[fact][page],
  });

function ofDepth({ old, fresh }: Comparison): Told {
  const none = DEEP + 1;
  const at =
    ({ columns: { depth } }: Snapshot) =>
    (page: number) =>
      depth[page] < 0 ? none : Math.min(DEEP, depth[page]);
  return {
    values: [
      ...Array.from({ length: DEEP }, (_, depth) => ({ value: String(depth), select: `depth = ${depth}` })),
      { value: `${DEEP}+`, select: `depth >= ${DEEP}` },
      { value: '', select: 'depth is unknown', holdsUnknown: true },
    ],
    then: at(old),
    now: at(fresh),
  };
}

function ofSection({ old, fresh }: Comparison): Told {
  const sizes = new Map<string, number>();
  for (const { columns, count } of [old, fresh])
    for (let page = 0; page < count; page++) {
      const name = columns.section.values[columns.section.codes[page]];
      sizes.set(name, (sizes.get(name) ?? 0) + 1);
    }
  const ordered = [...sizes].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1)).map(([name]) => name);
  const named = ordered.slice(0, MOST_SECTIONS);
  const place = new Map(named.map((name, i) => [name, i]));
  const at = ({ columns: { section } }: Snapshot) => {
    if (!isText(section)) throw new Error('A section is a text.');
    const places = section.values.map((name) => place.get(name) ?? named.length);
    return (page: number) => places[section.codes[page]];
  };
  const others = ordered.length > named.length;
  return {
    values: [
      ...named.map((name) => ({ value: `/${name}`, select: `section = ${quote(name)}` })),
      ...(others
        ? [{ value: '…', select: `not section in (${named.map(quote).join(', ')})`, holdsUnknown: true }]
        : []),
    ],
    then: at(old),
    now: at(fresh),
  };
}

function ofFinding(id: string, thresholds: Thresholds) {
  return ({ old, fresh }: Comparison): Told => {
    const finding = findings.find((one) => one.id === id);
    if (!finding || finding.over !== 'pages') return { values: [], then: () => -1, now: () => -1 };
    const select = finding.select(thresholds);
    const parsed = parseSelection(select);
    if (!parsed.ok) throw new Error(`${select}: ${parsed.fault.message}`);
    const at = (snapshot: Snapshot) => {
      const bits = evaluate(snapshot, parsed.selection);
      return (page: number) => (hasBit(bits, page) ? 0 : 1);
    };
    return {
      values: [
        { value: 'with', select: `(${select})` },
        { value: 'without', select: `not (${select})`, holdsUnknown: true },
      ],
      then: at(old),
      now: at(fresh),
    };
  };
}

/**
 * From which value to which the pages of two crawls went.
 * @param finding the id of a finding over pages, for the category of that name
 */
export function changeFlow(
  comparison: Comparison,
  category: FlowCategory,
  finding: string,
  thresholds: Thresholds,
): ChangeFlow {
  const tell: Record<FlowCategory, (comparison: Comparison) => Told> = {
    verdict: ofChoice('verdict', verdicts),
    reach: ofChoice('reach', reaches),
    depth: ofDepth,
    section: ofSection,
    finding: ofFinding(finding, thresholds),
  };
  const { values, then, now } = tell[category](comparison);
  const side = values.length + 1;
  const counts = new Uint32Array(side * side);
  for (let row = 0; row < comparison.rows; row++) {
    const [was, is] = [oldPageOf(comparison, row), freshPageOf(comparison, row)];
    // An address whose page has been paired with the one that it redirects to is no page of its own.
    if (was < 0 && comparison.change[row] !== ADDED) continue;
    const from = was < 0 ? -1 : then(was);
    const to = is < 0 ? -1 : now(is);
    counts[(from + 1) * side + to + 1]++;
  }
  const sum = (of: (i: number) => number) => {
    let total = 0;
    for (let i = 0; i < side; i++) total += counts[of(i)];
    return total;
  };
  const streams: Stream[] = [];
  counts.forEach((pages, at) => {
    if (pages === 0) return;
    const [from, to] = [Math.floor(at / side) - 1, (at % side) - 1];
    const selects = [
      from < 0 ? 'new' : `was (${values[from].select})`,
      to < 0 ? 'removed' : values[to].select,
      ...(to >= 0 && values[to].holdsUnknown ? ['not removed'] : []),
    ];
    streams.push({ from, to, pages, select: selects.join(' and ') });
  });
  return {
    values: values.map(({ value, select }, i) => ({
      value,
      select,
      then: sum((j) => (i + 1) * side + j),
      now: sum((j) => j * side + i + 1),
    })),
    streams: streams.sort((a, b) => b.pages - a.pages),
  };
}

export interface ChangeCounts {
  /** Pages of each class. */
  classes: Record<PageClass, number>;
  /** Pages of which each fact differs. */
  facts: { fact: ComparedFact; pages: number }[];
  /** Indexable then and not now, and the other way; the same of having a route, among those that are known still. */
  lost: number;
  won: number;
  routesLost: number;
  routesWon: number;
  /** Changed pages of which only what links to them and what they link to differs. */
  linksOnly: number;
  /** New pages to which pages that have moved lead. */
  arrived: number;
}

const MOVED = pageClasses.indexOf('moved');

/** New pages to which pages that have moved lead. */
function arrivedPages({ fresh, change }: Comparison): number {
  const ends = fresh.columns.redirect_end;
  const pages = pagesOfCodes(fresh, ends);
  const arrived = new Set<number>();
  for (let page = 0; page < fresh.count; page++) {
    const end = change[page] === MOVED && ends.codes[page] ? pages[ends.codes[page]] : -1;
    if (end >= 0 && change[end] === ADDED) arrived.add(end);
  }
  return arrived.size;
}

const INDEXABLE = verdicts.indexOf('indexable');
const REACHED = reaches.indexOf('reached');

/** What the numbers of Change are made of, kept as long as the comparison. */
export const changeCounts = memoOf((comparison: Comparison): ChangeCounts => {
  const { old, fresh } = comparison;
  const facts = comparedFacts.map(() => 0);
  const counts = { lost: 0, won: 0, routesLost: 0, routesWon: 0, linksOnly: 0 };
  for (let row = 0; row < comparison.rows; row++) {
    for (let bits = comparison.changed[row]; bits !== 0; bits &= bits - 1) facts[31 - Math.clz32(bits & -bits)]++;
    if (changedInLinksOnly(comparison, row)) counts.linksOnly++;
    const [was, is] = [oldPageOf(comparison, row), freshPageOf(comparison, row)];
    const has = ({ columns }: Snapshot, page: number, fact: 'verdict' | 'reach', value: number) =>
      page >= 0 && columns[fact][page] === value;
    const [before, after] = [has(old, was, 'verdict', INDEXABLE), has(fresh, is, 'verdict', INDEXABLE)];
    if (before && !after) counts.lost++;
    if (after && !before) counts.won++;
    if (was < 0 || is < 0) continue;
    const [route, routeNow] = [has(old, was, 'reach', REACHED), has(fresh, is, 'reach', REACHED)];
    if (route && !routeNow) counts.routesLost++;
    if (routeNow && !route) counts.routesWon++;
  }
  return {
    classes: classCounts(comparison),
    arrived: arrivedPages(comparison),
    facts: comparedFacts.map((fact, i) => ({ fact, pages: facts[i] })).filter(({ pages }) => pages > 0),
    ...counts,
  };
});

/** Selections of what the answer counts. */
export const changeSelections = {
  lost: 'was (indexable) and not indexable',
  won: 'indexable and not was (indexable)',
  routesLost: 'was (reached) and not reached and not removed',
  routesWon: 'reached and was (not reached)',
  linksOnly: `changed and not (${comparedFacts
    .filter((fact) => !(changedByLinks as readonly string[]).includes(fact))
    .map((fact) => `changed(${fact})`)
    .join(' or ')})`,
} as const;

/**
 * The answer of Change, in one or two sentences.
 * @param since how the earlier crawl is named, as in `crawl 12 of 3 Oct`
 */
export function changeAnswer({ comparison }: ComparedSnapshot, since: string): AnswerPiece[] {
  const { classes, lost, won, routesLost, linksOnly, facts } = changeCounts(comparison);
  const told: [PageClass, one: string, many: string][] = [
    ['added', 'page is new', 'pages are new'],
    ['removed', 'is no longer known', 'are no longer known'],
    ['gone', 'is gone', 'are gone'],
    ['returned', 'has returned', 'have returned'],
    ['moved', 'has moved', 'have moved'],
    ['changed', 'has changed', 'have changed'],
  ];
  const parts = told.filter(([change]) => classes[change] > 0);
  if (parts.length === 0)
    return [{ text: `Nothing has moved since ${since}: all ${thousands(classes.same)} pages are as they were.` }];
  const pieces: AnswerPiece[] = [{ text: `Since ${since}, ` }];
  parts.forEach(([change, one, many], i) => {
    if (i > 0) pieces.push({ text: i === parts.length - 1 ? ' and ' : ', ' });
    const n = classes[change];
    // The first part says what is counted.
    const noun = i === 0 && change !== 'added' ? plural(n, 'page ', 'pages ') : '';
    pieces.push({
      text: thousands(n),
      select: change === 'added' ? 'new' : change,
      ...((change === 'gone' || change === 'removed') && { tone: 'lost' as const }),
    });
    pieces.push({ text: ` ${noun}${plural(n, one, many)}` });
    if (change === 'changed' && linksOnly)
      pieces.push(
        { text: ', ' },
        { text: linksOnly === n ? 'all' : thousands(linksOnly), select: changeSelections.linksOnly },
        { text: ' of them only in their links' },
      );
  });
  pieces.push({ text: '. ' });
  if (lost || won) {
    if (lost)
      pieces.push(
        { text: thousands(lost), select: changeSelections.lost, tone: 'lost' },
        { text: ` ${plural(lost, 'page', 'pages')} could be indexed then and cannot now` },
      );
    if (won)
      pieces.push(
        { text: lost ? '; ' : '' },
        { text: thousands(won), select: changeSelections.won, tone: 'calm' },
        {
          text: lost
            ? ' can now and could not then'
            : ` ${plural(won, 'page', 'pages')} can be indexed now and could not then`,
        },
      );
    pieces.push({ text: routesLost ? ', and ' : '.' });
  }
  if (routesLost)
    pieces.push(
      { text: thousands(routesLost), select: changeSelections.routesLost, tone: 'lost' },
      { text: ` lost ${plural(routesLost, 'its route', 'their routes')}.` },
    );
  if (!lost && !won && !routesLost && facts.length)
    pieces.push({ text: 'What may be indexed, and what can be reached, is as it was.' });
  return pieces.filter(({ text }) => text !== '');
}
