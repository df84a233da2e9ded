import { addressParts } from './identity';

/** `www.` dropped; a host with and without it are variants of one site. */
const bare = (host: string) => (host.startsWith('www.') ? host.slice(4) : host);

/**
 * Makes the test for "inside": the hosts of the start address and of `hosts`, each with its http/https and www/bare
 * variants. A port that is written is part of the host.
 * @param start a start address in normal form
 * @param hosts further hosts, `host` or `host:port`
 */
export function insideTest(start: string, hosts: readonly string[] = []): (address: string) => boolean {
  const inside = new Set([addressParts(start).host, ...hosts].map((host) => bare(host.toLowerCase())));
  return (address) => inside.has(bare(addressParts(address).host));
}
