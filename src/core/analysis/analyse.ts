import { derivedFacts, importFacts } from '../facts';
import type { DerivedFact } from '../facts';
import { unknownColumn } from '../snapshot';
import type { Base, Derived, Snapshot } from '../snapshot';
import { derivations, isColumnGiven } from './derivations';
import type { AnalysisSettings, Derivation, Input, Interim, Model } from './derivations';

/** Told what is being worked out, and how many steps of the analysis are done. */
export type Progress = (step: string, done: number, of: number) => void;

/** The derivations whose results a change of some inputs makes wrong. */
function staleAfter(changed: Iterable<Input>): Set<Derivation> {
  const stale = new Set<Input>(changed);
  const touched = new Set<Derivation>();
  for (const derivation of derivations)
    if (derivation.reads.some((input) => stale.has(input))) {
      touched.add(derivation);
      for (const given of derivation.gives) stale.add(given);
    }
  return touched;
}

/** Those of some derivations that certain facts depend on. */
function neededFor(wanted: Iterable<Input>, among: ReadonlySet<Derivation>): Set<Derivation> {
  const needed = new Set<Input>(wanted);
  const found = new Set<Derivation>();
  for (const derivation of [...derivations].reverse())
    if (among.has(derivation) && derivation.gives.some((given) => needed.has(given))) {
      found.add(derivation);
      for (const input of derivation.reads) needed.add(input);
    }
  return found;
}

/**
 * The derivations that a change of some inputs touches, in the order in which they run.
 * @param wanted facts that are asked for; all without it
 */
export function derivationsAfter(changed: Iterable<Input>, wanted?: Iterable<Input>): Derivation[] {
  const stale = staleAfter(changed);
  const touched = wanted ? neededFor(wanted, stale) : stale;
  // What is not kept after an analysis is made again when it is read.
  for (const derivation of [...derivations].reverse()) {
    const isRead = (given: Input) => [...touched].some(({ reads }) => reads.includes(given));
    if (derivation.gives.some((given) => !isColumnGiven(given) && isRead(given))) touched.add(derivation);
  }
  return derivations.filter((derivation) => touched.has(derivation));
}

/** Gives an object a member of its own, whatever it inherits. */
const put = (object: object, name: string, value: unknown) =>
  Object.defineProperty(object, name, { value, enumerable: true, writable: true, configurable: true });
/** As {@link put}, read when it is first asked for: it may not even be there. */
const putLazily = (object: object, name: string, read: () => unknown) =>
  Object.defineProperty(object, name, {
    get: () => {
      const value = read();
      put(object, name, value);
      return value;
    },
    enumerable: true,
    configurable: true,
  });

/** What no snapshot has; the faults of links are taken over from the model. */
const passing = ['visitor', 'finalTargets'] as const satisfies readonly (keyof Interim)[];

/**
 * Runs derivations over a base. Objects inherit from the base instead of copying it: its columns are decoded when they
 * are first read.
 */
function run(
  base: Base,
  kept: { from: Snapshot; facts: readonly DerivedFact[] } | null,
  steps: readonly Derivation[],
  settings: AnalysisSettings,
  progress: Progress = () => {},
): Model {
  const columns = Object.create(base.columns) as Snapshot['columns'];
  for (const name of kept?.facts ?? []) putLazily(columns, name, () => kept!.from.columns[name]);
  const model = Object.create(base) as Model;
  put(model, 'columns', columns);
  put(model, 'settings', settings);
  steps.forEach((derivation, done) => {
    progress(derivation.name, done, steps.length);
    const given = derivation.run(model);
    for (const name of derivation.gives) put(isColumnGiven(name) ? columns : model, name, given[name]);
    // A graph of all links is let go as soon as nothing more is made of it.
    const isRead = (name: Input) => steps.some(({ reads }, later) => later > done && reads.includes(name));
    for (const name of passing) if (name in model && !isRead(name)) put(model, name, undefined);
  });
  return model;
}

function snapshotOf(base: Base, columns: Snapshot['columns'], faults: () => Uint16Array): Snapshot {
  const snapshot = Object.create(base) as Snapshot;
  for (const name of importFacts) if (!(name in columns)) put(columns, name, unknownColumn(name, base.count));
  put(snapshot, 'columns', columns);
  put(snapshot, 'links', putLazily(Object.create(base.links) as object, 'faults', faults));
  return snapshot;
}

/**
 * Works every derived fact of a site out of its base: verdicts, depths, reach, share, gates, duplicates, faults of links.
 * A pure function of its arguments; it runs on the server, in a thread, at the terminal and in a worker of the browser.
 * @param progress called before each step
 */
export function analyse(base: Base, settings: AnalysisSettings, progress?: Progress): Snapshot {
  const { columns, linkFaults } = run(base, null, derivations, settings, progress);
  return snapshotOf(base, columns, () => linkFaults);
}

/**
 * Two parts of an analysis that need little of each other and take about as long, for two threads: what the graph of links
 * says of pages, and all the rest.
 */
export const halves = ['graph', 'rest'] as const;
export type Half = (typeof halves)[number];

const ofGraph: readonly DerivedFact[] = [
  ...(['links_in', 'pages_linking', 'links_out', 'pages_linked', 'external_links', 'content_links'] as const),
  ...(['depth', 'reach', 'island', 'island_size', 'gate_for', 'crawler_depth', 'held_back'] as const),
  ...(['share', 'peer_share', 'section'] as const),
];

/** Works the facts of one half out, as {@link analyse} does. @param progress called before each of its steps */
export function analyseHalf(base: Base, settings: AnalysisSettings, half: Half, progress?: Progress): Derived {
  const facts = derivedFacts.filter((name) => ofGraph.includes(name) === (half === 'graph'));
  const needed = neededFor(half === 'rest' ? [...facts, 'linkFaults'] : facts, new Set(derivations));
  const steps = derivations.filter((derivation) => needed.has(derivation));
  const { columns, linkFaults } = run(base, null, steps, settings, progress);
  const found = Object.fromEntries(facts.map((name) => [name, columns[name]]));
  return { columns: found as Derived['columns'], faults: half === 'rest' ? linkFaults : null };
}

/**
 * The analysis of an edited base: as {@link analyse}, but only what the edit touches is worked out again.
 * @param before the snapshot of the base before it was edited, with the same pages
 * @param changed what the edit has changed
 * @param wanted the facts that are asked for: others that the edit touches are not in the result; all without it
 */
export function analyseAgain(
  before: Snapshot,
  base: Base,
  changed: Iterable<Input>,
  settings: AnalysisSettings,
  { progress, wanted }: { progress?: Progress; wanted?: readonly DerivedFact[] } = {},
): Snapshot {
  const steps = derivationsAfter(changed, wanted);
  const stale = staleAfter(changed);
  const facts = derivations
    .filter((derivation) => !steps.includes(derivation) && !stale.has(derivation))
    .flatMap(({ gives }) => gives.filter(isColumnGiven));
  const { columns, linkFaults } = run(base, { from: before, facts }, steps, settings, progress);
  return snapshotOf(base, columns, () => linkFaults ?? before.links.faults);
}
