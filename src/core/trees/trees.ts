/** Three trees that a site has: by breadcrumb, by folder, and by clicks; where they disagree, readers lose their way. */
import { addressAt, pageOf, textAt, walkOf } from '../snapshot';
import type { Snapshot } from '../snapshot';
import { addressParts, originOf } from '../url';

export interface Trees {
  /** For each page the page above it; −1 where there is none, or none that is known. */
  breadcrumb: Int32Array;
  folder: Int32Array;
  click: Int32Array;
}

/** The known page whose folder a page lies in: of `/a/b/c` that is `/a/b/`, else `/a/b`, else what lies above. */
function folderAbove(snapshot: Snapshot, page: number): number {
  const address = addressAt(snapshot, page);
  const origin = originOf(address);
  let { path } = addressParts(address);
  while (path !== '/') {
    path = path.replace(/[^/]*\/?$/, '') || '/';
    for (const candidate of [path, path.replace(/\/$/, '')]) {
      const found = candidate ? pageOf(snapshot, origin + candidate) : -1;
      if (found >= 0 && found !== page) return found;
    }
  }
  return -1;
}

/** The three parents of every page. The parent by clicks is the page before on the shortest route. */
export function treesOf(snapshot: Snapshot): Trees {
  const { count } = snapshot;
  const breadcrumb = new Int32Array(count);
  const folder = new Int32Array(count);
  for (let page = 0; page < count; page++) {
    const above = textAt(snapshot, 'breadcrumb_parent', page);
    breadcrumb[page] = above === null ? -1 : pageOf(snapshot, above);
    folder[page] = folderAbove(snapshot, page);
  }
  return { breadcrumb, folder, click: walkOf(snapshot).depths.parent };
}

/** The pages whose parents by two trees are both known and differ. */
export const disagreements = (a: Int32Array, b: Int32Array): number[] =>
  Array.from(a.keys()).filter((page) => a[page] >= 0 && b[page] >= 0 && a[page] !== b[page]);
