/** The words of the selection language besides the facts, for whoever reads, offers, colours or explains them. */
import { importKinds } from '../imports/source';
import type { Step } from './selection';

/** Steps along the links of a visitor. */
export const pageSteps = ['linked from', 'links to', 'only through'] as const satisfies Step[];
/** Steps from links to the pages that they are on and lead to. */
export const linkSteps = ['from', 'to'] as const satisfies Step[];

/**
 * What may begin a test, besides facts and the words that stand for one: the beginning as it is offered, and what it
 * is.
 */
export const testBeginnings = {
  pages: [
    ...['seen in', ...importKinds.map((kind) => `${kind}("`)].map((text) => ({ text, about: 'Source' })),
    ...['linked from (', 'links to (', 'within 2 of (', 'only through ('].map((text) => ({
      text,
      about: 'Step along links',
    })),
    { text: 'text has "', about: 'Words in the main content' },
    ...['was (', 'changed('].map((text) => ({ text, about: 'Earlier crawl' })),
    ...['not', '('].map((text) => ({ text, about: '' })),
  ],
  links: [
    ...['from (', 'to ('].map((text) => ({ text, about: 'Step along links' })),
    ...['not', '('].map((text) => ({ text, about: '' })),
  ],
} as const;

/** Every word that joins tests, or is part of one and no fact. */
export const keywords: ReadonlySet<string> = new Set([
  ...['and', 'or', 'not', 'in', 'is', 'unknown', 'seen', 'text', 'within', 'of', 'was', 'changed'],
  ...[...pageSteps, ...linkSteps].flatMap((step) => step.split(' ')),
  ...importKinds,
]);
