import { importFacts } from '../facts';
import type { DerivedFact } from '../facts';
import { unknownColumn } from '../snapshot';
import type { Base, Snapshot } from '../snapshot';
import { derivations, isColumnGiven } from './derivations';
import type { AnalysisSettings, Derivation, Input, Model } from './derivations';

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
