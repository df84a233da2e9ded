/** Where pages go that move: one, or all of a folder, as from `/learn/*` to `/discover/*`. */
import type { Edit } from './edit';

export const isFolder = (text: string): boolean => text.endsWith('*') && text.indexOf('*') === text.length - 1;

/** The new address of a page that an edit moves; null where the edit does not move it, or says no address. */
export function movedAddress({ source, target }: Edit, address: string): string | null {
  if (!isFolder(source)) return URL.canParse(target, address) ? new URL(target, address).href : null;
  if (!isFolder(target)) return null;
  const folder = source.slice(0, -1);
  if (!URL.canParse(folder, address)) return null;
  const from = new URL(folder, address).href;
  const to = target.slice(0, -1) + address.slice(from.length);
  return address.startsWith(from) && URL.canParse(to, address) ? new URL(to, address).href : null;
}
