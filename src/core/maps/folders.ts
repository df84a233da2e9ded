/** Addresses as folders: how pages are told apart where they lie together. */
import { clauseOf, quote } from '../selection';
import { textAt } from '../snapshot';
import type { View } from '../view';

/** The test that holds the pages that lie in a folder itself, and in none within it. */
export const directlyIn = (folder: string) =>
  `path matches ${quote(`^${folder.replace(/[\\^$.|?*+()[\]{}]/g, '\\$&')}[^/]*$`)}`;

/** The folder of a path, with its last slash. */
export const folderOf = (path: string) => path.slice(0, path.lastIndexOf('/') + 1);

/** The deepest folder that some paths share, with its last slash. */
export function sharedFolder(paths: readonly string[]): string {
  let shared = folderOf(paths[0] ?? '/');
  for (const path of paths) while (!path.startsWith(shared)) shared = folderOf(shared.slice(0, -1));
  return shared;
}

/** Groups pages by the first folder in which they differ, those that lie in none of these under the shared one. */
export function byNextFolder(view: View, pages: Uint32Array): { shared: string; groups: Map<string, number[]> } {
  const paths = Array.from(pages, (page) => textAt(view, 'path', page) ?? '/');
  const shared = sharedFolder(paths);
  const groups = new Map<string, number[]>();
  paths.forEach((path, i) => {
    const end = path.indexOf('/', shared.length);
    const folder = end < 0 ? shared : path.slice(0, end + 1);
    const known = groups.get(folder);
    if (known) known.push(pages[i]);
    else groups.set(folder, [pages[i]]);
  });
  return { shared, groups };
}

/** Stands for the files in the root that are sections by themselves. */
export const ROOT_FILES = '/*';
/** Fewer of them keep their own names. */
const LEAST_FILES = 4;

/** In which parts of a site a map draws pages, and what selects each part. */
export interface MapSections {
  nameOf: (page: number) => string | null;
  testOf: (name: string | null) => string;
}

/** The sections of a site, with files in the root that are sections of one page each put together. */
export function mapSections(view: View): MapSections {
  const { codes } = view.column('section');
  const sizes = new Map<number, number>();
  for (const code of codes) sizes.set(code, (sizes.get(code) ?? 0) + 1);
  const isInRoot = (page: number) => folderOf(textAt(view, 'path', page) ?? '/') === '/';
  const isAlone = (page: number) => sizes.get(codes[page]) === 1 && !!textAt(view, 'section', page) && isInRoot(page);
  const files = new Set([...codes.keys()].filter(isAlone));
  const isFile = (page: number) => files.size >= LEAST_FILES && files.has(page);
  const nameOf = (page: number) => (isFile(page) ? ROOT_FILES : textAt(view, 'section', page));
  const others = () => {
    const names = new Set<string | null>();
    for (let page = 0; page < view.count; page++) if (isInRoot(page) && !isFile(page)) names.add(nameOf(page));
    return [...names].map((name) => `not ${clauseOf('section', name)}`);
  };
  return {
    nameOf,
    testOf: (name) => (name === ROOT_FILES ? [directlyIn('/'), ...others()].join(' and ') : clauseOf('section', name)),
  };
}
