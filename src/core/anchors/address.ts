/** Anchor texts that are addresses. */
import { parse } from 'tldts';
import { addressParts, identify } from '../url';
import { bareHost } from '../scope';

const MAX_LENGTH = 300;

/**
 * The host that a text names when it is an address and nothing else: a whole one with its scheme, or a host under a
 * public suffix that exists (Public Suffix List, https://publicsuffix.org/), with a path or without.
 * @returns null for anything else, such as the name of a file or of code
 */
export function hostOfText(text: string): string | null {
  if (text.length > MAX_LENGTH || /\s/.test(text)) return null;
  if (/^https?:\/\//i.test(text)) {
    const found = identify(text);
    return found && bareHost(addressParts(found.address).host);
  }
  const host = /^(?:www\.)?([\p{L}\p{N}-]+(?:\.[\p{L}\p{N}-]+)+)(?::\d+)?(?:\/\S*)?$/iu.exec(text)?.[1];
  if (!host) return null;
  const { domain, isIcann } = parse(host);
  return domain !== null && isIcann ? bareHost(host.toLowerCase()) : null;
}
