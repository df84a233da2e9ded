/** Trees of pages: by the shortest routes to them, or by the folders of their addresses. */
import { clauseOf, quote } from '../selection';
import { addressAt, pagesNamed, textAt } from '../snapshot';
import type { View } from '../view';
import { directlyIn, folderOf } from './folders';

export interface TreeNode {
  id: string;
  /** The page that it is; -1 for a folder, or where it stands for several. */
  page: number;
  /** A path or host; null for the root of several starts. */
  name: string | null;
  /** The pages below it and itself, as far as they are drawn. */
  pages: number[];
  children: TreeNode[];
  /** What holds its pages; '' where the language has no words for them. */
  select: string;
  /** How many nodes that are alike it stands for. */
  folded?: number;
  /** A folder that has no page of its own. */
  isBare?: boolean;
}

/** Leaves of one folder, under one page, are folded when there are so many. */
const ALIKE = 4;

const byPages = (nodes: TreeNode[]) =>
  nodes.sort((a, b) => b.pages.length - a.pages.length || ((a.name ?? '') < (b.name ?? '') ? -1 : 1));

/** Puts leaves of one folder together. */
function foldAlike(parent: string, nodes: TreeNode[]): TreeNode[] {
  const leaves = new Map<string, TreeNode[]>();
  for (const node of nodes)
    if (node.children.length === 0) {
      const folder = folderOf(node.name ?? '/');
      leaves.set(folder, [...(leaves.get(folder) ?? []), node]);
    }
  const alike = [...leaves].filter(([, own]) => own.length >= ALIKE);
  const folded = new Set(alike.flatMap(([, own]) => own));
  /** Pages of the same folder that lead on. */
  const beside = (folder: string) =>
    nodes.filter(({ name, children }) => children.length > 0 && folderOf(name ?? '/') === folder);
  return [
    ...nodes.filter((node) => !folded.has(node)),
    ...alike.map(([folder, own]): TreeNode => ({
      id: `${parent} ${folder}*`,
      page: -1,
      name: `${folder}*`,
      pages: own.flatMap(({ pages }) => pages),
      children: byPages(own),
      select: [
        clauseOf('parent', parent),
        directlyIn(folder),
        ...beside(folder).map(({ id }) => `not ${clauseOf('url', id)}`),
      ].join(' and '),
      folded: own.length,
    })),
  ];
}

const pathAt = (view: View, page: number) => (textAt(view, 'path', page) ?? '/') + (textAt(view, 'query', page) ?? '');

/**
 * The tree of shortest routes: each page under the page that leads to it. Pages that are not drawn are in it where they
 * lead to some that are.
 * @param other another page than the start to begin with, and the page before each on a shortest route from it
 * @returns null when no page has a route
 */
export function routeTree(
  view: View,
  pages: Uint32Array,
  other: { from: number; parent: Int32Array } | null = null,
): TreeNode | null {
  const parent = other?.parent ?? pagesNamed(view, 'parent');
  const depth = view.column('depth');
  const isRoot = (page: number) => (other ? page === other.from : depth[page] === 0);
  const nodes = new Map<number, TreeNode>();
  const roots: TreeNode[] = [];
  const nodeOf = (page: number): TreeNode => {
    const address = addressAt(view, page);
    const node: TreeNode = { id: address, page, name: pathAt(view, page), pages: [], children: [], select: '' };
    nodes.set(page, node);
    if (isRoot(page)) roots.push(node);
    return node;
  };
  for (const page of pages) {
    if (!isRoot(page) && parent[page] < 0) continue;
    // A page may already be there, with what is below it.
    let child: TreeNode | null = null;
    for (let at = page; at >= 0; at = isRoot(at) ? -1 : parent[at]) {
      const known = nodes.get(at);
      const node = known ?? nodeOf(at);
      node.pages.push(page);
      if (child) node.children.push(child);
      child = known ? null : node;
    }
  }
  for (const node of nodes.values()) node.children = byPages(foldAlike(node.id, node.children));
  if (roots.length <= 1) return roots[0] ?? null;
  return {
    id: '',
    page: -1,
    name: null,
    pages: roots.flatMap((root) => root.pages),
    children: byPages(roots),
    select: '',
  };
}

/** The tree of addresses: hosts where there are several, folders, pages. */
export function folderTree(view: View, pages: Uint32Array): TreeNode | null {
  if (pages.length === 0) return null;
  const hosts = new Map<string, TreeNode>();
  const folders = new Map<string, TreeNode>();
  const made = (id: string, name: string, select: string): TreeNode => ({
    ...{ id, page: -1, name, pages: [], children: [], select },
    isBare: true,
  });
  const hostOf = (host: string) => {
    let node = hosts.get(host);
    if (!node) hosts.set(host, (node = made(host, host, clauseOf('host', host))));
    return node;
  };
  const folderNode = (host: string, folder: string): TreeNode => {
    if (folder === '/') return hostOf(host);
    const id = host + folder;
    let node = folders.get(id);
    if (!node) {
      node = made(id, folder, `${clauseOf('host', host)} and path starts ${quote(folder)}`);
      folders.set(id, node);
      folderNode(host, folderOf(folder.slice(0, -1))).children.push(node);
    }
    return node;
  };
  const paths = new Set<string>();
  for (const page of pages) {
    const [host, path] = [textAt(view, 'host', page) ?? '', pathAt(view, page)];
    paths.add(host + path);
    // The slashes of a query begin no folder.
    const folder = folderOf(textAt(view, 'path', page) ?? '/');
    const node = folderNode(host, folder);
    node.children.push({
      id: addressAt(view, page),
      page,
      name: path,
      pages: [page],
      children: [],
      select: clauseOf('url', addressAt(view, page)),
    });
    for (let at = folder; at !== ''; at = at === '/' ? '' : folderOf(at.slice(0, -1)))
      folderNode(host, at).pages.push(page);
  }
  for (const node of [...hosts.values(), ...folders.values()]) {
    const own = node.name!.startsWith('/') ? node.id : `${node.id}/`;
    node.isBare = !paths.has(own) && !paths.has(own.slice(0, -1));
    byPages(node.children);
  }
  if (hosts.size === 1) return [...hosts.values()][0];
  return { id: '', page: -1, name: null, pages: [...pages], children: byPages([...hosts.values()]), select: '' };
}

/** The nodes from the root of a tree down to one of them; empty where it has none of that name. */
export function wayTo(root: TreeNode, id: string): TreeNode[] {
  if (root.id === id) return [root];
  for (const child of root.children) {
    const way = wayTo(child, id);
    if (way.length > 0) return [root, ...way];
  }
  return [];
}
