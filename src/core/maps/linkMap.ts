/**
 * Links: the graph itself. Each page is a node, or, where there are too many, each group of pages of one section and
 * community; an edge stands for the links from one node to another.
 */
import { everywherePages } from '../communities';
import type { PageGraph } from '../reach';
import { clauseOf, quote } from '../selection';
import { addressAt, textAt } from '../snapshot';
import type { View } from '../view';
import type { Colouring } from './colouring';
import { byNextFolder, directlyIn, mapSections } from './folders';
import type { MapSections } from './folders';
import { partsOf, radiiBy } from './scene';

/** Nodes that are drawn at once. */
export const MOST_NODES = 2000;

/** A group that is looked into: a section, a community (null for pages in none), and a folder within. */
export interface OpenGroup {
  section: string | null;
  community: number | null;
  folder: string | null;
}

/** Reads how an address of a screen names a group; null when it names none. */
export function openGroupOf(item: string): OpenGroup | null {
  try {
    const { section, community, folder } = JSON.parse(item) as Record<keyof OpenGroup, unknown>;
    const textOf = (value: unknown) => (typeof value === 'string' ? value : null);
    return {
      section: textOf(section),
      community: typeof community === 'number' ? community : null,
      folder: textOf(folder),
    };
  } catch {
    return null;
  }
}

export interface LinkNode {
  /** An address, or what names an open group. */
  id: string;
  /** -1 for a group. */
  page: number;
  name: string | null;
  pages: Uint32Array;
  select: string;
  section: number;
  /** -1 for none. */
  community: number;
  /** Of its page that is nearest to the start; -1 without a route. */
  depth: number;
}

const pathAt = (view: View, page: number) => (textAt(view, 'path', page) ?? '/') + (textAt(view, 'query', page) ?? '');

const communityTest = (community: number | null) =>
  community === null ? 'community is unknown' : `community = ${community}`;

/** The pages that lie in a group. */
function pagesIn(
  view: View,
  { nameOf }: MapSections,
  pages: Uint32Array,
  { section, community, folder }: OpenGroup,
): Uint32Array {
  const communities = view.column('community');
  return pages.filter(
    (page) =>
      nameOf(page) === section &&
      communities[page] === (community ?? -1) &&
      (folder === null || (textAt(view, 'path', page) ?? '').startsWith(folder)),
  );
}

function nodeReader(view: View) {
  const { codes } = view.column('section');
  const [communities, depths] = [view.column('community'), view.column('depth')];
  return (node: Pick<LinkNode, 'id' | 'page' | 'name' | 'pages' | 'select'>): LinkNode => {
    const known = node.pages.filter((page) => depths[page] >= 0);
    return {
      ...node,
      section: codes[node.pages[0]],
      community: communities[node.pages[0]],
      depth: known.reduce((least, page) => Math.min(least, depths[page]), known.length > 0 ? Infinity : -1),
    };
  };
}

function groupsOf(view: View, { nameOf }: MapSections, pages: Uint32Array): Map<string, number[]> {
  const communities = view.column('community');
  const groups = new Map<string, number[]>();
  for (const page of pages) {
    const key = `${communities[page]} ${nameOf(page)}`;
    const own = groups.get(key);
    if (own) own.push(page);
    else groups.set(key, [page]);
  }
  return groups;
}

/** Nodes by falling numbers of pages, of which as many are kept as can be drawn. */
const largest = (nodes: LinkNode[]) =>
  nodes.sort((a, b) => b.pages.length - a.pages.length || (a.id < b.id ? -1 : 1)).slice(0, MOST_NODES);

/**
 * The nodes of some pages.
 * @param open a group that is looked into; null for all
 */
