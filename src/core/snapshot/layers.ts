/**
 * Views of a crawl are made of layers. Each layer says what it gives in place of what is below it; readers do not know
 * which layers there are. A layer may append pages, and never renumbers those below.
 */
import { factOf, isColumnName } from '../facts';
import type { BaseFact, ColumnName } from '../facts';
import { linkInputs } from '../links';
import type { LinkInput } from '../links';
import { ofFact, unknownColumn } from './column';
import type { Column, ColumnReader, Columns } from './column';
import { linkFieldColumns } from './linkColumns';
import type { BaseLinks, LinkColumns } from './linkColumns';
import type { Base, BaseParts, PartName, Read, Snapshot } from './snapshot';

/** Makes something when it is first asked for, and keeps it. */
export function once<T>(make: () => T): () => T {
  let made: { value: T } | null = null;
  return () => (made ??= { value: make() }).value;
}

/** Reads columns by the names of their facts, each when it is first asked for. */
export function columnReader(read: (name: ColumnName) => Column): ColumnReader {
  const columns = new Map<ColumnName, Column>();
  return (name) => {
    let column = columns.get(name);
    if (!column) columns.set(name, (column = read(name)));
    return ofFact(name, column);
  };
}

/** What a layer gives of a base; each part is read when it is asked for. */
export type Layer = {
  /** How many pages there are, where the layer appends some. */
  count?: number;
  columns?: { [N in ColumnName]?: () => Columns[N] };
  links?: () => BaseLinks;
  /** What of the links differs from those below; everything without it. */
  changedLinks?: readonly LinkInput[];
  /** Faults of links (LinkColumns). */
  faults?: () => Uint16Array;
} & { [P in PartName]?: () => BaseParts[P] };

const isLinkInput = (what: Read): what is LinkInput => (linkInputs as readonly string[]).includes(what);

function givenBy(layer: Layer): (what: Read) => boolean {
  if (layer.count !== undefined) return () => true;
  const { columns = {}, links, changedLinks = linkInputs } = layer;
  return (what) => {
    if (isLinkInput(what)) return links !== undefined && changedLinks.includes(what);
    return isColumnName(what) ? what in columns : layer[what] !== undefined;
  };
}

/** A base, or what is below it, with another layer on top. */
function onTop<Reader extends ColumnReader<BaseFact>, Links extends BaseLinks>(
  below: Base,
  layer: Layer,
  column: Reader,
  links: () => Links,
) {
  return {
    below,
    gives: givenBy(layer),
    count: layer.count ?? below.count,
    column,
    get links() {
      return links();
    },
    get starts() {
      return layer.starts?.() ?? below.starts;
    },
    get listed() {
      return layer.listed?.() ?? below.listed;
    },
    get fingerprints() {
      return layer.fingerprints?.() ?? below.fingerprints;
    },
    get wordFilters() {
      return layer.wordFilters?.() ?? below.wordFilters;
    },
    get outside() {
      return layer.outside?.() ?? below.outside;
    },
    get checks() {
      return layer.checks?.() ?? below.checks;
    },
    get phrases() {
      return layer.phrases?.() ?? below.phrases;
    },
    get listings() {
      return layer.listings?.() ?? below.listings;
    },
    get alternates() {
      return layer.alternates?.() ?? below.alternates;
    },
    get files() {
      return layer.files?.() ?? below.files;
    },
  };
}

/** A column of a base; of other facts nothing is known to it. */
function observed(base: Base, name: ColumnName): Column {
  return isBaseFact(name) ? base.column(name) : unknownColumn(name, base.count);
}
const isBaseFact = (name: ColumnName): name is BaseFact => factOf(name).from === 'base';

/** Puts on a base what an analysis has worked out of it. */
export const analysedBase = (base: Base, columns: Layer['columns'], faults: () => Uint16Array): Snapshot =>
  onTop(
    base,
    { columns, faults },
    columnReader((name) => columns?.[name]?.() ?? observed(base, name)),
    once(() => linksWith(base.links, faults)),
  );

/** Links with their faults, which may never be asked for. */
const linksWith = (links: BaseLinks, faults: () => Uint16Array): LinkColumns => {
  const read = once(faults);
  return {
    offsets: links.offsets,
    ...linkFieldColumns((name) => links[name]),
    get faults() {
      return read();
    },
  };
};

/** Puts a layer on a snapshot. What is worked out of what it gives stays as it is below: see src/core/analysis. */
export const withLayer = (below: Snapshot, layer: Layer): Snapshot => {
  const { columns, links, faults } = layer;
  return onTop(
    below,
    layer,
    columnReader((name) => columns?.[name]?.() ?? below.column(name)),
    once(() =>
      links || faults ? linksWith(links?.() ?? below.links, faults ?? (() => below.links.faults)) : below.links,
    ),
  );
};
