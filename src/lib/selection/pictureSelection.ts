import { noRouteSelection } from '$core/reach/reach';
import type { Reader } from '$core/reach';

/** What a picture is about, as a selection of pages; '' for a picture of all pages. */
function aboutPicture(picture: string, reader: Reader): string {
  switch (picture) {
    case 'no-route':
      return noRouteSelection(reader);
    case 'gates':
      return 'reached and gate_for > 0';
    case 'traps':
      return 'unvisited_reason = trap';
    case 'readers':
      return 'reached and crawler_depth is unknown';
    case 'leaks':
      return 'not indexable and share > 0';
    default:
      return '';
  }
}

/**
 * The selection to show with another picture: what that picture is about, unless a person has selected something else,
 * which stays.
 */
export function selectionWith(next: string, { picture, select, reader }: Shown): string {
  const isOwn = select !== '' && select !== aboutPicture(picture, reader);
  return isOwn ? select : aboutPicture(next, reader);
}

interface Shown {
  picture: string;
  select: string;
  reader: Reader;
}
