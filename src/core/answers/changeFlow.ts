/** From where to where the pages of two crawls went. */
import { freshPageOf, oldPageOf } from '../compare';
import type { Comparison } from '../compare';
import { pageClasses, reaches, verdicts } from '../facts';
import { findings } from '../findings';
import type { Thresholds } from '../findings';
import { evaluate, hasBit, parseSelection, quote } from '../selection';
import type { FlowCategory } from './flowCategories';
import type { View } from '../view';

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
  ({ old, fresh }: Comparison<View>): Told => ({
    values: names.map((value) => ({ value, select: `${fact} = ${value}` })),
    then: (page) => old.column(fact)[page],
    now: (page) => fresh.column(fact)[page],
  });

function ofDepth({ old, fresh }: Comparison<View>): Told {
  const none = DEEP + 1;
  const at = ({ column }: View) => {
    const depth = column('depth');
    return (page: number) => (depth[page] < 0 ? none : Math.min(DEEP, depth[page]));
  };
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

function ofSection({ old, fresh }: Comparison<View>): Told {
  const sizes = new Map<string, number>();
  for (const { column } of [old, fresh]) {
    const { codes, values } = column('section');
    for (const code of codes) {
      const name = values[code];
      sizes.set(name, (sizes.get(name) ?? 0) + 1);
    }
  }
  const ordered = [...sizes].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1)).map(([name]) => name);
  const named = ordered.slice(0, MOST_SECTIONS);
  const place = new Map(named.map((name, i) => [name, i]));
  const at = ({ column }: View) => {
    const section = column('section');
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
  return ({ old, fresh }: Comparison<View>): Told => {
    const finding = findings.find((one) => one.id === id);
    if (!finding || finding.over !== 'pages') return { values: [], then: () => -1, now: () => -1 };
    const select = finding.select(thresholds);
    const parsed = parseSelection(select);
    if (!parsed.ok) throw new Error(`${select}: ${parsed.fault.message}`);
    const at = (snapshot: View) => {
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
  comparison: Comparison<View>,
  category: FlowCategory,
  finding: string,
  thresholds: Thresholds,
): ChangeFlow {
  const tell: Record<FlowCategory, (comparison: Comparison<View>) => Told> = {
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
    // An address whose page has been paired with the one that it redirects to is not a page of its own.
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
