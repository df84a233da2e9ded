import { faultBit, linkFaults, linkKinds, RELATIVE, relSaysNofollow } from '../links';
import type { LinkFault } from '../links';
import { addressAt } from '../snapshot';
import type { Snapshot } from '../snapshot';
import { bitsOfCodes, bitsWhere, hasBit } from './bits';
import type { Bits } from './bits';
import { linkFacts } from './catalogue';
import type { LinkFactName } from './catalogue';
import { combine, evaluate, predicate } from './evaluate';
import type { Selection } from './parse';

const CLICK = linkKinds.indexOf('click');

/** The page each link stands on. */
export function sourcesOfLinks({ count, links: { offsets, target } }: Snapshot): Uint32Array {
  const source = new Uint32Array(target.length);
  for (let page = 0; page < count; page++) source.fill(page, offsets[page], offsets[page + 1]);
  return source;
}

/**
 * The links of a snapshot that a selection of links holds.
 * @param selection as `parseLinkSelection` gives it
 */
export function evaluateLinks(snapshot: Snapshot, selection: Selection): Bits {
  const { count, links, phrases, columns, checks } = snapshot;
  const size = links.target.length;
  let known: Uint32Array | undefined;
  const sources = () => (known ??= sourcesOfLinks(snapshot));
  const status = columns.status as Int32Array;
  const statusOf = (target: number) => (target < count ? status[target] : (checks[target - count]?.status ?? -1));

  const texts: Partial<Record<LinkFactName, Uint32Array>> = {
    anchor: links.anchor,
    rel: links.rel,
    above: links.path,
    fragment: links.fragment,
  };
  const choices: Partial<Record<LinkFactName, Uint8Array>> = {
    kind: links.kind,
    element: links.element,
    placement: links.landmark,
  };

  const flag = (fact: LinkFactName): Bits => {
    if (fact === 'external') return bitsWhere(size, (link) => links.target[link] >= count);
    if (fact === 'relative') return bitsWhere(size, (link) => (links.marks[link] & RELATIVE) !== 0);
    const source = sources();
    if (fact === 'self') return bitsWhere(size, (link) => links.target[link] === source[link]);
    const nofollow = Uint8Array.from(phrases, (text) => Number(relSaysNofollow(text)));
    const page = columns.page_nofollow as Int32Array;
    return bitsWhere(
      size,
      (link) => links.kind[link] === CLICK && nofollow[links.rel[link]] === 0 && page[source[link]] !== 1,
    );
  };

  const tested = (fact: LinkFactName, test: (value: string | number) => boolean): Bits => {
    const codes = texts[fact];
    if (codes)
      return bitsOfCodes(
        codes,
        Uint8Array.from(phrases, (text) => Number(test(text))),
      );
    if (fact === 'target') {
      const passes = new Uint8Array(count + snapshot.outside.length);
      for (let target = 0; target < passes.length; target++) passes[target] = Number(test(addressAt(snapshot, target)));
      return bitsOfCodes(links.target, passes);
    }
    const choice = choices[fact];
    if (choice) {
      const passes = Uint8Array.from(linkFacts[fact as 'kind'].values, (value) => Number(test(value)));
      return bitsWhere(size, (link) => passes[choice[link]] === 1);
    }
    if (fact === 'target_status')
      return bitsWhere(size, (link) => statusOf(links.target[link]) >= 0 && test(statusOf(links.target[link])));
    return bitsWhere(size, (link) => test(links.line[link]));
  };

  return combine(selection, size, (part) => {
    if (part.op === 'step') {
      const pages = evaluate(snapshot, part.of);
      if (part.step === 'to')
        return bitsWhere(size, (link) => links.target[link] < count && hasBit(pages, links.target[link]));
      const source = sources();
      return bitsWhere(size, (link) => hasBit(pages, source[link]));
    }
    if (!('fact' in part)) throw new Error(`“${part.op}” is no test of links.`);
    const fact = part.fact as LinkFactName;
    if (part.op === 'flag') return flag(fact);
    if (part.op === 'unknown')
      return bitsWhere(size, (link) => fact === 'target_status' && statusOf(links.target[link]) < 0);
    if (part.op === 'in') {
      const values = new Set(part.values);
      return tested(fact, (value) => values.has(value));
    }
    if (fact === 'faults' && linkFaults.includes(part.value as LinkFault)) {
      const bit = faultBit(part.value as LinkFault);
      return bitsWhere(size, (link) => (links.faults[link] & bit) !== 0);
    }
    return tested(fact, predicate(part.comparison, part.value));
  });
}