export function linkNodes(view: View, pages: Uint32Array, open: OpenGroup | null): LinkNode[] {
  const sections = mapSections(view);
  const own = open ? pagesIn(view, sections, pages, open) : pages;
  const nodeOf = nodeReader(view);
  if (own.length <= MOST_NODES)
    return Array.from(own, (page) =>
      nodeOf({
        id: addressAt(view, page),
        page,
        name: pathAt(view, page),
        pages: Uint32Array.of(page),
        select: clauseOf('url', addressAt(view, page)),
      }),
    );
  if (open) {
    const { shared, groups } = byNextFolder(view, own);
    const within = `${sections.testOf(open.section)} and ${communityTest(open.community)}`;
    return largest(
      [...groups].map(([folder, pages]) =>
        nodeOf({
          id: JSON.stringify({ ...open, folder }),
          page: -1,
          name: folder,
          pages: Uint32Array.from(pages),
          select: `${within} and ${folder === shared ? directlyIn(folder) : `path starts ${quote(folder)}`}`,
        }),
      ),
    );
  }
  const communities = view.column('community');
  return largest(
    [...groupsOf(view, sections, own).values()].map((pages) => {
      const section = sections.nameOf(pages[0]);
      const community = communities[pages[0]] < 0 ? null : communities[pages[0]];
      return nodeOf({
        id: JSON.stringify({ section, community, folder: null } satisfies OpenGroup),
        page: -1,
        name: section,
        pages: Uint32Array.from(pages),
        select: `${sections.testOf(section)} and ${communityTest(community)}`,
      });
    }),
  );
}

/** By page the number of its node; -1 for pages in none. */
export function nodeOfPages(count: number, nodes: readonly LinkNode[]): Int32Array {
  const of = new Int32Array(count).fill(-1);
  nodes.forEach(({ pages }, node) => pages.forEach((page) => (of[page] = node)));
  return of;
}

/** Links between nodes, in columns. */
export interface Edges {
  from: Uint32Array;
  to: Uint32Array;
  /** How many pairs of pages are linked. */
  pairs: Uint32Array;
  /** 1 where there are links back. */
  isMutual: Uint8Array;
  /** 1 where all lead to pages that so many link to that it says nothing. */
  isEverywhere: Uint8Array;
}

/** The links between nodes. */
export function edgesBetween(graph: PageGraph, nodes: readonly LinkNode[]): Edges {
  const of = nodeOfPages(graph.count, nodes);
  const everywhere = everywherePages(graph);
  const size = nodes.length;
  const pairs = new Map<number, { pairs: number; isEverywhere: boolean }>();
  for (let page = 0; page < graph.count; page++) {
    const from = of[page];
    if (from < 0) continue;
    for (let at = graph.offsets[page]; at < graph.offsets[page + 1]; at++) {
      const to = of[graph.targets[at]];
      if (to < 0 || to === from) continue;
      const isEverywhere = everywhere[graph.targets[at]] === 1;
      const known = pairs.get(from * size + to);
      if (!known) pairs.set(from * size + to, { pairs: 1, isEverywhere });
      else {
        known.pairs++;
        known.isEverywhere &&= isEverywhere;
      }
    }
  }
  const keys = [...pairs.keys()];
  const values = [...pairs.values()];
  return {
    from: Uint32Array.from(keys, (key) => Math.floor(key / size)),
    to: Uint32Array.from(keys, (key) => key % size),
    pairs: Uint32Array.from(values, (value) => value.pairs),
    isMutual: Uint8Array.from(keys, (key) => Number(pairs.has((key % size) * size + Math.floor(key / size)))),
    isEverywhere: Uint8Array.from(values, (value) => Number(value.isEverywhere)),
  };
}

/** How a node is drawn. */
export interface NodeLook {
  /** In the units of the layout. */
  radius: number;
  /** The most frequent category of its pages. */
  category: number;
  parts: number[];
}

const LEAST_RADIUS = 3.5;
const MOST_RADIUS = 11;
const MOST_GROUP_RADIUS = 40;

/** How nodes are drawn: pages by a number of theirs, groups by how many pages they have. */
export function nodeLooks(
  nodes: readonly LinkNode[],
  { of, categories }: Colouring,
  sizes: ArrayLike<number> | null,
): NodeLook[] {
  const single = Uint32Array.from(nodes.filter(({ page }) => page >= 0).map(({ page }) => page));
  const radii = radiiBy(sizes, single, LEAST_RADIUS, MOST_RADIUS);
  const most = nodes.reduce((all, { pages }) => Math.max(all, pages.length), 1);
  return nodes.map(({ page, pages }) => {
    const parts = partsOf(pages, of, categories.length);
    const category = parts.indexOf(Math.max(...parts));
    const radius =
      page >= 0 ? radii.get(page)! : Math.max(LEAST_RADIUS, MOST_GROUP_RADIUS * Math.sqrt(pages.length / most));
    return { radius, category, parts };
  });
}
