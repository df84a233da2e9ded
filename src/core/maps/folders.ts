/** Addresses as folders: how pages are told apart where they lie together. */
import { quote } from '../selection';
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
