import { derivedFacts } from '../facts';
import type { DerivedFact } from '../facts';
import { analysedBase, once, withLayer } from '../snapshot';
import type { Base, Columns, Layer, Snapshot } from '../snapshot';
import { derivations, inputs, isColumnGiven } from './derivations';
import type { AnalysisSettings, Context, Derivation, Given, Input, Interim } from './derivations';

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

/** The derivations whose results a change of some inputs makes wrong, in the order in which they run. */
export function derivationsAfter(changed: Iterable<Input>): Derivation[] {
  const stale = staleAfter(changed);
  return derivations.filter((derivation) => stale.has(derivation));
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
 * Puts a layer on a snapshot. What the layer makes wrong is worked out again when it is first read, and no more than
 * that.
 */
export function analyseWith(below: Snapshot, layer: Layer, settings: AnalysisSettings): Snapshot {
  const edited = withLayer(below, layer);
  const stale = derivationsAfter(inputs.filter(edited.gives));
  // Results that no snapshot keeps are made again whether or not they are stale.
  const runs = new Map(derivations.map((derivation) => [derivation, once(() => derivation.run(model, context))]));
  const result = <N extends keyof Given>(name: N): Given[N] => {
    const derivation = derivations.find(({ gives }) => gives.includes(name))!;
    return needed(runs.get(derivation)!()[name] as Given[N] | undefined, name);
  };
  const context: Context = {
    settings,
    get linkFaults() {
      return result('linkFaults');
    },
    get visitor() {
      return result('visitor');
    },
    get finalTargets() {
      return result('finalTargets');
    },
  };
  const given = stale.flatMap(({ gives }) => gives);
  const model: Snapshot = withLayer(edited, {
    columns: Object.fromEntries(given.filter(isColumnGiven).map((name) => [name, () => result(name)])),
    faults: given.includes('linkFaults') ? () => result('linkFaults') : undefined,
  });
  return model;
}
