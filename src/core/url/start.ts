import { identify } from './identity';

export type StartAddress = { ok: true; address: string } | { ok: false; message: string };

/**
 * Reads what a person typed as a start address. `https://` is supplied when no scheme is written, `http://` for
 * loopback names and bare IP addresses, which rarely speak TLS.
 */
export function readStartAddress(typed: string): StartAddress {
  const text = typed.trim();
  if (!text)
    return { ok: false, message: 'Give the address of the page to start from, such as https://www.example.org/.' };
  if (/\s/.test(text)) return { ok: false, message: `“${text}” is not a URL: an address cannot hold a space.` };
  const scheme = /^([a-z][a-z0-9+.-]*):(?!\d)/i.exec(text)?.[1]?.toLowerCase();
  if (scheme && scheme !== 'http' && scheme !== 'https')
    return { ok: false, message: `“${text}” cannot be crawled: the address must begin with http:// or https://.` };
  const local = /^(localhost|\[|\d+\.\d+\.\d+\.\d+)/i.test(text);
  const found = identify(scheme ? text : `${local ? 'http' : 'https'}://${text}`);
  if (!found) return { ok: false, message: `“${text}” is not a URL. An address looks like https://www.example.org/.` };
  const host = new URL(found.address).hostname;
  if (!scheme && !local && !host.includes('.'))
    return { ok: false, message: `“${text}” is not a URL. An address looks like https://www.example.org/.` };
  return { ok: true, address: found.address };
}
