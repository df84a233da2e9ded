/** Edits as a unified diff of the files of a static website, for `git apply` and `patch`. */
import { createTwoFilesPatch, FILE_HEADERS_ONLY } from 'diff';

export interface EditedFile {
  /** The address of the page. */
  address: string;
  before: string;
  after: string;
}

/**
 * The file that a static website answers an address with, below its root: a folder with its `index.html`, and what has
 * no ending likewise. A query names no file and is left out.
 */
export function fileOf(address: string): string {
  const { pathname } = new URL(address);
  const last = pathname.slice(pathname.lastIndexOf('/') + 1);
  const path = last === '' ? `${pathname}index.html` : last.includes('.') ? pathname : `${pathname}/index.html`;
  try {
    return decodeURIComponent(path).slice(1);
  } catch {
    return path.slice(1);
  }
}

/** Files that have not changed are left out. */
export const unifiedDiff = (files: readonly EditedFile[]): string =>
  files
    .filter(({ before, after }) => before !== after)
    .map(({ address, before, after }) => {
      const file = fileOf(address);
      return createTwoFilesPatch(`a/${file}`, `b/${file}`, before, after, undefined, undefined, {
        headerOptions: FILE_HEADERS_ONLY,
      });
    })
    .join('');
