/** A pattern of `matches` as a machine of states (Thompson, "Regular expression search algorithm", 1968). */
import { selectionFault } from '../errors';
import { withBothCases } from './patternSyntax';
import type { Node, Range } from './patternSyntax';

const MAX_STATES = 2000;
/** Parts of a pattern, those that are repeated each time. */
const MAX_PARTS = 20_000;

/**
 * States of the machine: one that takes a character, one that splits, ones that ask for an end of the text, the last.
 */
export type State =
  | { op: 'take'; ranges: Range[]; next: number }
  | { op: 'split'; next: number[] }
  | { op: 'start' | 'end'; next: number }
  | { op: 'match' };

/** Builds the machine of a pattern. @throws selection when it is too large */
export function statesOf(node: Node): { states: State[]; first: number } {
  const states: State[] = [{ op: 'match' }];
  const add = (state: State): number => {
    if (states.length >= MAX_STATES) throw selectionFault('This pattern is too large.', 0, 1);
    return states.push(state) - 1;
  };
  let built = 0;
  const build = (node: Node, next: number): number => {
    // A part that takes no character adds no state, however often it is repeated.
    if (++built > MAX_PARTS) throw selectionFault('This pattern is too large.', 0, 1);
    switch (node.op) {
      case 'set':
        return add({ op: 'take', ranges: withBothCases(node.ranges), next });
      case 'start':
      case 'end':
        return add({ op: node.op, next });
      case 'nothing':
        return next;
      case 'row':
        return node.parts.reduceRight((after, part) => build(part, after), next);
      case 'either':
        return add({ op: 'split', next: node.parts.map((part) => build(part, next)) });
      case 'repeat': {
        let after = next;
        if (node.most === Infinity) {
          const loop = add({ op: 'split', next: [next] });
          (states[loop] as { next: number[] }).next.push(build(node.of, loop));
          after = loop;
        } else
          for (let i = node.least; i < node.most; i++)
            after = add({ op: 'split', next: [build(node.of, after), next] });
        for (let i = 0; i < node.least; i++) after = build(node.of, after);
        return after;
      }
    }
  };
  return { first: build(node, 0), states };
}
