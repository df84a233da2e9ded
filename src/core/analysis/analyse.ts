import { derivedFacts } from '../facts';
import type { DerivedFact } from '../facts';
import { analysedBase, withLayer } from '../snapshot';
import type { Base, Columns, Layer, Snapshot } from '../snapshot';
import { derivations, inputs, isColumnGiven } from './derivations';
import type { AnalysisSettings, Context, Derivation, Input, Interim } from './derivations';

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

/** What no snapshot keeps, and is let go as soon as nothing more is made of it. */
const passing = ['visitor', 'finalTargets'] as const satisfies readonly (keyof Interim)[];

/** What an analysis has worked out so far. */
interface Found {
  columns: Partial<Columns<DerivedFact>>;
  faults: Uint16Array | null;
}

/** Runs derivations over a model, which reads what they give from `found`. */
function run(
  model: Snapshot,
  found: Found,
  steps: readonly Derivation[],
  settings: AnalysisSettings,
  progress: Progress = () => {},
): void {
  const context: Partial<Context> & Pick<Context, 'settings'> = { settings };
  steps.forEach((derivation, done) => {
    progress(derivation.name, done, steps.length);
    const given = derivation.run(model, context as Context);
    for (const name of derivation.gives)
      if (isColumnGiven(name)) Object.assign(found.columns, { [name]: given[name] });
      else Object.assign(context, { [name]: given[name] });
    const isRead = (name: Input) => steps.some(({ reads }, later) => later > done && reads.includes(name));
    for (const name of passing) if (!isRead(name)) delete context[name];
  });
  found.faults = context.linkFaults ?? null;
}

/** Reads a result of an analysis. @throws Error when it has not been worked out */
function needed<T>(result: T | null | undefined, name: string): T {
  if (result === undefined || result === null) throw new Error(`“${name}” was not worked out.`);
  return result;
}

const thunksOf = (found: Found, facts: readonly DerivedFact[]): Layer['columns'] =>
  Object.fromEntries(facts.map((name) => [name, () => needed(found.columns[name], name)]));

/**
 * Works every derived fact of a site out of its base: verdicts, depths, reach, share, gates, duplicates, faults of
 * links. A pure function of its arguments; it runs on the server, in a thread, at the terminal and in a worker of the
 * browser.
 * @param progress called before each step
 */
export function analyse(base: Base, settings: AnalysisSettings, progress?: Progress): Snapshot {
  const found: Found = { columns: {}, faults: null };
  const model = analysedBase(base, thunksOf(found, derivedFacts), () => needed(found.faults, 'faults'));
  run(model, found, derivations, settings, progress);
  return model;
}

/**
 * Puts a layer on a snapshot and works out again what it makes wrong, and no more.
 * @param wanted the facts that are asked for: others that the layer touches cannot be read; all without it
 */
export function analyseWith(
  below: Snapshot,
  layer: Layer,
  settings: AnalysisSettings,
  { progress, wanted }: { progress?: Progress; wanted?: readonly DerivedFact[] } = {},
): Snapshot {
  const edited = withLayer(below, layer);
  const changed = inputs.filter(edited.gives);
  const stale = [...staleAfter(changed)].flatMap(({ gives }) => gives);
  const steps = derivationsAfter(changed, wanted);
  const found: Found = { columns: {}, faults: null };
  const touchesFaults = stale.includes('linkFaults');
  const columns = thunksOf(found, stale.filter(isColumnGiven));
  const model = withLayer(edited, {
    columns,
    faults: touchesFaults ? () => needed(found.faults, 'faults') : undefined,
  });
  run(model, found, steps, settings, progress);
  return model;
}
